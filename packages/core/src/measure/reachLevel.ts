/** Levels that a thumb may reach behind the back, from high to low: vertebrae, then sacrum, buttock and hip. */
export const REACH_LEVELS = [
  'C7',
  ...Array.from({ length: 12 }, (_, at) => `T${String(at + 1)}`),
  ...Array.from({ length: 5 }, (_, at) => `L${String(at + 1)}`),
  'sacrum',
  'buttock',
  'hip',
] as const
export type ReachLevel = string

/** Index of a level: C7 is 0, T7 is 7, L3 is 15, hip 20. @throws RangeError for a word that is no level */
export function reachIndex(level: ReachLevel): number {
  const at = REACH_LEVELS.indexOf(level)
  if (at < 0) throw new RangeError(`"${level}" is no level: give C7, T1 to T12, L1 to L5, sacrum, buttock or hip`)
  return at
}

/**
 * How many levels lower one hand reaches than the other. Two or more mean something; the dominant arm is often one or two lower.
 * @example readReach('L3', 'T7') // { levels: 8, meaningful: true }
 */
export function readReach(side: ReachLevel, other: ReachLevel): { readonly levels: number; readonly meaningful: boolean } {
  const levels = reachIndex(side) - reachIndex(other)
  return { levels, meaningful: Math.abs(levels) >= 2 }
}
