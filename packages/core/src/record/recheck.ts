import type { FindingEntry } from './entry.js'
import { isLater } from './record.js'

/** A finding recorded again within this time is a correction; after it, a check done anew. Expert. */
export const RECHECK_MINUTES = 5

/**
 * The reading that a finding is compared with: the last one that was examined at least five minutes before it and not taken back since.
 * @param standing what stands for one item and side
 * @param others everything else recorded of them, in this examination or an earlier one
 * @example earlierOf(pulseAbsentAt10, [pulseNormalAt9]) // pulseNormalAt9
 */
export function earlierOf(standing: FindingEntry | undefined, others: readonly FindingEntry[]): FindingEntry | undefined {
  if (standing?.state !== 'examined') return undefined
  const latest = Date.parse(standing.at) - RECHECK_MINUTES * 60_000
  const before = others.filter((entry) => isLater(standing, entry))
  const takenBack = before.filter((entry) => entry.state === 'not-examined').reduce(later, undefined)
  return before
    .filter((entry) => entry.state === 'examined' && Date.parse(entry.at) <= latest && (!takenBack || isLater(entry, takenBack)))
    .reduce(later, undefined)
}

const later = (held: FindingEntry | undefined, entry: FindingEntry): FindingEntry => (held && isLater(held, entry) ? held : entry)

export const hoursBetween = (earlier: FindingEntry, standing: FindingEntry): number => minutesBetween(earlier.at, standing.at) / 60

/** From one ISO 8601 time to another. */
export const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000
