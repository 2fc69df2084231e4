import type { Millimetres } from '../model/units.js'

export type TwoPointReading = 'normal' | 'fair' | 'poor' | 'absent'

/**
 * Still two-point discrimination of a finger pulp: up to 5 mm normal, 6 to 10 fair, 11 to 15 poor, beyond that or not felt absent.
 * @param width smallest distance told apart, mm; undefined when nothing is felt
 * @example readTwoPoint(mm(9)) // 'fair'
 */
export function readTwoPoint(width: Millimetres | undefined): TwoPointReading {
  if (width === undefined || width > 15) return 'absent'
  return width > 10 ? 'poor' : width > 5 ? 'fair' : 'normal'
}

/** Three millimetres more than the same pulp of the other hand is reduced. @example isReduced(mm(9), mm(4)) // true */
export const isReduced = (width: Millimetres, other: Millimetres): boolean => width - other >= 3
