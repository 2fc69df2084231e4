/**
 * The compiled content pack: everything clinical the program knows, as plain data.
 * It is made once by `compilePack` from the YAML under `content/`, travels as JSON, and is what a signed examination is judged with.
 */

export const TIERS = ['now', 'today', 'days', 'weeks', 'routine', 'here'] as const

/** Urgency of a referral, most urgent first. Windows are in `Pack.tiers`. */
export type Tier = (typeof TIERS)[number]

/** 0 is the most urgent. @example tierRank('today') // 1 */
export const tierRank = (tier: Tier): number => TIERS.indexOf(tier)

export const moreUrgent = (a: Tier, b: Tier): Tier => (tierRank(a) <= tierRank(b) ? a : b)

/** @example mostUrgent([]) // 'here' */
export const mostUrgent = (tiers: readonly Tier[]): Tier => tiers.reduce<Tier>(moreUrgent, 'here')
