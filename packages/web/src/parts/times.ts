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

/** Age in years with its fraction. @example yearsSince('2026-01-01', Date.parse('2026-07-02')) // about 0.5 */
export const yearsSince = (birthDate: string, now = Date.now()): number => (now - Date.parse(birthDate)) / (365.2425 * 86_400_000)

/** Age as it is said: weeks to four months, months to two years, then years. @example ageWords('2026-01-01', Date.parse('2026-02-19')) // '7 weeks' */
export function ageWords(birthDate: string, now = Date.now()): string {
  const years = yearsSince(birthDate, now)
  if (years >= 2) return String(ageAt(birthDate, now))
  return years < 1 / 3 ? `${Math.floor((now - Date.parse(birthDate)) / (7 * 86_400_000))} weeks` : `${Math.floor(years * 12)} months`
}

/** Age in whole years on a day. @example ageAt('1980-06-01', Date.parse('2026-05-31')) // 45 */
export function ageAt(birthDate: string, now = Date.now()): number {
  const born = new Date(birthDate)
  const today = new Date(now)
  const before = today.getMonth() < born.getMonth() || (today.getMonth() === born.getMonth() && today.getDate() < born.getDate())
  return today.getFullYear() - born.getFullYear() - (before ? 1 : 0)
}
