import { NORMAL, type Item } from '../model/item.js'
import { type RegionPack } from '../pack/pack.js'
import { type Side } from '../model/side.js'
import { itemsById } from '../pack/itemsById.js'
import type { FindingEntry } from '../record/entry.js'
import { tellingStatements } from './readingStatements.js'
import { findingWords, onBothSides, sideWord } from './words.js'

/** What is recorded of one item, the sore side first. */
export interface ItemFindings {
  readonly item: Item
  readonly entries: readonly FindingEntry[]
}

/**
 * Entries item by item, in the order of the pack.
 * @param sides those of the complaint: the first of them comes first
 */
export function byItem(pack: RegionPack, entries: readonly FindingEntry[], sides: readonly Side[]): readonly ItemFindings[] {
  const found = new Map<string, FindingEntry[]>()
  for (const entry of entries) found.set(entry.item, [...(found.get(entry.item) ?? []), entry])
  const rank = ({ side }: FindingEntry): number => (side === sides[0] ? 0 : side === 'right' ? 1 : 2)
  return [...itemsById(pack).values()].flatMap((item) => {
    const own = found.get(item.id)
    return own ? [{ item, entries: own.sort((a, b) => rank(a) - rank(b)) }] : []
  })
}

/** Whether a range was found full on both sides, which also says that they are equal. */
const isFullAndEqual = (item: Item, entries: readonly Pick<FindingEntry, 'value'>[]): boolean =>
  item.normalSpan?.says === 'full' && entries.length > 1 && entries.every(({ value }) => value === NORMAL)

/** What the readings say beside each other, after them. */
function withStatements(item: Item, entries: readonly FindingEntry[], line: string): string {
  const of = (side: 'right' | 'left'): FindingEntry | undefined => entries.find((entry) => entry.side === side)
  const told = tellingStatements(item, { right: of('right'), left: of('left') }, entries[0]?.side === 'left' ? 'left' : 'right')
  return told.length > 0 ? `${line} (${told.join('; ')})` : line
}

/** One line for an item with both sides. @example "Lachman: right 8 mm, end point soft; left 2 mm, end point firm" */
export function itemLine(pack: RegionPack, { item, entries }: ItemFindings, zone: string | undefined): string {
  const words = entries.map((entry) => `${findingWords(pack, entry, zone)}${entry.override ? ` [done against a hold: ${entry.override.reason}]` : ''}`)
  const [first, second] = words
  if (second !== undefined && first === second)
    return isFullAndEqual(item, entries) ? `${item.label}: ${second.replace('full', 'full and equal')}` : named(item, onBothSides(second))
  return withStatements(item, entries, named(item, entries.map((entry, at) => `${sideWord(entry.side)} ${words[at] ?? ''}`.trim()).join('; ')))
}

/** A finding that names itself needs no label: "No swelling", not "Onset of swelling: no swelling". @example named(onsetOfSwelling, 'no swelling') // 'No swelling' */
const named = ({ label }: Item, words: string): string => (/^no \w/.test(words) ? `${words.charAt(0).toUpperCase()}${words.slice(1)}` : `${label}: ${words}`)
