import type { Measure } from '../model/measure.js'

const TERM_WEEKS = 40

/**
 * Age of an infant counted from the day it was due: days since birth less the weeks it came early. Term and later are not corrected.
 * @param days days since birth, 0 or more
 * @param weeks completed weeks of pregnancy at birth, 22 to 43
 * @example correctedDays(60, 34) // 18
 */
const correctedDays = (days: number, weeks: number): number => days - Math.max(0, TERM_WEEKS - weeks) * 7

/** Not known while either is; the length of a pregnancy is never taken for granted. */
export const correctedDaysMeasure: Measure = ({ days, gestation }) =>
  typeof days === 'number' && typeof gestation === 'number' ? correctedDays(days, gestation) : null
