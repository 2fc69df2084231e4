import type { Modifier } from './pack.js'

/** What a modifier does, with the items that separate a conclusion from its rivals named as its region names them. */
export const effectWith = (effect: Modifier['effect'], listed: (item: string) => string): Modifier['effect'] =>
  'concludes' in effect && effect.rivals !== undefined ? { ...effect, rivals: effect.rivals.map((rival) => ({ ...rival, by: listed(rival.by) })) } : effect
