import type { Item, Value } from '../model/item.js'
import { SIDE_COUNT, SIDE_INDEX } from '../model/side.js'
import type { RegionPack } from '../pack/pack.js'
import { isFinding } from '../record/decisions.js'
import type { FindingEntry } from '../record/entry.js'
import { isGapValue } from '../record/gaps.js'
import { heldTooShort } from '../record/heldTooShort.js'
import { earlierOf, hoursBetween } from '../record/recheck.js'
import type { ExaminationRecord } from '../record/record.js'
import { itemOfSlot, slotOf, type Earlier, type Reading } from '../rules/runtime.js'

/** The entry that stands in each slot. Entries of items that this pack does not know are left out. */
export function standingEntries(pack: RegionPack, indexOf: ReadonlyMap<string, number>, { slots }: ExaminationRecord): readonly (FindingEntry | undefined)[] {
  const standing = new Array<FindingEntry | undefined>(pack.items.length * SIDE_COUNT)
  for (const { standing: entry } of slots) {
    if (!isFinding(entry)) continue
    const index = indexOf.get(entry.item)
    if (index !== undefined) standing[slotOf(index, SIDE_INDEX[entry.side])] = entry
  }
  return standing
}

/** What each slot reads; an entry that takes a finding back leaves it empty. */
export function readingsOf(pack: RegionPack, standing: readonly (FindingEntry | undefined)[]): (Reading | undefined)[] {
  const readings = new Array<Reading | undefined>(standing.length)
  for (let slot = 0; slot < standing.length; slot++) {
    const entry = standing[slot]
    if (entry !== undefined) readings[slot] = readingAt(pack, slot, entry)
  }
  return readings
}

export const readingAt = (pack: RegionPack, slot: number, entry: FindingEntry | undefined): Reading | undefined =>
  entry === undefined || entry.state === 'not-examined' ? undefined : readingOf(pack.items[itemOfSlot(slot)], entry)

function readingOf(item: Item | undefined, entry: { state: string; reason?: string; value?: Value; qualifiers?: Reading['qualifiers'] }): Reading {
  const couldNot = entry.state === 'could-not'
  const adverse = couldNot && item?.adverseIfPain !== undefined && (entry.reason === 'pain' || entry.reason === 'guarding')
  const isGap = entry.state === 'examined' && item !== undefined && isGapValue(item, entry.value)
  const isShort = entry.state === 'examined' && item !== undefined && heldTooShort(item, entry) !== undefined
  return {
    examined: (entry.state === 'examined' && !isGap && !isShort) || adverse,
    isGap,
    reason: couldNot ? (entry.reason ?? 'other') : undefined,
    notValid: entry.state === 'not-valid' || isShort,
    value: adverse ? item.adverseIfPain : entry.value,
    qualifiers: entry.qualifiers ?? {},
  }
}

/** What a slot is compared with when a rule asks for the change: see `earlierOf`. */
export function earlierAt(
  pack: RegionPack,
  slot: number,
  standing: FindingEntry | undefined,
  others: readonly FindingEntry[] | undefined,
): Earlier | undefined {
  const earlier = others && earlierOf(standing, others)
  const reading = earlier && readingAt(pack, slot, earlier)
  return standing && earlier && reading ? { reading, hours: hoursBetween(earlier, standing) } : undefined
}
