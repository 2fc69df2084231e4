import { deg, type Degrees } from '../model/units.js'

export type GapReading = 'none' | 'mild' | 'clear'

/**
 * Passive minus active range of the same movement. Under 10 degrees is none, 10 to 19 mild, 20 or more clear.
 * @example activeGap(deg(60), deg(165)) // { gap: 105, reading: 'clear' }
 */
export function activeGap(active: Degrees, passive: Degrees): { readonly gap: Degrees; readonly reading: GapReading } {
  const gap = passive - active
  return { gap: deg(gap), reading: gap >= 20 ? 'clear' : gap >= 10 ? 'mild' : 'none' }
}
