import type { Pack, Side, Tier } from '../content/types.js'
import { viewOf } from '../content/view.js'
import type { Complaint, Entry, Examination } from '../record/entry.js'
import { isLater } from '../record/fold.js'
import { askedItems, type Asked } from './asked.js'
import { Prepared, tierRank } from './prepare.js'
import { modifiedTier, mostUrgent, type ApplicableModifier } from './priorityTier.js'
import { repairClock, tierByClock, type ClockReading } from './clock.js'
import { findingsOf, proofOf, type ProofNode } from './proof.js'
import { SIDE_INDEX, SIDE_NAMES, readingAt, readingsOf, slotOf, standingEntries, type Context } from './runtime.js'
import { NO, UNKNOWN, YES, truthOf, type T, type Truth } from './truth.js'

export interface FlagVerdict {
  readonly id: string
  readonly concept: string
  readonly classes: readonly string[]
  readonly title: string
  readonly side: Side
  readonly truth: Truth
  readonly inPlay: Truth
  /** Tier that is proven; undefined while the flag is only open. */
  readonly tier?: Tier
  /** Most urgent tier it could still have. */
  readonly ceiling?: Tier
  readonly baseTier?: Tier
  readonly modifiers: readonly { readonly id: string; readonly truth: Truth }[]
  readonly to: readonly string[]
  readonly doNow: readonly string[]
  readonly avoid: readonly string[]
  readonly clock?: ClockReading
  readonly proof?: ProofNode
}

export interface HoldVerdict {
  readonly id: string
  readonly title: string
  readonly side: Side
  readonly reason: string
  readonly allowed: string
  readonly stops: readonly string[]
  readonly proof?: ProofNode
}

export interface CalcVerdict {
  readonly id: string
  readonly label: string
  readonly side: Side
  readonly value: string
}

export interface Verdict {
  readonly floor: Tier
  readonly ceiling: Tier
  /** Met flags, most urgent first. */
  readonly flags: readonly FlagVerdict[]
  /** Flags that are not settled and hold the ceiling up. */
  readonly openFlags: readonly FlagVerdict[]
  readonly holds: readonly HoldVerdict[]
  readonly asked: Asked
}

/** Everything that was used in reaching a verdict, for explanations that go on from it. */
export interface Judgement {
  readonly verdict: Verdict
  readonly prepared: Prepared
  readonly context: Context
  readonly sides: readonly number[]
  /** The entry that stands in each slot, for judging on. */
  readonly standing: readonly (Entry | undefined)[]
}

const prepareds = new WeakMap<Pack, Prepared>()

/** The pack, as one region sees it, made ready to judge with; made once and kept for as long as the pack lives. */
export function preparePack(pack: Pack): Prepared {
  const held = prepareds.get(pack)
  if (held) return held
  const prepared = new Prepared(pack)
  prepareds.set(pack, prepared)
  return prepared
}

/**
 * Judges an examination: which flags are met, which are still open, and the range of priority that follows.
 * Pure: the same record, pack and time always give the same verdict.
 * @example judge(pack, { complaint: { region: 'knee', sides: ['right'] }, asOf, entries: [] }).ceiling // 'now'
 */
export const judge = (pack: Pack, examination: Examination): Verdict => judgement(pack, examination).verdict

export function judgement(pack: Pack, examination: Examination): Judgement {
  const view = viewOf(pack, examination.complaint.region)
  const prepared = preparePack(view)
  const standing = standingEntries(view, prepared.indexOf, examination.entries)
  const previous = readingsOf(view, standingEntries(view, prepared.indexOf, examination.previous ?? []))
  const context = prepared.context(readingsOf(view, standing), previous, Date.parse(examination.asOf))
  const sides = judgedSides(view, examination.complaint).map((side) => SIDE_INDEX[side])
  return { verdict: judgeContext(prepared, context, sides), prepared, context, sides, standing }
}

/** The sides that are judged: a neck or a back has no side of its own, but its nerves have, so both are. */
export const judgedSides = (pack: Pack, complaint: Complaint): readonly Side[] =>
  pack.regions.find((region) => region.id === complaint.region)?.side === false ? ['right', 'left'] : complaint.sides

/**
 * The judgement after one more entry: the same as judging the longer record anew, but only what hangs on that item is worked out again.
 * An entry that a later one already stands over changes nothing.
 */
export function rejudge(before: Judgement, entry: Entry): Judgement {
  const { prepared, sides } = before
  const item = prepared.indexOf.get(entry.item)
  if (item === undefined) return before
  const at = slotOf(item, SIDE_INDEX[entry.side])
  const held = before.standing[at]
  if (held && !isLater(entry, held)) return before
  const standing = [...before.standing]
  standing[at] = entry
  const slots = [...before.context.slots]
  slots[at] = readingAt(prepared.pack, at, entry)
  const context = prepared.contextAfter(before.context, slots, item)
  prepared.resumePhase(context, { deciding: true, indicated: null })
  const asked = askedItems(prepared, context, sides)
  prepared.resumePhase(context, { deciding: false, indicated: asked.level })
  return { verdict: verdictOf(prepared, context, sides, asked), prepared, context, sides, standing }
}

export function judgeContext(prepared: Prepared, context: Context, sides: readonly number[]): Verdict {
  prepared.enterPhase(context, { deciding: true, indicated: null })
  const asked = askedItems(prepared, context, sides)
  prepared.enterPhase(context, { deciding: false, indicated: asked.level })
  return verdictOf(prepared, context, sides, asked)
}

function verdictOf(prepared: Prepared, context: Context, sides: readonly number[], asked: Asked): Verdict {
  const holds = metHolds(prepared, context, sides)
  const judged = sides.flatMap((side, at) =>
    prepared.flags.flatMap((_, flag) => judgeFlag(prepared, context, side, flag, asked.inPlay[flag]?.[at] ?? UNKNOWN) ?? []),
  )
  const met = withoutRepeats(prepared, [...judged.filter((flag) => flag.truth === 'met'), ...comparisonSideFlags(prepared, context, sides, judged)])
  const openFlags = judged.filter((flag) => flag.ceiling !== undefined && (flag.tier === undefined || tierRank(flag.ceiling) < tierRank(flag.tier)))
  const floor = mostUrgent(met.map((flag) => flag.tier ?? 'here'))
  const ceiling = mostUrgent([floor, ...judged.map((flag) => flag.ceiling ?? 'here')])
  return {
    floor,
    ceiling,
    flags: met.sort(byUrgency),
    openFlags: openFlags.sort(byUrgency),
    holds,
    asked,
  }
}

/** In a region without a side a flag that both sides meet is told once, with no side unless its findings have one. */
function withoutRepeats(prepared: Prepared, flags: readonly FlagVerdict[]): FlagVerdict[] {
  if (prepared.pack.regions[0]?.side !== false) return [...flags]
  const byId = new Map<string, FlagVerdict>()
  for (const flag of [...flags].sort((a, b) => tierRank(a.tier ?? 'here') - tierRank(b.tier ?? 'here'))) {
    const isSided = flag.proof !== undefined && findingsOf(flag.proof).some((finding) => finding.side !== 'none')
    if (!byId.has(flag.id))
      byId.set(flag.id, isSided && !flags.some((other) => other.id === flag.id && other.side !== flag.side) ? flag : { ...flag, side: 'none' })
  }
  return [...byId.values()]
}

/** The verdict on one flag of one side; undefined when it is not met and holds nothing open. */
function judgeFlag(prepared: Prepared, context: Context, side: number, at: number, playing: T): FlagVerdict | undefined {
  const ready = prepared.flags[at]
  if (!ready) throw new Error('no such flag')
  const { flag, clauses, any } = ready
  const truth = any.run(context, side)
  if (truth === NO || (truth === UNKNOWN && playing === NO)) return undefined
  const tiersWhere = (wanted: T): Tier[] => clauses.flatMap((clause) => (clause.rule.run(context, side) === wanted ? [clause.tier] : []))
  const met = truth === YES ? tiersWhere(YES) : []
  const open = playing === NO ? [] : tiersWhere(UNKNOWN)
  const modifiers = modifiersOf(prepared, context, side, flag.classes)
  const clock = flag.clock && met.length > 0 ? flagClock(prepared, context, side, flag.clock) : undefined
  const proven = modifiers.filter((m) => m.truth === YES).map((m) => m.applicable)
  const possible = modifiers.map((m) => m.applicable)
  const baseTier = met.length > 0 ? mostUrgent(met) : undefined
  const tier = baseTier === undefined ? undefined : withClock(modifiedTier(baseTier, proven), clock)
  const ceiling = mostUrgent([...met, ...open].map((t) => withClock(modifiedTier(t, possible), clock)))
  return {
    id: flag.id,
    concept: flag.concept,
    classes: flag.classes,
    title: flag.title,
    side: SIDE_NAMES[side] ?? 'none',
    truth: truthOf(truth),
    inPlay: truthOf(playing),
    to: flag.to,
    doNow: flag.doNow,
    avoid: flag.avoid,
    ...(tier === undefined || baseTier === undefined ? {} : { tier, baseTier }),
    ceiling,
    modifiers: modifiers.map((m) => ({ id: m.applicable.id, truth: truthOf(m.truth) })),
    ...(clock ? { clock } : {}),
    ...(truth === YES ? { proof: proofOf(any, context, side, prepared) } : {}),
  }
}

const withClock = (tier: Tier, clock: ClockReading | undefined): Tier => (clock ? tierByClock(tier, clock) : tier)

function flagClock(
  prepared: Prepared,
  context: Context,
  side: number,
  clock: { from: string; windowDays: number; leadDays: number },
): ClockReading | undefined {
  const days = prepared.reader(clock.from, prepared.item(prepared.index(clock.from)))(context, side)
  const longest = typeof days === 'number' ? days : days !== null && typeof days === 'object' && 'high' in days ? days.high : undefined
  return longest === undefined ? undefined : repairClock(longest * 24, clock.windowDays * 24, clock.leadDays * 24)
}

function modifiersOf(prepared: Prepared, context: Context, side: number, classes: readonly string[]): { applicable: ApplicableModifier; truth: 1 | 2 }[] {
  return prepared.modifiers.flatMap(({ modifier, applicable, rule }) => {
    if (!modifier.classes.some((c) => classes.includes(c))) return []
    const truth = rule.run(context, side)
    return truth === NO ? [] : [{ applicable, truth }]
  })
}

/** The side that does not hurt is the comparison: it raises a flag only by a finding of its own, and leaves none open. */
function comparisonSideFlags(prepared: Prepared, context: Context, sides: readonly number[], judged: readonly FlagVerdict[]): FlagVerdict[] {
  const others = [0, 1].filter((side) => !sides.includes(side) && sides.every((s) => s !== 2))
  const raised = new Set(judged.filter((flag) => flag.truth === 'met').map((flag) => flag.id))
  return others.flatMap((side) =>
    prepared.flags.flatMap(({ flag, any }, at) => {
      if (raised.has(flag.id) || any.run(context, side) !== YES) return []
      const verdict = judgeFlag(prepared, context, side, at, NO)
      const own =
        verdict?.proof &&
        findingsOf(verdict.proof).some(
          (finding) => finding.side === SIDE_NAMES[side] && finding.state === 'examined' && isAbnormal(prepared, context, finding.item, side),
        )
      return verdict && own ? [verdict] : []
    }),
  )
}

function isAbnormal(prepared: Prepared, context: Context, id: string, side: number): boolean {
  const index = prepared.index(id)
  const value = context.slots[slotOf(index, side)]?.value
  return typeof value !== 'string' || !prepared.item(index).calm.includes(value)
}

function metHolds(prepared: Prepared, context: Context, sides: readonly number[]): HoldVerdict[] {
  return sides.flatMap((side) =>
    prepared.holds.flatMap(({ hold, rule }) =>
      prepared.holdTruth(hold.id, context, side) === YES
        ? [
            {
              id: hold.id,
              title: hold.title,
              side: SIDE_NAMES[side] ?? 'none',
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

/** Every calculated value of the pack as this record makes it: scores as ranges while parts are missing. */
export function calcVerdicts({ prepared, context, sides }: Judgement): readonly CalcVerdict[] {
  return sides.flatMap((side) =>
    prepared.calcs.map(({ calc }) => ({
      id: calc.id,
      label: calc.label,
      side: SIDE_NAMES[side] ?? 'none',
      value: calcValue(prepared, context, side, calc.id, calc.kind),
    })),
  )
}

function calcValue(prepared: Prepared, context: Context, side: number, id: string, kind: 'truth' | 'ladder' | 'score'): string {
  if (kind === 'truth') return truthOf(prepared.calcTruth(id, context, side))
  if (kind === 'score') {
    const { low, high } = prepared.scoreRange(id, context, side)
    return low === high ? String(low) : `${low} to ${high}`
  }
  const { possible, mayFall } = prepared.rungs(id, context, side)
  return possible.length === 1 && !mayFall ? (possible[0] ?? 'unknown') : 'unknown'
}

/** Most urgent first; among equals life before cord, limb, infection, fracture, rupture. */
const LEAD_ORDER = ['V', 'N', 'I', 'F', 'T', 'B', 'C', 'P', 'S']
function byUrgency(a: FlagVerdict, b: FlagVerdict): number {
  return tierRank(a.tier ?? a.ceiling ?? 'here') - tierRank(b.tier ?? b.ceiling ?? 'here') || leadRank(a) - leadRank(b) || (a.id < b.id ? -1 : 1)
}
const leadRank = (flag: FlagVerdict): number => {
  const rank = LEAD_ORDER.findIndex((letter) => flag.classes.includes(letter))
  return rank < 0 ? LEAD_ORDER.length : rank
}

/**
 * A judge that follows a growing record: entries added at its end are judged one by one, anything else anew.
 * @example const along = judgeAlong(pack, about); along([a]); along([a, b]) // works out only what hangs on b
 */
export function judgeAlong(pack: Pack, about: Omit<Examination, 'entries'>): (entries: readonly Entry[]) => Judgement {
  let seen: readonly Entry[] | undefined
  let last: Judgement | undefined
  return (entries) => {
    const isLonger =
      seen !== undefined &&
      last !== undefined &&
      entries.length >= seen.length &&
      entries.length - seen.length <= MOST_AT_ONCE &&
      seen.every((entry, at) => entry === entries[at])
    last = isLonger && last && seen ? entries.slice(seen.length).reduce(rejudge, last) : judgement(pack, { ...about, entries })
    seen = entries
    return last
  }
}
/** Beyond so many new entries judging anew is quicker. */
const MOST_AT_ONCE = 4
