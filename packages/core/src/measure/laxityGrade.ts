import type { Millimetres } from '../model/units.js'

export type EndPoint = 'firm' | 'soft' | 'none'

export interface LaxityGrade {
  /** 0 below 3 mm, 1 from 3 to 5, 2 over 5 to 10, 3 over 10 (side difference; Hefti 1993). */
  readonly grade: 0 | 1 | 2 | 3
  /** A firm end point, B soft or none. */
  readonly letter: 'A' | 'B'
  /** Soft or no end point with 3 mm or more: torn until imaged. */
  readonly tornUntilImaged: boolean
}

/**
 * Grade of a ligament from the side difference and how the movement stops.
 * @param difference this side minus the other, mm
 * @example laxityGrade(mm(7), 'soft') // { grade: 2, letter: 'B', tornUntilImaged: true }
 */
export function laxityGrade(difference: Millimetres, endPoint: EndPoint): LaxityGrade {
  const grade = difference > 10 ? 3 : difference > 5 ? 2 : difference >= 3 ? 1 : 0
  return { grade, letter: endPoint === 'firm' ? 'A' : 'B', tornUntilImaged: endPoint !== 'firm' && difference >= 3 }
}
