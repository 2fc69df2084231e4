import { ageOn, type Age } from '@kneecap-awl/core'

/** "2 days ago", "in 3 h": one unit, rounded down. */
export function fromNow(iso: string, now = Date.now()): string {
  const ms = Date.parse(iso) - now
  const size = Math.abs(ms)
  const word =
    size < 3_600_000 ? `${Math.floor(size / 60_000)} min` : size < 172_800_000 ? `${Math.floor(size / 3_600_000)} h` : `${Math.floor(size / 86_400_000)} days`
  return ms < 0 ? `${word} ago` : `in ${word}`
}

/** Whether a moment lies longer ago than so many milliseconds. */
export const isOlderThan = (iso: string, ms: number, now = Date.now()): boolean => now - Date.parse(iso) > ms

let zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** Times are told in the zone of the site, wherever the device believes to be: set once it is known who is signed in. */
export const setSiteZone = (name: string): void => void (zone = name)
export const siteZone = (): string => zone

const inZone = (options: Intl.DateTimeFormatOptions): Intl.DateTimeFormatOptions => ({ ...options, timeZone: zone })
export const dayAndTime = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', inZone({ weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }))
/** @example timeOnly('2026-11-24T10:42:00Z') // '10:42' in a site of that zone */
export const timeOnly = (iso: string): string => new Date(iso).toLocaleTimeString('en-GB', inZone({ hour: '2-digit', minute: '2-digit' }))
/** A day has no zone of its own: a birth date is the same everywhere. */
export const dayOnly = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: iso.includes('T') ? zone : 'UTC' })

/** Whole years of age on a day at this site. @example ageAt('1980-06-01', Date.parse('2026-05-31T12:00:00Z')) // 45 */
export const ageAt = (birthDate: string, now = Date.now()): number => ageHere(birthDate, now).years

/** Age by the calendar at this site: years, months, weeks and days. */
export const ageHere = (birthDate: string, now = Date.now()): Age => ageOn(birthDate, new Date(now).toISOString(), zone)

/** Age as it is said: weeks to four months, months to two years, then years. @example ageWords('2026-01-01', Date.parse('2026-02-19')) // '7 weeks' */
export function ageWords(birthDate: string, now = Date.now()): string {
  const { years, months, weeks } = ageHere(birthDate, now)
  return years >= 2 ? String(years) : months >= 4 ? `${months} months` : `${weeks} weeks`
}
