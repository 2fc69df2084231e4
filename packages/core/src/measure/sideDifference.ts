import type { Kind } from '../model/item.js'

/** Standard error of one reading by one examiner, degrees (expert; a change in a limb should exceed 3 to 4 degrees: Boone 1978). */
const ANGLE_ERROR: Readonly<Record<string, number>> = { goniometer: 3, inclinometer: 3, smartphone: 3, 'visual estimate': 6 }
/** Of a tape round a limb, mm (expert). */
const TAPE_ERROR = 5
/** Of an ankle-brachial or arm index (expert). */
const INDEX_ERROR = 0.05

/**
 * How far two readings of one examiner may differ by measuring alone: 1.96 × √2 × the standard error of one of them (95 %).
 * @param method of an angle; a goniometer where nobody said
 * @returns in the unit of the reading; undefined where no error is known (laxity by hand, counts)
 * @example measurementError('angle', 'goniometer') // 8.3
 */
export function measurementError(kind: Kind, method: string = 'goniometer'): number | undefined {
  const one = standardError(kind, method)
  return one === undefined ? undefined : FACTOR * one
}

/** Two readings, 95 % of the time: 1.96 × √2. */
const FACTOR = 1.96 * Math.SQRT2

const standardError = (kind: Kind, method: string): number | undefined =>
  kind === 'angle' ? ANGLE_ERROR[method] : kind === 'length' ? TAPE_ERROR : kind === 'ratio' ? INDEX_ERROR : undefined

/** Where an error of measuring comes from, in words. @example errorSource('length') // '1.96 × √2 × 5 mm of standard error, 95 % (one examiner, expert)' */
export function errorSource(kind: Kind, method: string = 'goniometer'): string | undefined {
  const one = standardError(kind, method)
  if (one === undefined) return undefined
  const unit = kind === 'angle' ? '°' : kind === 'length' ? ' mm' : ''
  const by = kind === 'angle' ? `by ${method}; expert, Boone 1978` : 'expert'
  return `1.96 × √2 × ${one}${unit} of standard error, 95 % (one examiner, ${by})`
}

/** Less than this of a range is lost beyond the error of measuring, degrees (expert). */
export const LOST_DEGREES = 10

export type Restriction = 'joint' | 'muscle, tendon or nerve' | 'both'

/**
 * What takes a range away: the joint or capsule where the passive range is lost with the active one; muscle, tendon or nerve where the passive
 * range is there and the active one lags; both where both.
 * @param usual the other side, or the norm where the other side was not measured, degrees
 * @example restrictionOf({ active: 20, passive: 22, usual: 60, error: 8.3 }) // 'joint'
 */
export function restrictionOf(range: {
  readonly active: number
  readonly passive: number
  readonly usual: number
  readonly error: number
}): Restriction | undefined {
  const lags = range.passive - range.active > range.error
  const isLost = range.usual - range.passive >= Math.max(LOST_DEGREES, range.error)
  if (lags) return isLost ? 'both' : range.usual - range.active >= LOST_DEGREES ? 'muscle, tendon or nerve' : undefined
  return isLost ? 'joint' : undefined
}
