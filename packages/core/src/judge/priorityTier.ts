import { tierRank, TIERS, type Tier } from '../model/tier.js'
/** A modifier that applies to a flag, or may apply when it is not known. */
export interface ApplicableModifier {
  readonly id: string
  readonly step: boolean
  readonly onlyFrom?: readonly Tier[]
  readonly atLeast?: Tier
}

/**
 * Tier of one flag after its modifiers. A step is one tier more urgent, at most one in all, and never passes Today;
 * "at least" sets the tier no slower than it says, and only that can make Now. Nothing here makes a tier slower.
 * @example modifiedTier('routine', [{ id: 'mod.failed-care', step: true }, { id: 'mod.hand', step: true }]) // 'weeks'
 */
export function modifiedTier(base: Tier, modifiers: readonly ApplicableModifier[]): Tier {
  const rank = tierRank(base)
  let isStepped = false
  let least = rank
  for (const { step, onlyFrom, atLeast } of modifiers) {
    if (step && (onlyFrom === undefined || onlyFrom.includes(base))) isStepped = true
    if (atLeast !== undefined && tierRank(atLeast) < least) least = tierRank(atLeast)
  }
  const stepped = isStepped && rank > tierRank('today') ? rank - 1 : rank
  return TIERS[Math.min(stepped, least)] ?? base
}
