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
import { flagKey, heldSlots, withHeld } from './held.js'
import type { JudgeContext } from './judgeContext.js'
import { judgedSides } from './judgedSides.js'
import { judgeFlag } from './judgeFlag.js'
import type { Judgement } from './judgement.js'
import { heldFlags, pastFlags, rechecksOf } from './pastFlags.js'
import { Prepared } from './prepare.js'
import { earlierAt, readingsOf, standingEntries } from './standingEntries.js'
import type { Asked, FlagVerdict, HoldVerdict, PastFlag, Verdict } from './verdict.js'
import { waitsForAsked } from './waitsForAsked.js'
/** The pack, as one region sees it, made ready to judge with; made once and kept for as long as the pack lives. */
const preparePack = oncePer((pack: RegionPack) => new Prepared(pack))

/** Items of a region that some rule compares with an earlier check. */
export const comparedItems = (pack: AnyPack, region: string): ReadonlySet<string> => {
  const prepared = preparePack(viewOf(pack, region))
  return new Set([...prepared.compared].map((at) => prepared.item(at).id))
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
  const { indexOf } = preparePack(view)
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
  const { indexOf } = preparePack(view)
  const record = recordOf(examination.entries)
  const rechecks = rechecksOf(record, ({ item }) => indexOf.has(item))
  if (rechecks.length === 0) return judgedAlone(view, examination, [])
  const past = pastFlags(
    record,
    rechecks,
    (before, held, at) => {
      const key = `${at} ${before.length} ${held.map(({ flag, until }) => `${flag.id} ${flag.side} ${until}`).join()}`
      const flags = known.get(key) ?? judgedAlone(view, { ...examination, entries: before }, held).verdict.flags
      known.set(key, flags)
      return flags
    },
    (id, side) => flagKey(view, id, side),
  )
  return { ...judgedAlone(view, examination, heldFlags(past)), rechecks, past }
}

/**
 * The flags that a record met before each recheck, as they were judged before: of use again for as long as entries are only added to it,
 * for then as many entries before a time are the same ones.
 */
export type PastVerdicts = Map<string, readonly FlagVerdict[]>

/** The judgement of what stands, with the flags that are held from before. */
function judgedAlone(view: RegionPack, examination: Examination, held: readonly PastFlag[]): Judgement {
  const prepared = preparePack(view)
  const record = recordOf(examination.entries)
  const standing = standingEntries(view, prepared.indexOf, record)
  const others = otherEntries(prepared, record, examination.previous ?? [])
  const previous: Earlier[] = []
  for (const [slot, entries] of others) {
    const earlier = earlierAt(view, slot, standing[slot], entries)
    if (earlier) previous[slot] = earlier
  }
  const context = prepared.context(readingsOf(view, standing), previous, Date.parse(examination.asOf), heldSlots(prepared, held))
  const sides = judgedSides(view, examination.complaint).map((side) => SIDE_INDEX[side])
  return {
    pack: view,
    examination,
    record,
    verdict: judgeContext(prepared, context, sides),
    prepared,
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
function otherEntries(prepared: Prepared, { repeated }: ExaminationRecord, previous: readonly Entry[]): ReadonlyMap<number, readonly FindingEntry[]> {
  const others = new Map<number, FindingEntry[]>()
  if (prepared.compared.size === 0) return others
  for (const entry of [...repeated.flatMap(({ passed }) => passed), ...previous]) {
    const item = isFinding(entry) ? prepared.indexOf.get(entry.item) : undefined
    if (!isFinding(entry) || item === undefined || !prepared.compared.has(item)) continue
    const slot = slotOf(item, SIDE_INDEX[entry.side])
    others.set(slot, [...(others.get(slot) ?? []), entry])
  }
  return others
}

export function judgeContext(prepared: Prepared, context: JudgeContext, sides: readonly SideIndex[]): Verdict {
  prepared.enterPhase(context, { deciding: true, indicated: null })
  const asked = askedItems(prepared, context, sides)
  prepared.enterPhase(context, { deciding: false, indicated: asked.level })
  return verdictOf(prepared, context, sides, asked)
}

export function verdictOf(prepared: Prepared, context: JudgeContext, sides: readonly SideIndex[], asked: Asked): Verdict {
  const holds = metHolds(prepared, context, sides)
  const judged = sides.flatMap((side, at) =>
    prepared.flags.flatMap(
      (_, flag) => judgeFlag(prepared, context, side, flag, playingOf(prepared, context, side, flag, asked, asked.inPlay[flag]?.[at] ?? UNKNOWN)) ?? [],
    ),
  )
  const byFindings = withoutRepeats(prepared, [...judged.filter((flag) => flag.truth === 'met'), ...comparisonSideFlags(prepared, context, sides, judged)])
  const met = withHeld(prepared, byFindings, context)
  const isHeld = (flag: FlagVerdict): boolean => context.held.has(prepared.flagSlot(flag.id, SIDE_INDEX[flag.side]))
  const openFlags = judged.filter(
    (flag) => flag.ceiling !== undefined && (flag.tier === undefined || tierRank(flag.ceiling) < tierRank(flag.tier)) && !isHeld(flag),
  )
  const floor = mostUrgent(met.map((flag) => flag.tier ?? 'here'))
  const ceiling = mostUrgent([floor, ...judged.map((flag) => flag.ceiling ?? 'here')])
  return {
    floor,
    ceiling,
    flags: met.sort(byUrgency(prepared.pack)),
    openFlags: openFlags.sort(byUrgency(prepared.pack)),
    holds,
    asked,
  }
}

/** In a region without a side a flag that both sides meet is told once, with no side unless its findings have one. */
function withoutRepeats(prepared: Prepared, flags: readonly FlagVerdict[]): FlagVerdict[] {
  if (hasSides(prepared.pack)) return [...flags]
  const byId = new Map<string, FlagVerdict>()
  for (const flag of [...flags].sort((a, b) => tierRank(a.tier ?? 'here') - tierRank(b.tier ?? 'here'))) {
    const isSided = flag.proof !== undefined && findingsOf(flag.proof).some((finding) => finding.side !== 'none')
    if (!byId.has(flag.id))
      byId.set(flag.id, isSided && !flags.some((other) => other.id === flag.id && other.side !== flag.side) ? flag : { ...flag, side: 'none' })
  }
  return [...byId.values()]
}

/** Whether a flag is in play: by the core, or because a finding that could still meet it is asked for anyway. */
function playingOf(prepared: Prepared, context: JudgeContext, side: SideIndex, at: number, asked: Asked, byCore: T): T {
  const any = prepared.flags[at]?.any
  return byCore === NO && any !== undefined && waitsForAsked(any, context, side, prepared, asked.level) ? UNKNOWN : byCore
}

/** The side that does not hurt is the comparison: it raises a flag only by a finding of its own, and leaves none open. */
function comparisonSideFlags(prepared: Prepared, context: JudgeContext, sides: readonly SideIndex[], judged: readonly FlagVerdict[]): FlagVerdict[] {
  const others = ([0, 1] as const).filter((side) => !sides.includes(side) && sides.every((s) => s !== 2))
  const raised = new Set(judged.filter((flag) => flag.truth === 'met').map((flag) => flag.id))
  return others.flatMap((side) =>
    prepared.flags.flatMap(({ flag, any }, at) => {
      if (raised.has(flag.id) || any.run(context, side) !== YES) return []
      const verdict = judgeFlag(prepared, context, side, at, NO)
      const own =
        verdict?.proof &&
        findingsOf(verdict.proof).some(
          (finding) => finding.side === SIDES[side] && finding.state === 'examined' && isAbnormal(prepared, context, finding.item, side),
        )
      return verdict && own ? [verdict] : []
    }),
  )
}

function isAbnormal(prepared: Prepared, context: JudgeContext, id: string, side: SideIndex): boolean {
  const index = prepared.index(id)
  const value = context.slots[slotOf(index, side)]?.value
  return value !== NORMAL && (typeof value !== 'string' || !prepared.item(index).calm.includes(value))
}

function metHolds(prepared: Prepared, context: JudgeContext, sides: readonly SideIndex[]): HoldVerdict[] {
  return sides.flatMap((side) =>
    prepared.holds.flatMap(({ hold, rule }) =>
      prepared.holdTruth(hold.id, context, side) === YES
        ? [
            {
              id: hold.id,
              title: hold.title,
              side: SIDES[side],
              reason: hold.reason,
              allowed: hold.allowed,
              stops: hold.stops,
              proof: proofOf(rule, context, side, prepared),
            },
          ]
        : [],
    ),
  )
}

/** Most urgent first; among equals as the pack orders their classes. */
function byUrgency({ leadOrder }: RegionPack): (a: FlagVerdict, b: FlagVerdict) => number {
  const leadRank = (flag: FlagVerdict): number => {
    const rank = leadOrder.findIndex((letter) => flag.classes.includes(letter))
    return rank < 0 ? leadOrder.length : rank
  }
  return (a, b) => tierRank(a.tier ?? a.ceiling ?? 'here') - tierRank(b.tier ?? b.ceiling ?? 'here') || leadRank(a) - leadRank(b) || (a.id < b.id ? -1 : 1)
}
