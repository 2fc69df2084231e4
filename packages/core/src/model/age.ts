import { parseAbsolute, parseDate, toCalendarDate, type CalendarDate } from '@internationalized/date'

/** An age by the calendar, in whole units. */
export interface Age {
  readonly years: number
  readonly months: number
  readonly weeks: number
  readonly days: number
  /** Years with their fraction, rounded down to two decimals: 0 at birth, 1 on the first birthday. */
  readonly yearsExactly: number
}

/**
 * How old a patient is at a moment, by the calendar of the place: a birthday begins at midnight there. Whoever was born on 29 February
 * has a birthday on 1 March in other years. Every rule, screen and letter that reads an age takes it from here.
 * @param birthDate day of birth, YYYY-MM-DD
 * @param at ISO 8601 with zone
 * @param zone IANA name of the time zone of the place
 * @returns all 0 before the birth
 * @throws Error when a date or the zone cannot be read
 * @example ageOn('1980-06-01', '2026-05-31T23:30:00Z', 'Europe/Oslo').years // 46: it is 1 June there
 */
export function ageOn(birthDate: string, at: string, zone: string): Age {
  const born = parseDate(birthDate)
  const today = dayIn(at, zone)
  const days = Math.max(0, today.compare(born))
  const months = days === 0 ? 0 : (today.year - born.year) * 12 + today.month - born.month - (today.day < born.day ? 1 : 0)
  const years = Math.floor(months / 12)
  return { years, months, weeks: Math.floor(days / 7), days, yearsExactly: years + shareOfYear(born, today, years) }
}

/** Share of a year since the last birthday, down to two decimals and never a whole year. */
function shareOfYear(born: CalendarDate, today: CalendarDate, years: number): number {
  const since = Math.max(0, today.compare(born.add({ years })))
  return Math.min(0.99, Math.floor((since / 365.25) * 100) / 100)
}

/**
 * The day that it is at a place.
 * @param at ISO 8601 with zone @param zone IANA name @example localDay('2026-05-31T23:30:00Z', 'Europe/Oslo') // '2026-06-01'
 */
export const localDay = (at: string, zone: string): string => dayIn(at, zone).toString()

const dayIn = (at: string, zone: string): CalendarDate => toCalendarDate(parseAbsolute(at, zone))
