import { TIERS } from '@kneecap-awl/contract'

export { TIERS }

/** Urgency of a referral, most urgent first. Windows are in `Pack.tiers`. */
export type Tier = (typeof TIERS)[number]

/** 0 is the most urgent. @example tierRank('today') // 1 */
export const tierRank = (tier: Tier): number => TIERS.indexOf(tier)

export const moreUrgent = (a: Tier, b: Tier): Tier => (tierRank(a) <= tierRank(b) ? a : b)

/** @example mostUrgent([]) // 'here' */
export const mostUrgent = (tiers: readonly Tier[]): Tier => tiers.reduce<Tier>(moreUrgent, 'here')
