import { oncePer } from '../model/oncePer.js'
import { tierRank, TIERS, type Tier } from '../model/tier.js'
import { type AnyPack } from '../pack/pack.js'
import { afterTest } from './likelihood.js'

/** What acting at the wrong tier and what a test's burden cost, in tiers too fast: as the pack says. */
export interface Costs {
  /** For each tier too slow, by the tier that was needed. */
  readonly tooLate: Readonly<Record<Tier, number>>
  readonly burden: number
}

/** @example costsOf(pack).tooLate.now // 20 */
export const costsOf = oncePer(({ tiers, burdenCost }: Pick<AnyPack, 'tiers' | 'burdenCost'>): Costs => ({
  tooLate: Object.fromEntries(tiers.map(({ id, tooLate }) => [id, tooLate])) as Record<Tier, number>,
  burden: burdenCost,
}))

/**
 * What it costs to act at one tier when another was needed: one for each tier too fast, as much as the pack says for each tier too slow.
 * @example tierLoss('here', 'now', costsOf(pack)) // 100
 */
export function tierLoss(action: Tier, need: Tier, { tooLate }: Costs): number {
  const late = tierRank(action) - tierRank(need)
  return late > 0 ? tooLate[need] * late : Math.abs(late)
}

export interface TierChoice {
  readonly tier: Tier
  readonly loss: number
}

/**
 * The tier with the least expected loss for a condition that needs one tier when it is there and another when it is not. Of equals the more urgent.
 * @param p chance of the condition, 0 to 1
 * @example bestTier(0.3, 'days', 'here', costsOf(pack)) // { tier: 'days', loss: 2.1 }
 */
export function bestTier(p: number, needIfTrue: Tier, needIfNot: Tier, costs: Costs): TierChoice {
  const losses = TIERS.map((tier) => ({ tier, loss: p * tierLoss(tier, needIfTrue, costs) + (1 - p) * tierLoss(tier, needIfNot, costs) }))
  return losses.reduce((best, one) => (one.loss < best.loss - 1e-12 ? one : best))
}

export interface TestBenefit {
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

/**
 * What a test is worth for the choice between two tiers. It orders tests and never sets a tier: that comes from the flags alone.
 * @param burden 1 to 3
 * @example worthAround(aroundTest(0.3, 0.96, 0.93), 'days', 'here', 1, costsOf(pack)).value // 1.773
 */
export function benefitAround(around: AroundTest, needIfTrue: Tier, needIfNot: Tier, burden: number, costs: Costs): TestBenefit {
  const best = (p: number): TierChoice => bestTier(p, needIfTrue, needIfNot, costs)
  const [before, ifPositive, ifNegative] = [best(around.before), best(around.afterPositive), best(around.afterNegative)]
  const value = Math.max(0, before.loss - around.positive * ifPositive.loss - (1 - around.positive) * ifNegative.loss)
  return { before, afterPositive: ifPositive.tier, afterNegative: ifNegative.tier, value, net: value - costs.burden * burden }
}
