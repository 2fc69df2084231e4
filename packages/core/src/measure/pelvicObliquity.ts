import type { Measure } from '../model/measure.js'
import { deg, mm, MeasureError, type Degrees, type Millimetres } from '../model/units.js'

/**
 * Tilt of the pelvis in the frontal plane from its two front spines.
 * @param height   how much higher this side's spine stands than the other, mm; below 0 when lower
 * @param distance between the two spines, mm, above 0
 * @returns degrees, positive when this side is up
 * @throws MeasureError `out-of-range` when the distance is 0 or less
 * @example pelvicObliquity(mm(15), mm(240)) // 3.6
 */
export function pelvicObliquity(height: Millimetres, distance: Millimetres): Degrees {
  if (distance <= 0) throw new MeasureError('out-of-range', 'Distance between the front spines: give it in mm, above 0.')
  return deg((Math.atan(height / distance) * 180) / Math.PI)
}

export const pelvicObliquityMeasure: Measure = ({ height, distance }) =>
  typeof height === 'number' && typeof distance === 'number' && distance > 0 ? pelvicObliquity(mm(height), mm(distance)) : null
