import type { Item, Value } from '../model/item.js'
import { SIDE_COUNT, SIDE_INDEX } from '../model/side.js'
import type { RegionPack } from '../pack/pack.js'
import type { Entry } from '../record/entry.js'
import { isLater } from '../record/fold.js'
import { isGapValue } from '../record/gaps.js'
import { earlierOf, hoursBetween } from '../record/recheck.js'
import { itemOfSlot, slotOf, type Earlier, type Reading } from '../rules/runtime.js'

/**
 * The entry that stands in each slot: the one with the latest `at`, as `fold` has it. Entries of items that this pack does not know
 * are left out. `again` holds every entry of an item and side that was recorded more than once, some of them several times.
 */
export function standingEntries(
  pack: RegionPack,
  indexOf: ReadonlyMap<string, number>,
  entries: Iterable<Entry>,
): { readonly standing: readonly (Entry | undefined)[]; readonly again: readonly Entry[] } {
  const again: Entry[] = []
  const standing = new Array<Entry | undefined>(pack.items.length * SIDE_COUNT)
  for (const entry of entries) {
    const index = indexOf.get(entry.item)
    if (index === undefined) continue
    const at = slotOf(index, SIDE_INDEX[entry.side])
    const held = standing[at]
    if (held) again.push(held, entry)
    if (!held || isLater(entry, held)) standing[at] = entry
  }
  return { standing, again }
}

/** What each slot reads; an entry that takes a finding back leaves it empty. */
export const readingsOf = (pack: RegionPack, standing: readonly (Entry | undefined)[]): (Reading | undefined)[] =>
  standing.map((entry, at) => readingAt(pack, at, entry))

export const readingAt = (pack: RegionPack, slot: number, entry: Entry | undefined): Reading | undefined =>
  entry === undefined || entry.state === 'not-examined' ? undefined : readingOf(pack.items[itemOfSlot(slot)], entry)

function readingOf(item: Item | undefined, entry: { state: string; reason?: string; value?: Value; qualifiers?: Reading['qualifiers'] }): Reading {
  const couldNot = entry.state === 'could-not'
  const adverse = couldNot && item?.adverseIfPain !== undefined && (entry.reason === 'pain' || entry.reason === 'guarding')
  const isGap = entry.state === 'examined' && item !== undefined && isGapValue(item, entry.value)
  return {
    examined: (entry.state === 'examined' && !isGap) || adverse,
    isGap,
    reason: couldNot ? (entry.reason ?? 'other') : undefined,
    notValid: entry.state === 'not-valid',
    value: adverse ? item.adverseIfPain : entry.value,
    qualifiers: entry.qualifiers ?? {},
  }
}

/** What a slot is compared with when a rule asks for the change: see `earlierOf`. */
export function earlierAt(pack: RegionPack, slot: number, standing: Entry | undefined, others: readonly Entry[] | undefined): Earlier | undefined {
  const earlier = others && earlierOf(standing, others)
  const reading = earlier && readingAt(pack, slot, earlier)
  return standing && earlier && reading ? { reading, hours: hoursBetween(earlier, standing) } : undefined
}
