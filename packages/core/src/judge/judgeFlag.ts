import { SIDES, type SideIndex } from '../model/side.js'
import { mostUrgent, tierRank, type Tier } from '../model/tier.js'
import { proofOf } from '../rules/proof.js'
import { NO, UNKNOWN, YES, truthOf, type T } from '../rules/truth.js'
import { repairClock, tierByClock, windowsOf, type ClockReading } from './clock.js'
import type { JudgeContext } from './judgeContext.js'
import type { CompiledClause, CompiledFlag, CompiledPack } from './compiledPack.js'
import { modifiedTier, type ApplicableModifier } from './priorityTier.js'
import type { FlagVerdict } from './verdict.js'

/** The verdict on one flag of one side; undefined when it is not met and holds nothing open. */
export function judgeFlag(compiled: CompiledPack, context: JudgeContext, side: SideIndex, at: number, playing: T): FlagVerdict | undefined {
  const ready = compiled.flags[at]
  if (!ready) throw new Error('no such flag')
  const { flag, clauses, any } = ready
  const truth = any.run(context, side)
  if (truth === NO || (truth === UNKNOWN && playing === NO)) return undefined
  const [met, open] = tiersOf(clauses, context, side, playing)
  const modifiers = modifiersOf(ready, context, side)
  const clock = flag.clock && met.length > 0 ? flagClock(compiled, context, side, flag.clock) : undefined
  const proven = modifiers.filter((m) => m.truth === YES).map((m) => m.applicable)
  const possible = modifiers.map((m) => m.applicable)
  const baseTier = met.length > 0 ? mostUrgent(met) : undefined
  const tier = baseTier === undefined ? undefined : withClock(modifiedTier(baseTier, proven), clock)
  const ceiling = mostUrgent([...new Set([...met, ...open])].map((t) => withClock(modifiedTier(t, possible), clock)))
  return {
    id: flag.id,
    concept: flag.concept,
    classes: flag.classes,
    title: flag.title,
    side: SIDES[side],
    truth: truthOf(truth),
    inPlay: truthOf(playing),
    to: tier === undefined ? flag.to : inTime(compiled, whereTo(ready, context, side, baseTier), tier),
    doNow: flag.doNow,
    avoid: flag.avoid,
    ...(tier === undefined || baseTier === undefined ? {} : { tier, baseTier }),
    ceiling,
    modifiers: modifiers.map((m) => ({ id: m.applicable.id, truth: truthOf(m.truth) })),
    ...(clock ? { clock } : {}),
    ...(truth === YES ? { proof: proofOf(any, context, side, compiled) } : {}),
  }
}

/** The tiers of the clauses that are met, and of those that are open while the flag is in play; each once. */
function tiersOf(
  clauses: readonly CompiledClause[],
  context: JudgeContext,
  side: SideIndex,
  playing: T,
): readonly [met: readonly Tier[], open: readonly Tier[]] {
  const met: Tier[] = []
  const open: Tier[] = []
  for (const { tier, rule } of clauses) {
    const truth = rule.run(context, side)
    const tiers = truth === YES ? met : truth === UNKNOWN && playing !== NO ? open : undefined
    if (tiers && !tiers.includes(tier)) tiers.push(tier)
  }
  return [met, open]
}

/** Where the met clauses of the tier send, one after another; where the flag sends when none of them says. */
function whereTo({ flag, clauses }: CompiledFlag, context: JudgeContext, side: SideIndex, tier: Tier | undefined): readonly string[] {
  if (!flag.clauses.some(({ to }) => to !== undefined)) return flag.to
  const own = flag.clauses.flatMap(({ tier: one, to }, at) => (to !== undefined && one === tier && clauses[at]?.rule.run(context, side) === YES ? to : []))
  return own.length > 0 ? [...new Set(own)] : flag.to
}

/** What a modifier, a clock or a local choice made more urgent than its place can take goes first where that tier goes. */
function inTime({ pack: { destinations, tiers } }: CompiledPack, to: readonly string[], tier: Tier): readonly string[] {
  const sees = destinations.find(({ id }) => id === to[0])?.sees
  const first = tiers.find(({ id }) => id === tier)?.to
  const isLate = sees !== undefined && tierRank(sees) > tierRank(tier)
  return isLate && first !== undefined ? [first, ...to.filter((id) => id !== first)] : to
}

const withClock = (tier: Tier, clock: ClockReading | undefined): Tier => (clock ? tierByClock(tier, clock) : tier)

function flagClock(
  compiled: CompiledPack,
  context: JudgeContext,
  side: SideIndex,
  clock: { from: string; windowDays: number; leadDays: number },
): ClockReading | undefined {
  const days = compiled.reader(clock.from, compiled.item(compiled.index(clock.from)))(context, side)
  const longest = typeof days === 'number' ? days : days !== null && typeof days === 'object' && 'high' in days ? days.high : undefined
  return longest === undefined
    ? undefined
    : repairClock(longest * 24, clock.windowDays * 24, clock.leadDays * 24, compiled.pack.journeyHours, windowsOf(compiled.pack))
}

function modifiersOf({ modifiers }: CompiledFlag, context: JudgeContext, side: SideIndex): { applicable: ApplicableModifier; truth: 1 | 2 }[] {
  const found: { applicable: ApplicableModifier; truth: 1 | 2 }[] = []
  for (const { applicable, rule } of modifiers) {
    const truth = rule.run(context, side)
    if (truth !== NO) found.push({ applicable, truth })
  }
  return found
}
