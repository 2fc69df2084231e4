import type { Item } from '../model/item.js'
import type { FindingEntry } from './entry.js'

/**
 * How long a negative test was held when that is less than it takes: then it excludes nothing. A positive one counts however early.
 * @returns seconds, undefined where it was held long enough or nobody took the time
 * @example heldTooShort(phalen, { value: 'negative', qualifiers: { held: 20 } }) // 20
 */
export function heldTooShort(
  { holdSeconds, calm }: Pick<Item, 'holdSeconds' | 'calm'>,
  { value, qualifiers }: Pick<FindingEntry, 'value' | 'qualifiers'>,
): number | undefined {
  const held = qualifiers?.held
  if (holdSeconds === undefined || typeof held !== 'number' || held >= holdSeconds) return undefined
  return calm.includes(String(value)) ? held : undefined
}
