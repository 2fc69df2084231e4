import { tierRank, type Tier } from '../model/tier.js'
import { findingsOf } from '../rules/proof.js'
import type { FlagVerdict } from './verdict.js'

/**
 * The flag that catches what no other explains: it raises by what was recorded, and never asks by itself;
 * it holds open only what something else asks for.
 * @example isUnexplained({ concept: 'unexplained-finding' }) // true
 */
export const isUnexplained = ({ concept }: Pick<FlagVerdict, 'concept'>): boolean => concept === 'unexplained-finding'

/** Without the findings that another flag explains which is at least as urgent: they are told once, by their cause. */
export function withoutUnexplained(flags: readonly FlagVerdict[]): FlagVerdict[] {
  if (!flags.some(isUnexplained)) return [...flags]
  return flags.filter((flag) => !isUnexplained(flag) || !isExplained(flag, flags))
}

const rankOf = ({ tier }: { readonly tier?: Tier }): number => tierRank(tier ?? 'here')

function isExplained(flag: FlagVerdict, flags: readonly FlagVerdict[]): boolean {
  const others = flags.filter((other) => !isUnexplained(other) && rankOf(other) <= rankOf(flag))
  const explained = new Set(others.flatMap(namedBy))
  const own = namedBy(flag)
  return own.length > 0 && own.every((name) => explained.has(name))
}

const namedBy = ({ proof }: FlagVerdict): string[] => (proof ? findingsOf(proof).flatMap(({ item, state }) => (state === 'examined' ? [item] : [])) : [])
