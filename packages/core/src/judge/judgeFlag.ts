import { SIDES, type SideIndex } from '../model/side.js'
import { mostUrgent, type Tier } from '../model/tier.js'
import { proofOf } from '../rules/proof.js'
import { NO, UNKNOWN, YES, truthOf, type T } from '../rules/truth.js'
import { repairClock, tierByClock, windowsOf, type ClockReading } from './clock.js'
import type { JudgeContext } from './judgeContext.js'
import type { Prepared, ReadyFlag } from './prepare.js'
import { modifiedTier, type ApplicableModifier } from './priorityTier.js'
import type { FlagVerdict } from './verdict.js'

/** The verdict on one flag of one side; undefined when it is not met and holds nothing open. */
export function judgeFlag(prepared: Prepared, context: JudgeContext, side: SideIndex, at: number, playing: T): FlagVerdict | undefined {
  const ready = prepared.flags[at]
  if (!ready) throw new Error('no such flag')
  const { flag, clauses, any } = ready
  const truth = any.run(context, side)
  if (truth === NO || (truth === UNKNOWN && playing === NO)) return undefined
  const tiersWhere = (wanted: T): Tier[] => clauses.flatMap((clause) => (clause.rule.run(context, side) === wanted ? [clause.tier] : []))
  const met = truth === YES ? tiersWhere(YES) : []
  const open = playing === NO ? [] : tiersWhere(UNKNOWN)
  const modifiers = modifiersOf(ready, context, side)
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
    side: SIDES[side],
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
  context: JudgeContext,
  side: SideIndex,
  clock: { from: string; windowDays: number; leadDays: number },
): ClockReading | undefined {
  const days = prepared.reader(clock.from, prepared.item(prepared.index(clock.from)))(context, side)
  const longest = typeof days === 'number' ? days : days !== null && typeof days === 'object' && 'high' in days ? days.high : undefined
  return longest === undefined
    ? undefined
    : repairClock(longest * 24, clock.windowDays * 24, clock.leadDays * 24, prepared.pack.journeyHours, windowsOf(prepared.pack))
}

function modifiersOf({ modifiers }: ReadyFlag, context: JudgeContext, side: SideIndex): { applicable: ApplicableModifier; truth: 1 | 2 }[] {
  const found: { applicable: ApplicableModifier; truth: 1 | 2 }[] = []
  for (const { applicable, rule } of modifiers) {
    const truth = rule.run(context, side)
    if (truth !== NO) found.push({ applicable, truth })
  }
  return found
}
