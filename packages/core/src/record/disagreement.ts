import type { FindingEntry } from './entry.js'
import { isFinding } from './decisions.js'
import { isLater, type ExaminationRecord } from './record.js'
import { RECHECK_MINUTES } from './recheck.js'

/** What two devices found of the same item and side within minutes of each other, and nobody has decided between. The later one comes first. */
export interface Pair {
  readonly later: FindingEntry
  readonly earlier: FindingEntry
  /** How many entries the later one is held against. */
  readonly rivals: number
}

/** What an entry says, whoever says it and whenever. */
export const sayingOf = ({ state, value, qualifiers }: Pick<FindingEntry, 'state' | 'value' | 'qualifiers'>): string =>
  JSON.stringify([state, value, qualifiers])

/**
 * Whether two entries are of different devices and so near in time that neither can be taken for a correction or a recheck of the other:
 * nobody says that the second examiner had seen what the first one found.
 */
export const disagree = (a: FindingEntry, b: FindingEntry): boolean =>
  a.device !== undefined &&
  b.device !== undefined &&
  a.device !== b.device &&
  a.state !== 'not-examined' &&
  b.state !== 'not-examined' &&
  Math.abs(Date.parse(a.at) - Date.parse(b.at)) < RECHECK_MINUTES * 60_000 &&
  sayingOf(a) !== sayingOf(b)

/**
 * @param knows whether a slot is of an item that matters here
 * @example openPairs(recordOf([absentByOne, normalByTwoAMinuteLater])) // [{ later: normalByTwoAMinuteLater, earlier: absentByOne, rivals: 1 }]
 */
export function openPairs({ repeated }: ExaminationRecord, knows: (entry: FindingEntry) => boolean = () => true): readonly Pair[] {
  return repeated.flatMap(({ standing, passed }) => {
    if (!isFinding(standing) || !knows(standing)) return []
    const own = [standing, ...passed.filter(isFinding)]
    const gone = new Set(own.flatMap((entry) => [...(entry.undoes ?? []), ...(entry.settles ?? [])]))
    if (standing.settles !== undefined || gone.has(standing.id)) return []
    const others = own.filter((entry) => !gone.has(entry.id) && disagree(standing, entry))
    const [nearest] = others.sort((a, b) => (isLater(a, b) ? -1 : 1))
    return nearest ? [{ later: standing, earlier: nearest, rivals: others.length }] : []
  })
}
