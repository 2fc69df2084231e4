import { useCallback, useMemo, useState } from 'react'
import {
  conditionRanges,
  findingsOf,
  fold,
  judgeAlong,
  openItems,
  slotKey,
  type Entry,
  type Folded,
  type Item,
  type Pack,
  type Region,
  type Side,
  type Stop,
  type Verdict,
} from '@kneecap-awl/core'
import type { ExaminationDetail } from '../../api/queries'

export interface StopView {
  readonly stop: Stop
  /** Items shown now: core, what is asked for, what was recorded, what was fetched by hand. */
  readonly items: readonly Item[]
  readonly answered: number
  readonly held: boolean
  readonly flags: number
}

/** Everything the workspace shows that follows from the record: judged anew with every entry. */
export function useWorkspace(pack: Pack, detail: ExaminationDetail, entries: readonly Entry[], fetched: ReadonlySet<string>) {
  const region = pack.regions.find((one) => one.id === detail.region)
  const [judgeNow] = useState(() =>
    judgeAlong(pack, { complaint: { region: detail.region, sides: detail.sides }, asOf: detail.startedAt, setting: detail.setting }),
  )
  const judged = useMemo(() => judgeNow(entries), [judgeNow, entries])
  const open = useMemo(() => openItems(judged), [judged])
  const conditions = useMemo(() => conditionRanges(judged, detail.setting), [judged, detail.setting])
  const state = useMemo(() => fold(entries), [entries])
  const items = useMemo(() => new Map(pack.items.map((item) => [item.id, item])), [pack])
  const entryOf = useCallback(
    (item: string, side: Side): Entry | undefined => {
      const entry = state.get(slotKey(item, side))
      return entry?.state === 'not-examined' ? undefined : entry
    },
    [state],
  )
  const heldBy = useMemo(() => new Map(judged.verdict.holds.flatMap((hold) => hold.stops.map((id) => [id, hold] as const))), [judged])
  const { asked } = judged.verdict

  const isShown = useCallback(
    (item: Item): boolean => {
      if (item.depth === 'core' || fetched.has(item.id)) return true
      if (['right', 'left', 'none'].some((side) => entryOf(item.id, side as Side))) return true
      if (RESULTS_ALWAYS.includes(item.id.split('.').slice(-2).join('.'))) return true
      return item.depth === 'prompted' && asked.level[pack.items.indexOf(item)] === 2
    },
    [asked, entryOf, fetched, pack],
  )

  const isAnswered = useCallback(
    (item: Item): boolean => {
      const needed: readonly Side[] = !item.sided ? ['none'] : item.stage === 'story' || item.stage === 'patient' ? detail.sides : ['right', 'left']
      return needed.every((side) => entryOf(item.id, side) !== undefined)
    },
    [detail.sides, entryOf],
  )

  const stops: readonly StopView[] = useMemo(() => {
    if (!region) return []
    const flagItems = new Set(
      judged.verdict.flags
        .filter((flag) => flag.tier !== 'here')
        .flatMap((flag) => JSON.stringify(flag.proof ?? '').match(/"item":"[^"]+"/g) ?? [])
        .map((text) => text.slice(8, -1)),
    )
    return region.stops.map((stop) => {
      const listed = stop.id === 'story' ? storyItems(pack, region) : stopItems(pack, region, stop)
      const shown = listed.filter(isShown)
      return {
        stop,
        items: shown,
        answered: shown.filter(isAnswered).length,
        held: shown.some((item) => heldBy.has(item.id)),
        flags: shown.filter((item) => flagItems.has(item.id)).length,
      }
    })
  }, [region, pack, isShown, isAnswered, heldBy, judged])

  const firstSeen = useMemo(() => firstProven(judged.verdict, state), [judged, state])
  return { region, judged, firstSeen, verdict: judged.verdict, open, conditions, items, entryOf, heldBy, isAnswered, stops }
}

/** When the first flag of tier Now was proven: the time of the last finding that its proof needed. */
function firstProven(verdict: Verdict, state: Folded): string | undefined {
  const times = verdict.flags
    .filter((flag) => flag.tier === 'now' && flag.proof)
    .map((flag) =>
      (flag.proof ? findingsOf(flag.proof) : [])
        .flatMap((finding) => state.get(slotKey(finding.item, finding.side))?.at ?? [])
        .sort()
        .at(-1),
    )
  return times.filter((time) => time !== undefined).sort()[0]
}

const RESULTS_ALWAYS = ['imaging.film']
/** Story facts: the core in its own order, then what is prompted. */
function storyItems(pack: Pack, region: Region): Item[] {
  const rank = (item: Item): number => (region.core.includes(item.id) ? region.core.indexOf(item.id) : region.core.length)
  return pack.items.filter((item) => item.stage === 'story' && item.derive === undefined).sort((a, b) => rank(a) - rank(b))
}

/** The stop's own list, then whatever else of the region is examined in the same stage and place. */
function stopItems(pack: Pack, region: Region, stop: Stop): Item[] {
  const byId = new Map(pack.items.map((item) => [item.id, item]))
  const own = stop.items.flatMap((id) => byId.get(id) ?? [])
  const listed = new Set(region.stops.flatMap((one) => one.items))
  const extra = pack.items.filter((item) => !listed.has(item.id) && item.depth === 'on-demand' && homeOf(item, region) === stop.id)
  return [...own, ...extra]
}

/** The stop in which an item is shown: its own, else the one that holds most of its stage. */
export function homeOf(item: Item, region: Region): string {
  const own = region.stops.find((stop) => stop.items.includes(item.id))
  if (own) return own.id
  const alike = (stop: Stop): number => stop.items.filter((id) => id.split('.').includes(item.stage)).length
  const [nearest] = [...region.stops].sort((a, b) => alike(b) - alike(a))
  return nearest && alike(nearest) > 0 ? nearest.id : (region.stops.find((stop) => stop.position === item.position && stop.id !== 'story')?.id ?? 'screen')
}
