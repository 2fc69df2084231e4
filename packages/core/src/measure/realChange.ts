/**
 * Standard error of measurement from a spread and a reliability (intraclass correlation, 0 to 1).
 * @example standardError(9, 0.9) // 2.85
 */
export const standardError = (sd: number, icc: number): number => sd * Math.sqrt(1 - icc)

const Z = { 95: 1.96, 90: 1.645 } as const

/**
 * Smallest change between two single readings that is unlikely to be error.
 * @param sem standard error of one reading, in the unit of the reading
 * @param k   readings averaged for each value
 * @example minimalDetectableChange(3) // 8.32
 */
export const minimalDetectableChange = (sem: number, level: 90 | 95 = 95, k = 1): number => Z[level] * Math.SQRT2 * (sem / Math.sqrt(k))

/**
 * The same for a change in a difference between sides, which holds four readings.
 * @example detectableSideChange(3) // 11.76
 */
export const detectableSideChange = (sem: number): number => Z[95] * 2 * sem

/** Default standard error by method, same examiner. Expert consensus; a region's own value wins. */
export const METHOD_ERROR = { goniometer: 3, 'by eye': 6, inclinometer: 3, phone: 3, 'tape girth': 5, 'tape length': 4, 'ankle index': 0.05 } as const

export type ChangeReading = 'real' | 'within error'

/**
 * Whether a change between visits is larger than its error.
 * @example readChange(100, 112, 3) // { change: 12, reading: 'real' }
 */
export function readChange(before: number, now: number, sem: number): { readonly change: number; readonly reading: ChangeReading } {
  const change = now - before
  return { change, reading: Math.abs(change) >= minimalDetectableChange(sem) ? 'real' : 'within error' }
}
