import { MeasureError } from '../model/units.js'

export interface RawReading {
  readonly value: number
  readonly valid: boolean
}

export interface Reported {
  readonly value: number
  readonly how: 'single' | 'mean' | 'median'
  readonly spread: number
  /** True when the readings lie further apart than the method allows: repeat, or note it. */
  readonly spreadTooWide: boolean
}

/** Widest spread that needs no repeat, by method: degrees for angles, mm for tape, mmHg for pressure. */
export const SPREAD_LIMIT = { goniometer: 5, 'by eye': 10, tape: 10, pressure: 10 } as const

/**
 * The value a rule uses when an item was measured several times: invalid readings are dropped; three or more give the median,
 * two the mean, one is marked single.
 * @throws MeasureError `no-reading` when none is valid
 * @example reportReadings([88, 92, 97].map(valid)) // { value: 92, how: 'median', spread: 9, spreadTooWide: true }
 */
export function reportReadings(readings: readonly RawReading[], method: keyof typeof SPREAD_LIMIT = 'goniometer'): Reported {
  const values = readings
    .filter((r) => r.valid)
    .map((r) => r.value)
    .sort((a, b) => a - b)
  const [lowest, highest] = [values[0], values[values.length - 1]]
  if (lowest === undefined || highest === undefined) throw new MeasureError('no-reading', 'No valid reading: measure again from the start position.')
  const spread = highest - lowest
  const how = values.length === 1 ? 'single' : values.length === 2 ? 'mean' : 'median'
  return { value: how === 'mean' ? (lowest + highest) / 2 : median(values), how, spread, spreadTooWide: spread > SPREAD_LIMIT[method] }
}

/**
 * True when one valid reading would meet a rule of tier days or faster and the reported value does not: repeat, the rule counts as not known.
 * @example isBorderline([8, 12, 8].map(valid), (lag) => lag >= 10) // true
 */
export function isBorderline(readings: readonly RawReading[], meets: (value: number) => boolean): boolean {
  return !meets(reportReadings(readings).value) && readings.some((r) => r.valid && meets(r.value))
}

function median(sorted: readonly number[]): number {
  const middle = Math.floor(sorted.length / 2)
  const upper = sorted[middle] ?? 0
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? upper) + upper) / 2
}
