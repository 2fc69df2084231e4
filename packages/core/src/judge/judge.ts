import { NORMAL } from '../model/item.js'
import { oncePer } from '../model/oncePer.js'
import { SIDE_INDEX, SIDES, type SideIndex } from '../model/side.js'
import { mostUrgent, tierRank } from '../model/tier.js'
import { type AnyPack, type RegionPack } from '../pack/pack.js'
import { hasSides, viewOf } from '../pack/view.js'
import { openPairs } from '../record/disagreement.js'
import { isFinding } from '../record/decisions.js'
import type { Entry, Examination, FindingEntry } from '../record/entry.js'
import { recordOf, type ExaminationRecord } from '../record/record.js'
import { findingsOf, proofOf } from '../rules/proof.js'
import { slotOf, type Earlier } from '../rules/runtime.js'
import { NO, UNKNOWN, YES, type T } from '../rules/truth.js'
import { askedItems } from './asked.js'
import { flagKey, retainedSlots, withRetained } from './retained.js'
import type { JudgeContext } from './judgeContext.js'
import { judgedSides } from './judgedSides.js'
import { isCalm, withoutFalseCalm } from './calm.js'
import { judgeFlag } from './judgeFlag.js'
import type { Judgement } from './judgement.js'
import { retainedFlags, pastFlags, rechecksOf } from './pastFlags.js'
import { CompiledPack } from './compiledPack.js'
import { earlierAt, readingsOf, standingEntries } from './standingEntries.js'
import type { Asked, FlagVerdict, HoldVerdict, PastFlag, Verdict } from './verdict.js'
import { waitsForAsked } from './waitsForAsked.js'
import { isUnexplained, withoutUnexplained } from './unexplained.js'
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

/** @param known what was judged of this record before it grew; filled as it is judged */
export function judgement(pack: AnyPack, examination: Examination, known: PastVerdicts = new Map()): Judgement {
  const view = viewOf(pack, examination.complaint.region)
  const { indexOf } = compiledOf(view)
  const [pair] = openPairs(recordOf(examination.entries), ({ item }) => indexOf.has(item))
  if (!pair) return judgeEntries(view, examination, known)
  const { later, earlier } = pair
  const without = (entry: Entry): Judgement => judgement(view, { ...examination, entries: examination.entries.filter((one) => one !== entry) })
  const [withLater, withEarlier] = [without(earlier), without(later)]
  const standsEarlier = compareUrgency(withEarlier.verdict, withLater.verdict) < 0
  const [judged, stands, other] = standsEarlier ? [withEarlier, earlier, later] : [withLater, later, earlier]
  return { ...judged, examination, disagreements: [...judged.disagreements, { stands, other }] }
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
  const past = pastFlags(
    record,
    rechecks,
    (before, retained, at) => {
      const key = `${at} ${before.length} ${retained.map(({ flag, until }) => `${flag.id} ${flag.side} ${until}`).join()}`
      const flags = known.get(key) ?? judgedAlone(view, { ...examination, entries: before }, retained).verdict.flags
      known.set(key, flags)
      return flags
    },
    (id, side) => flagKey(view, id, side),
  )
  return { ...judgedAlone(view, examination, retainedFlags(past)), rechecks, past }
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

export function judgeContext(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): Verdict {
  compiled.enterPhase(context, { deciding: true, indicated: null })
  const asked = askedItems(compiled, context, sides)
  compiled.enterPhase(context, { deciding: false, indicated: asked.level })
  return verdictOf(compiled, context, sides, asked)
}

export function verdictOf(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[], asked: Asked): Verdict {
  const holds = metHolds(compiled, context, sides)
  const judged = sides.flatMap((side, at) =>
    compiled.flags.flatMap(
      (_, flag) => judgeFlag(compiled, context, side, flag, playingOf(compiled, context, side, flag, asked, asked.inPlay[flag]?.[at] ?? UNKNOWN)) ?? [],
    ),
  )
  const found = [...judged.filter((flag) => flag.truth === 'met'), ...comparisonSideFlags(compiled, context, sides, judged)]
  const isHeld = (flag: FlagVerdict): boolean => context.retained.has(compiled.flagSlot(flag.id, SIDE_INDEX[flag.side]))
  const openFlags = judged.filter(
    (flag) => flag.ceiling !== undefined && (flag.tier === undefined || tierRank(flag.ceiling) < tierRank(flag.tier)) && !isHeld(flag),
  )
  const byFindings = withoutUnexplained(withoutRepeats(compiled, found))
  const met = withRetained(compiled, withoutFalseCalm(byFindings, openFlags, { compiled, context, sides }), context)
  const floor = mostUrgent(met.map((flag) => flag.tier ?? 'here'))
  const ceiling = mostUrgent([floor, ...judged.map((flag) => flag.ceiling ?? 'here')])
  return {
    floor,
    ceiling,
    flags: byUrgency(compiled.pack, met),
    openFlags: byUrgency(compiled.pack, openFlags),
    holds,
    asked,
  }
}

/** In a region without a side a flag that both sides meet is told once, with no side unless its findings have one. */
function withoutRepeats(compiled: CompiledPack, flags: readonly FlagVerdict[]): FlagVerdict[] {
  if (hasSides(compiled.pack)) return [...flags]
  const byId = new Map<string, FlagVerdict>()
  for (const flag of [...flags].sort((a, b) => tierRank(a.tier ?? 'here') - tierRank(b.tier ?? 'here'))) {
    const isSided = flag.proof !== undefined && findingsOf(flag.proof).some((finding) => finding.side !== 'none')
    if (!byId.has(flag.id))
      byId.set(flag.id, isSided && !flags.some((other) => other.id === flag.id && other.side !== flag.side) ? flag : { ...flag, side: 'none' })
  }
  return [...byId.values()]
}

/** Whether a flag is in play: by the core, or because a finding that could still meet it is asked for anyway. */
function playingOf(compiled: CompiledPack, context: JudgeContext, side: SideIndex, at: number, asked: Asked, byCore: T): T {
  const { flag, any } = compiled.flags[at] ?? {}
  const byItself = flag && isUnexplained(flag) ? NO : byCore
  return byItself === NO && any !== undefined && waitsForAsked(any, context, side, compiled, asked.level) ? UNKNOWN : byItself
}

/** The side that does not hurt is the comparison: it raises a flag only by a finding of its own, and leaves none open. */
function comparisonSideFlags(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[], judged: readonly FlagVerdict[]): FlagVerdict[] {
  const others = ([0, 1] as const).filter((side) => !sides.includes(side) && sides.every((s) => s !== 2))
  const raised = new Map<string, number>()
  for (const { id, truth, tier } of judged) if (truth === 'met') raised.set(id, Math.min(tierRank(tier ?? 'here'), raised.get(id) ?? Infinity))
  return others.flatMap((side) =>
    flagsOfOwn(compiled, context, side).flatMap((at) => {
      const ready = compiled.flags[at]
      if (!ready || isCalm(ready.flag) || ready.any.run(context, side) !== YES) return []
      const verdict = judgeFlag(compiled, context, side, at, NO)
      // What the sore side tells as urgently is told once.
      if ((raised.get(ready.flag.id) ?? Infinity) <= tierRank(verdict?.tier ?? 'here')) return []
      const own =
        verdict?.proof &&
        findingsOf(verdict.proof).some(
          (finding) => finding.side === SIDES[side] && finding.state === 'examined' && isAbnormal(compiled, context, compiled.index(finding.item), side),
        )
      return verdict && own ? [verdict] : []
    }),
  )
}

/** Flags that something found on this side may help to meet: only these can be raised by it. */
function flagsOfOwn(compiled: CompiledPack, context: JudgeContext, side: SideIndex): number[] {
  const flags = new Set<number>()
  compiled.pack.items.forEach(({ sided }, index) => {
    const isOwn = sided && context.slots[slotOf(index, side)]?.examined === true && isAbnormal(compiled, context, index, side)
    if (isOwn) for (const flag of compiled.dependentsOn(index).flags) flags.add(flag)
  })
  return [...flags].sort((a, b) => a - b)
}

function isAbnormal(compiled: CompiledPack, context: JudgeContext, index: number, side: SideIndex): boolean {
  const value = context.slots[slotOf(index, side)]?.value
  return value !== NORMAL && (typeof value !== 'string' || !compiled.item(index).calm.includes(value))
}

function metHolds(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): HoldVerdict[] {
  return sides.flatMap((side) =>
    compiled.holds.flatMap(({ hold, rule }) =>
      compiled.holdTruth(hold.id, context, side) === YES
        ? [
            {
              id: hold.id,
              title: hold.title,
              side: SIDES[side],
              reason: hold.reason,
              allowed: hold.allowed,
              stops: hold.stops,
              proof: proofOf(rule, context, side, compiled),
            },
          ]
        : [],
    ),
  )
}

/** Most urgent first; among equals as the pack orders their classes, then by id. */
function byUrgency({ leadOrder }: RegionPack, flags: readonly FlagVerdict[]): FlagVerdict[] {
  const rankOf = (flag: FlagVerdict): number => {
    const lead = leadOrder.findIndex((letter) => flag.classes.includes(letter))
    return tierRank(flag.tier ?? flag.ceiling ?? 'here') * (leadOrder.length + 1) + (lead < 0 ? leadOrder.length : lead)
  }
  const ranked = flags.map((flag) => ({ flag, rank: rankOf(flag) }))
  return ranked.sort((a, b) => a.rank - b.rank || (a.flag.id < b.flag.id ? -1 : 1)).map(({ flag }) => flag)
}
