/** A device whose clock is off by less is left alone: the server tells whole seconds, and the way to it takes a moment. */
const TOLERANCE_MS = 5000

let offsetMs = 0
let last = 0

/**
 * Measures how far this device's clock is from the server's.
 * @param date the answer's Date header @param sentMs @param receivedMs by this device's clock, milliseconds since 1970
 */
export function learnServerTime(date: string | null, sentMs: number, receivedMs: number): void {
  const told = date === null ? Number.NaN : Date.parse(date)
  if (Number.isNaN(told)) return
  // The header names the second that has begun: its middle is meant.
  const measured = told + 500 - (sentMs + receivedMs) / 2
  offsetMs = Math.abs(measured) < TOLERANCE_MS ? 0 : Math.round(measured)
}

/** Now, by the server's clock as far as it is known. Milliseconds since 1970. */
export const serverNow = (): number => Date.now() + offsetMs

/** The time of a finding, ISO 8601: by the server's clock, and never the same twice. */
export function timeOfFinding(): string {
  last = Math.max(last + 1, serverNow())
  return new Date(last).toISOString()
}
