import type { Measure } from '../model/measure.js'
import { mm, type Millimetres } from '../model/units.js'

export type LegReading = 'within error' | 'minor' | 'clear'

/**
 * Leg length difference by tape: under 10 mm is within the error of the tape, 10 to under 20 minor, 20 or more clear (expert).
 * @param difference this side minus the other, mm
 * @example readLegDifference(mm(-18)) // 'minor'
 */
export function readLegDifference(difference: Millimetres): LegReading {
  const size = Math.abs(difference)
  return size >= 20 ? 'clear' : size >= 10 ? 'minor' : 'within error'
}

/**
 * The part of an apparent difference that is not bone: apparent minus true. It is tilt of the pelvis or a fixed joint.
 * @param apparent difference from the midline, this side minus the other, mm
 * @param real     difference from the front spine of the pelvis, mm
 * @example pelvicPart(mm(2), mm(-18)) // 20
 */
export const pelvicPart = (apparent: Millimetres, real: Millimetres): Millimetres => mm(apparent - real)

/** Four lengths in mm, of this side and of the other, from the midline and from the front spine of the pelvis. */
export const pelvicPartMeasure: Measure = ({ apparent, otherApparent, real, otherReal }) =>
  typeof apparent === 'number' && typeof otherApparent === 'number' && typeof real === 'number' && typeof otherReal === 'number'
    ? pelvicPart(mm(apparent - otherApparent), mm(real - otherReal))
    : null
