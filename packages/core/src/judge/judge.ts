import { oncePer } from '../model/oncePer.js'
import { SIDE_INDEX } from '../model/side.js'
import { tierRank } from '../model/tier.js'
import { type AnyPack, type RegionPack } from '../pack/pack.js'
import { viewOf } from '../pack/view.js'
import { openPairs, type Pair } from '../record/disagreement.js'
import { isFinding } from '../record/decisions.js'
import type { Entry, Examination, FindingEntry } from '../record/entry.js'
import { recordOf, type ExaminationRecord } from '../record/record.js'
import { slotOf, type Earlier } from '../rules/runtime.js'
import { flagKey, retainedSlots } from './retained.js'
import { judgedSides } from './judgedSides.js'
import type { Disagreement, Judgement } from './judgement.js'
import { retainedFlags, pastFlags, rechecksOf } from './pastFlags.js'
import { CompiledPack } from './compiledPack.js'
import { earlierAt, readingsOf, standingEntries } from './standingEntries.js'
import { rejudge } from './rejudge.js'
import type { FlagVerdict, PastFlag, Verdict } from './verdict.js'
import { judgeContext } from './verdictOf.js'

/** The pack, as one region sees it, made ready to judge with; made once and kept for as long as the pack lives. */
const compiledOf = oncePer((pack: RegionPack) => new CompiledPack(pack))

/** Items of a region that some rule compares with an earlier check. */
export const comparedItems = (pack: AnyPack, region: string): ReadonlySet<string> => {
  const compiled = compiledOf(viewOf(pack, region))
  return new Set([...compiled.compared].map((at) => compiled.item(at).id))
}

/**
 * Judges an examination: which flags are met, which are still open, and the range of priority that follows. A flag of tier Now that a later
 * check no longer meets stays until it is lifted. Pure: the same record, pack and time always give the same verdict.
 * @example judge(pack, { complaint: { region: 'knee', sides: ['right'] }, asOf, entries: [] }).ceiling // 'now'
 */
export const judge = (pack: AnyPack, examination: Examination): Verdict => judgement(pack, examination).verdict

/** Up to so many entries that are held against others, every way of choosing between them is judged; beyond it one pair after the other. */
const EVERY_WAY = 5

/** @param known what was judged of this record before it grew; filled as it is judged */
export function judgement(pack: AnyPack, examination: Examination, known: PastVerdicts = new Map()): Judgement {
  const view = viewOf(pack, examination.complaint.region)
  const pairs = openPairsOf(view, examination)
  if (pairs.length === 0) return judgeEntries(view, examination, known)
  return pairs.reduce((sum, { rivals }) => sum + rivals, 0) <= EVERY_WAY ? mostUrgentWay(view, examination) : pairByPair(view, examination)
}

const openPairsOf = (view: RegionPack, { entries }: Examination): readonly Pair[] => {
  const { indexOf } = compiledOf(view)
  return openPairs(recordOf(entries), ({ item }) => indexOf.has(item))
}

const without = (examination: Examination, gone: readonly Entry[]): Examination => ({
  ...examination,
  entries: examination.entries.filter((entry) => !gone.includes(entry)),
})

/** Of every way of choosing between what two devices found the one that is most urgent: two judgements for each pair, for each way of the others. */
function mostUrgentWay(view: RegionPack, examination: Examination): Judgement {
  const [pair] = openPairsOf(view, examination)
  if (!pair) return judgeEntries(view, examination, new Map())
  const { later, earlier } = pair
  const [withLater, withEarlier] = [mostUrgentWay(view, without(examination, [earlier])), mostUrgentWay(view, without(examination, [later]))]
  const standsEarlier = compareUrgency(withEarlier.verdict, withLater.verdict) < 0
  const [judged, stands, other] = standsEarlier ? [withEarlier, earlier, later] : [withLater, later, earlier]
  return { ...judged, examination, disagreements: [...judged.disagreements, { stands, other }] }
}

/**
 * Where two devices differ in much, one pair after the other is decided by what makes the record more urgent, once with what the one device found
 * of the rest and once with what the other did: so many judgements as there are pairs, where every way of choosing would double them with each.
 */
function pairByPair(view: RegionPack, examination: Examination): Judgement {
  const decided: Disagreement[] = []
  let left = examination
  for (let pairs = openPairsOf(view, left); pairs.length > 0; pairs = openPairsOf(view, left)) {
    const [{ later, earlier }, ...others] = pairs as readonly [Pair, ...Pair[]]
    const latest = others.map((pair) => pair.later)
    const most = (gone: Entry): Verdict => {
      const kept = without(left, [gone])
      const [byLater, byEarlier] = [kept, without(kept, latest)].map((one) => judgeEntries(view, one, new Map()).verdict) as [Verdict, Verdict]
      return compareUrgency(byEarlier, byLater) < 0 ? byEarlier : byLater
    }
    const standsEarlier = compareUrgency(most(later), most(earlier)) < 0
    const [stands, other] = standsEarlier ? [earlier, later] : [later, earlier]
    decided.unshift({ stands, other })
    left = without(left, [other])
  }
  return { ...judgeEntries(view, left, new Map()), examination, disagreements: decided }
}

/** Below 0 when the first verdict is the more urgent: by its floor, then by what it could still be, then by how much it raises. */
const compareUrgency = (a: Verdict, b: Verdict): number =>
  tierRank(a.floor) - tierRank(b.floor) ||
  tierRank(a.ceiling) - tierRank(b.ceiling) ||
  b.flags.length - a.flags.length ||
  b.openFlags.length - a.openFlags.length

function judgeEntries(view: RegionPack, examination: Examination, known: PastVerdicts): Judgement {
  const { indexOf } = compiledOf(view)
  const record = recordOf(examination.entries)
  const rechecks = rechecksOf(record, ({ item }) => indexOf.has(item))
  if (rechecks.length === 0) return judgedAlone(view, examination, [])
  const judgeBefore = judgingAlong(view, examination)
  const past = pastFlags(
    record,
    rechecks,
    (before, retained, at) => {
      const key = `${at} ${before.length} ${retained.map(({ flag, until }) => `${flag.id} ${flag.side} ${until}`).join()}`
      const flags = known.get(key) ?? judgeBefore(before, retained)
      known.set(key, flags)
      return flags
    },
    (id, side) => flagKey(view, id, side),
  )
  return { ...judgedAlone(view, examination, retainedFlags(past)), rechecks, past }
}

/**
 * Judges what stood before one time after the other: what was added since the last is judged along, for as long as the same flags are retained.
 * @returns the flags that are met; called with ever longer beginnings of the same record
 */
function judgingAlong(view: RegionPack, examination: Examination): (before: readonly Entry[], retained: readonly PastFlag[]) => readonly FlagVerdict[] {
  let last: { readonly judged: Judgement; readonly keeps: string } | undefined
  return (before, retained) => {
    const keeps = retained.map(({ flag }) => flagKey(view, flag.id, flag.side)).join()
    const judged =
      last?.keeps === keeps
        ? before.slice(last.judged.examination.entries.length).reduce(rejudge, last.judged)
        : judgedAlone(view, { ...examination, entries: before }, retained)
    last = { judged, keeps }
    return judged.verdict.flags
  }
}

/**
 * The flags that a record met before each recheck, as they were judged before: of use again for as long as entries are only added to it,
 * for then as many entries before a time are the same ones.
 */
export type PastVerdicts = Map<string, readonly FlagVerdict[]>

/** The judgement of what stands, with the flags that are retained from before. */
function judgedAlone(view: RegionPack, examination: Examination, retained: readonly PastFlag[]): Judgement {
  const compiled = compiledOf(view)
  const record = recordOf(examination.entries)
  const standing = standingEntries(view, compiled.indexOf, record)
  const others = otherEntries(compiled, record, examination.previous ?? [])
  const previous: Earlier[] = []
  for (const [slot, entries] of others) {
    const earlier = earlierAt(view, slot, standing[slot], entries)
    if (earlier) previous[slot] = earlier
  }
  const context = compiled.context(readingsOf(view, standing), previous, Date.parse(examination.asOf), retainedSlots(compiled, retained))
  const sides = judgedSides(view, examination.complaint).map((side) => SIDE_INDEX[side])
  return {
    pack: view,
    examination,
    record,
    verdict: judgeContext(compiled, context, sides),
    compiled,
    context,
    sides,
    standing,
    others,
    rechecks: [],
    past: [],
    disagreements: [],
  }
}

/** What else was found of items that a rule compares with an earlier check: before what stands, or at an earlier examination. */
function otherEntries(compiled: CompiledPack, { repeated }: ExaminationRecord, previous: readonly Entry[]): ReadonlyMap<number, readonly FindingEntry[]> {
  const others = new Map<number, FindingEntry[]>()
  if (compiled.compared.size === 0) return others
  for (const entry of [...repeated.flatMap(({ passed }) => passed), ...previous]) {
    const item = isFinding(entry) ? compiled.indexOf.get(entry.item) : undefined
    if (!isFinding(entry) || item === undefined || !compiled.compared.has(item)) continue
    const slot = slotOf(item, SIDE_INDEX[entry.side])
    others.set(slot, [...(others.get(slot) ?? []), entry])
  }
  return others
}
