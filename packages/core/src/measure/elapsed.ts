import type { Interval, TermValue } from '../model/interval.js'
import type { MeasureContext } from '../model/measure.js'

const HOUR = 3_600_000
/** Width in hours of the span that a coarse date stands for. */
const PRECISION_HOURS: Readonly<Record<string, number>> = { exact: 0, hour: 1, day: 24, week: 168, month: 730 }

/**
 * Hours from a moment to the examination. A coarse moment gives a range: "that day" is somewhere in 24 hours.
 * @param at ISO 8601 start of the span
 * @returns hours, one number when exact, else low and high; never below 0
 * @example hoursSince('2026-03-01T00:00Z', 'day', Date.parse('2026-03-03T12:00Z')) // { low: 36, high: 60 }
 */
export function hoursSince(at: string, precision: string, asOf: number): number | Interval | null {
  const start = Date.parse(at)
  if (Number.isNaN(start)) return null
  const longest = Math.max(0, (asOf - start) / HOUR)
  const width = PRECISION_HOURS[precision] ?? 0
  return width === 0 ? longest : { low: Math.max(0, longest - width), high: longest }
}

export const elapsedHours = (inputs: Readonly<Record<string, TermValue>>, context: MeasureContext): TermValue => {
  const at = inputs.at ?? inputs.otherwise
  const precision = inputs.at === null || inputs.at === undefined ? inputs.otherwisePrecision : inputs.precision
  return typeof at === 'string' ? hoursSince(at, typeof precision === 'string' ? precision : 'exact', context.asOf) : null
}

export const elapsedDays = (inputs: Readonly<Record<string, TermValue>>, context: MeasureContext): TermValue => {
  const hours = elapsedHours(inputs, context)
  if (typeof hours === 'number') return hours / 24
  return hours !== null && typeof hours === 'object' && 'low' in hours ? { low: hours.low / 24, high: hours.high / 24 } : null
}
