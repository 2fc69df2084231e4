import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import {
  conclusionsOf,
  contradictionsOf,
  findingsOf,
  itemsById,
  judgeAlong,
  judgedSides,
  railOf,
  releaseOf,
  serialStatements,
  sidesOf,
  slotKey,
  standingHolds,
  subjectOf,
  type Conclusion,
  type Entry,
  type EntryOf,
  type FindingEntry,
  type Item,
  type Judgement,
  type RegionPack,
  type Side,
} from '@kneecap-awl/core'
import type { ExaminationDetail } from '../../api/queries'
import { siteZone } from '../../parts/times'
import { layoutOf, type Order, type Station } from './layout'

export interface StopView {
  readonly stop: Station
  /** Items shown now: core, what is asked for, what was recorded, what was fetched by hand. */
  readonly items: readonly Item[]
  readonly answered: number
  readonly onHold: boolean
  readonly flags: number
}

/** Everything the workspace shows that follows from the record: judged anew with every entry. */
export function useWorkspace(pack: RegionPack, detail: ExaminationDetail, entries: readonly Entry[], fetched: ReadonlySet<string>, order: Order) {
  const layout = layoutOf(pack, order)
  const region = pack.regions.find((one) => one.id === detail.region)
  const sides = useMemo(() => judgedSides(pack, detail), [pack, detail])
  const [about] = useState(() => ({
    complaint: { region: detail.region, sides: detail.sides },
    asOf: detail.startedAt,
    setting: detail.setting,
    previous: detail.previous,
  }))
  const [judgeNow] = useState(() => judgeAlong(pack, about))
  const judged = useMemo(() => judgeNow(entries), [judgeNow, entries])
  // The row is painted first: what stands beside it follows as soon as no key waits.
  const shown = useDeferredValue(judged)
  const rail = useMemo(() => railOf(shown, siteZone()), [shown])
  const { record } = judged
  const items = itemsById(pack)
  const entryOf = useCallback((item: string, side: Side): FindingEntry | undefined => record.finding(item, side), [record])
  const holdOf = useMemo(() => new Map(standingHolds(judged).flatMap((hold) => hold.stops.map((id) => [id, hold] as const))), [judged])
  const releasedBy = useMemo(() => releasesOf(judged), [judged])
  const disagreements = useMemo(() => new Map(judged.disagreements.map((one) => [slotKey(one.stands.item, one.stands.side), one] as const)), [judged])
  const contradictions = useMemo(() => {
    const byItem = new Map<string, string[]>()
    for (const { says, items: about } of contradictionsOf(judged)) for (const id of about) byItem.set(id, [...(byItem.get(id) ?? []), says])
    return byItem
  }, [judged])
  // At the last of their rows: there the examiner is when they can be drawn.
  const conclusions = useMemo(() => {
    const byRow = new Map<string, Conclusion[]>()
    for (const one of conclusionsOf(judged)) {
      const row = layout.order.findLast((id) => one.items.includes(id)) ?? ''
      byRow.set(row, [...(byRow.get(row) ?? []), one])
    }
    return byRow
  }, [judged, layout])
  const since = useMemo(() => {
    const told = [...new Set(record.repeated.map(({ standing }) => subjectOf(standing).about))].flatMap((id) => items.get(id) ?? [])
    return new Map(told.map((item) => [item.id, serialStatements(item, record)] as const).filter(([, lines]) => lines.length > 0))
  }, [items, record])
  const { asked } = judged.verdict

  const isShown = useCallback(
    (item: Item): boolean => {
      if (item.depth === 'core' || fetched.has(item.id)) return true
      if (['right', 'left', 'none'].some((side) => entryOf(item.id, side as Side))) return true
      if (RESULTS_ALWAYS.includes(item.id.split('.').slice(-2).join('.'))) return true
      return item.depth === 'prompted' && asked.level[judged.compiled.index(item.id)] === 2
    },
    [asked, entryOf, fetched, judged],
  )

  const isAnswered = useCallback(
    (item: Item): boolean => {
      const needed = item.stage === 'story' || item.stage === 'patient' ? sides : undefined
      return sidesOf(item, needed).every((side) => entryOf(item.id, side) !== undefined)
    },
    [sides, entryOf],
  )

  const stops: readonly StopView[] = useMemo(() => {
    if (!region) return []
    const flagItems = new Set(
      judged.verdict.flags
        .filter((flag) => flag.tier !== 'here')
        .flatMap((flag) => (flag.proof ? findingsOf(flag.proof) : []))
        .map((finding) => finding.item),
    )
    return layout.stations.map((stop) => {
      const listed = layout.itemsOf.get(stop.id) ?? []
      const shown = listed.filter(isShown)
      return {
        stop,
        items: shown,
        answered: shown.filter(isAnswered).length,
        onHold: shown.some((item) => holdOf.has(item.id)),
        flags: shown.filter((item) => flagItems.has(item.id)).length,
      }
    })
  }, [region, layout, isShown, isAnswered, holdOf, judged])

  return { region, sides, judged, rail, items, entryOf, holdOf, releasedBy, disagreements, contradictions, conclusions, since, isAnswered, stops }
}

const NO_RELEASES: ReadonlyMap<string, EntryOf<'released'>> = new Map()

/** The release of a hold by each item that it stops: the same empty one where none is, so that no row is painted for it. */
const releasesOf = (judged: Judgement): ReadonlyMap<string, EntryOf<'released'>> =>
  judged.record.decisions.releases.length === 0
    ? NO_RELEASES
    : new Map(
        judged.verdict.holds.flatMap((hold) => {
          const release = releaseOf(hold, judged)
          return release ? hold.stops.map((id) => [id, release] as const) : []
        }),
      )

const RESULTS_ALWAYS = ['imaging.film']
