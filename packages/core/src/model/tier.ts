import { TIERS } from '@kneecap-awl/contract'

export { TIERS }

/** Urgency of a referral, most urgent first. Windows are in `Pack.tiers`. */
export type Tier = (typeof TIERS)[number]

const RANKS = Object.fromEntries(TIERS.map((tier, rank) => [tier, rank])) as Readonly<Record<Tier, number>>

/** 0 is the most urgent. @example tierRank('today') // 1 */
export const tierRank = (tier: Tier): number => RANKS[tier]

export const moreUrgent = (a: Tier, b: Tier): Tier => (tierRank(a) <= tierRank(b) ? a : b)

/** @example mostUrgent([]) // 'here' */
export function mostUrgent(tiers: readonly Tier[]): Tier {
  let most: Tier = 'here'
  for (const tier of tiers) if (tierRank(tier) < tierRank(most)) most = tier
  return most
}
