import { MeasureError, percent, type Degrees, type Percent } from '../model/units.js'

/**
 * This side minus the other.
 * @param side degrees (or millimetres) on the side in question
 * @param other the same on the other side
 * @example sideDifference(deg(95), deg(140)) // -45
 */
export const sideDifference = <U extends number>(side: U, other: U): U => (side - other) as U

/**
 * Percent that this side falls short of the other.
 * @param side  angle of the side in question, degrees
 * @param other angle of the other side, degrees, above 0
 * @returns percent, negative when this side moves further
 * @throws MeasureError `no-reference` when `other` is 0 or less: report degrees only
 * @example deficitPercent(deg(95), deg(140)) // 32.1
 */
export function deficitPercent(side: Degrees, other: Degrees): Percent {
  if (other <= 0) throw new MeasureError('no-reference', 'The other side moves 0 degrees or less: give the difference in degrees only.')
  return percent((100 * (other - side)) / other)
}

export type DifferenceReading = 'within' | 'abnormal' | 'clear'

/**
 * How large a side difference is. 10 degrees or 10 percent is abnormal, 20 or 25 clear; for movements whose norm is 30 degrees or
 * less 5 degrees is abnormal. Limits are expert consensus and may be changed by a local profile.
 * @example readDifference(deg(-10), percent(7.1)) // 'abnormal'
 */
export function readDifference(difference: Degrees, deficit: Percent | undefined, norm = 90): DifferenceReading {
  const size = Math.abs(difference)
  const share = Math.abs(deficit ?? 0)
  if (size >= 20 || share >= 25) return 'clear'
  if (size >= 10 || share >= 10 || (norm <= 30 && size >= 5)) return 'abnormal'
  return 'within'
}

/**
 * Arc of movement: flexion plus signed extension (a lack is negative, hyperextension positive).
 * @example arc(deg(110), deg(-10)) // 100
 */
export const arc = (flexion: Degrees, extension: Degrees): Degrees => (flexion + extension) as Degrees
