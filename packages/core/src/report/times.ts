/**
 * A moment as people write it, in a time zone, with the zone said.
 * @param iso ISO 8601 with zone @param zone IANA name of the clinic's time zone
 * @example dayAndTime('2026-11-24T05:57:00Z', 'UTC') // 'Tue 24 Nov 2026, 05:57 UTC'
 */
export function dayAndTime(iso: string, zone = 'UTC'): string {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZoneName: 'short',
  })
  const found = Object.fromEntries(parts.formatToParts(Date.parse(iso)).map(({ type, value }) => [type, value]))
  return `${found.weekday ?? ''} ${found.day ?? ''} ${found.month ?? ''} ${found.year ?? ''}, ${found.hour ?? ''}:${found.minute ?? ''} ${found.timeZoneName ?? ''}`
}

/** @example dayOnly('2003-07-28') // '28 Jul 2003' */
export const dayOnly = (date: string, zone = 'UTC'): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, day: 'numeric', month: 'short', year: 'numeric' }).format(Date.parse(date))

/** @example spanOf(0.5) // '30 min' */
export const spanOf = (hours: number): string =>
  hours < 1 ? `${Math.round(hours * 60)} min` : hours < 48 ? `${Math.round(hours * 2) / 2} h` : `${Math.round(hours / 24)} days`
