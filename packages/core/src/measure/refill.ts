import type { Seconds } from '../model/units.js'

/**
 * Capillary refill after 5 s of pressure at heart level: over 2 s is slow in an adult, 3 s or more in a child, and so is a side difference of 2 s.
 * @example readRefill(seconds(3), seconds(1.5), 40) // { slow: true, sideDifference: 1.5, sidesDiffer: false }
 */
export function readRefill(
  side: Seconds,
  other: Seconds | undefined,
  ageYears: number,
): { readonly slow: boolean; readonly sideDifference: number | undefined; readonly sidesDiffer: boolean } {
  const sideDifference = other === undefined ? undefined : side - other
  return { slow: ageYears < 16 ? side >= 3 : side > 2, sideDifference, sidesDiffer: sideDifference !== undefined && sideDifference >= 2 }
}
