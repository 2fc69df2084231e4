import { tierRank, TIERS, type Tier } from '../content/types.js'
import { afterTest } from './likelihood.js'

/** Points that a test costs for each step of burden, in the unit of loss. Expert consensus. */
const BURDEN_COST = 0.05
/** @param burden 1 to 3 */
export const burdenCost = (burden: number): number => BURDEN_COST * burden

/** Weight of every tier that an action comes too late, by the tier that was needed. Expert consensus: over-triage is cheap. */
const LATE_WEIGHT: Readonly<Partial<Record<Tier, number>>> = { now: 20, today: 10 }
const LATE_ELSE = 5

/**
 * What it costs to act at one tier when another was needed: one for each tier too fast, five to twenty for each tier too slow.
 * @example tierLoss('here', 'now') // 100
 */
export function tierLoss(action: Tier, need: Tier): number {
  const late = tierRank(action) - tierRank(need)
  return late > 0 ? (LATE_WEIGHT[need] ?? LATE_ELSE) * late : Math.abs(late)
}

export interface TierChoice {
  readonly tier: Tier
  readonly loss: number
}

/**
 * The tier with the least expected loss for a condition that needs one tier when it is there and another when it is not. Of equals the more urgent.
 * @param p chance of the condition, 0 to 1
 * @example bestTier(0.3, 'days', 'here') // { tier: 'days', loss: 2.1 }
 */
export function bestTier(p: number, needIfTrue: Tier, needIfNot: Tier): TierChoice {
  const losses = TIERS.map((tier) => ({ tier, loss: p * tierLoss(tier, needIfTrue) + (1 - p) * tierLoss(tier, needIfNot) }))
  return losses.reduce((best, one) => (one.loss < best.loss - 1e-12 ? one : best))
}

export interface TestWorth {
  readonly before: TierChoice
  readonly afterPositive: Tier
  readonly afterNegative: Tier
  /** Expected loss that the test saves. */
  readonly value: number
  /** The value less what its burden costs. Not above 0: the test cannot change the tier, do not spend it. */
  readonly net: number
}

/** Chances around one test, 0 to 1: before it, of a positive result, and after each result. */
export interface AroundTest {
  readonly before: number
  readonly positive: number
  readonly afterPositive: number
  readonly afterNegative: number
}

/** The chances around a test of which only its accuracy is known. @param p @param sens @param spec shares, 0 to 1 */
export const aroundTest = (p: number, sens: number, spec: number): AroundTest => ({
  before: p,
  positive: p * sens + (1 - p) * (1 - spec),
  afterPositive: afterTest(p, sens / (1 - spec)),
  afterNegative: afterTest(p, (1 - sens) / spec),
})

/** What a test is worth for the choice between two tiers. @param burden 1 to 3 */
export function worthAround({ before: p, positive, afterPositive, afterNegative }: AroundTest, needIfTrue: Tier, needIfNot: Tier, burden: number): TestWorth {
  const before = bestTier(p, needIfTrue, needIfNot)
  const ifPositive = bestTier(afterPositive, needIfTrue, needIfNot)
  const ifNegative = bestTier(afterNegative, needIfTrue, needIfNot)
  const value = Math.max(0, before.loss - positive * ifPositive.loss - (1 - positive) * ifNegative.loss)
  return { before, afterPositive: ifPositive.tier, afterNegative: ifNegative.tier, value, net: value - burdenCost(burden) }
}

/**
 * What a test is worth for the choice of the tier. It orders tests and never sets a tier: that comes from the flags alone.
 * @param sens @param spec shares, 0 to 1 @param burden 1 to 3
 * @example worthOfTest(0.3, 0.96, 0.93, 'days', 'here', 1).value // 1.773
 */
export function worthOfTest(p: number, sens: number, spec: number, needIfTrue: Tier, needIfNot: Tier, burden: number): TestWorth {
  return worthAround(aroundTest(p, sens, spec), needIfTrue, needIfNot, burden)
}

/**
 * The chance from which on the more urgent of two tiers loses less: what over-triage costs, over that and what under-triage costs.
 * @example actionThreshold('days', 'here') // 0.167
 */
export function actionThreshold(urgent: Tier, calm: Tier): number {
  const over = tierLoss(urgent, calm)
  return over / (over + tierLoss(calm, urgent))
}
