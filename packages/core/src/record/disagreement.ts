import type { Entry } from './entry.js'
import { isLater, slotKey } from './fold.js'
import { RECHECK_MINUTES } from './recheck.js'

/** What two devices found of the same item and side within minutes of each other, and nobody has decided between. The later one comes first. */
export interface Pair {
  readonly later: Entry
  readonly earlier: Entry
}

const FOUND: readonly Entry['state'][] = ['examined', 'could-not', 'not-valid']

/** What an entry says, whoever says it and whenever. */
export const sayingOf = ({ state, value, qualifiers }: Pick<Entry, 'state' | 'value' | 'qualifiers'>): string => JSON.stringify([state, value, qualifiers])

/**
 * Whether two entries are of different devices and so near in time that neither can be taken for a correction or a recheck of the other:
 * nobody says that the second examiner had seen what the first one found.
 */
export const disagree = (a: Entry, b: Entry): boolean =>
  a.device !== undefined &&
  b.device !== undefined &&
  a.device !== b.device &&
  FOUND.includes(a.state) &&
  FOUND.includes(b.state) &&
  Math.abs(Date.parse(a.at) - Date.parse(b.at)) < RECHECK_MINUTES * 60_000 &&
  sayingOf(a) !== sayingOf(b)

/**
 * @param entries of one examination, in any order
 * @example openPairs([absentByOne, normalByTwoAMinuteLater]) // [{ later: normalByTwoAMinuteLater, earlier: absentByOne }]
 */
export function openPairs(entries: readonly Entry[]): readonly Pair[] {
  const slots = new Map<string, Entry[]>()
  for (const entry of new Set(entries)) {
    const key = slotKey(entry.item, entry.side)
    slots.set(key, [...(slots.get(key) ?? []), entry])
  }
  return [...slots.values()].flatMap((own) => {
    const gone = new Set(own.flatMap((entry) => [...(entry.undoes ?? []), ...(entry.settles ?? [])]))
    const standing = own.reduce((held, entry) => (isLater(entry, held) ? entry : held))
    if (standing.settles !== undefined || gone.has(standing.id)) return []
    const others = own.filter((entry) => !gone.has(entry.id) && disagree(standing, entry))
    const [nearest] = others.sort((a, b) => (isLater(a, b) ? -1 : 1))
    return nearest ? [{ later: standing, earlier: nearest }] : []
  })
}
