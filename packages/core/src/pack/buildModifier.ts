import type { RuleNode } from '../rules/rule.js'
import type { Modifier } from './pack.js'
import type { ModifierSource } from './source.js'

/**
 * A modifier as one region has it.
 * @param when its rule, as this region reads it
 * @param listed an item's id as this region names it: those that separate a conclusion from its rivals
 */
export const buildModifier = (source: ModifierSource, region: string, when: RuleNode, listed: (item: string) => string): Modifier => ({
  classes: [],
  concepts: [],
  ...source,
  region,
  effect: effectWith(source.effect, listed),
  when,
})

const effectWith = (effect: Modifier['effect'], listed: (item: string) => string): Modifier['effect'] =>
  'concludes' in effect && effect.rivals !== undefined ? { ...effect, rivals: effect.rivals.map((rival) => ({ ...rival, by: listed(rival.by) })) } : effect
