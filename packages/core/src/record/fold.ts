import type { Entry } from './entry.js'

export type Folded = ReadonlyMap<string, Entry>

export const slotKey = (item: string, side: string): string => `${item}|${side}`

/**
 * The current state of an examination: for each item and side the entry with the latest `at`, ties broken by id.
 * Idempotent, and the order in which entries arrive does not matter.
 * @example fold([flexion95At9, flexion110At10]).get('knee.move.flexion|right') // the entry of ten o'clock
 */
export function fold(entries: Iterable<Entry>): Folded {
  const state = new Map<string, Entry>()
  for (const entry of entries) {
    const key = slotKey(entry.item, entry.side)
    const held = state.get(key)
    if (!held || isLater(entry, held)) state.set(key, entry)
  }
  return state
}

/** Whether an entry stands over another of the same item and side: later `at`, then the greater id. */
export const isLater = (a: Entry, b: Entry): boolean => compareTime(a, b) > 0

const compareTime = (a: Entry, b: Entry): number => instant(a.at) - instant(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

const instant = (iso: string): number => Date.parse(iso)
