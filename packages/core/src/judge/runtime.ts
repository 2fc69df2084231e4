import type { Item, RegionPack, RuleNode, Scalar, Side, Value } from '../content/types.js'
import type { Entry } from '../record/entry.js'
import { isLater } from '../record/fold.js'
import { isGapValue } from '../record/gaps.js'
import { earlierOf, hoursBetween } from '../record/recheck.js'
import type { PastFlag } from './pastFlags.js'
import type { T } from './truth.js'

/** Sides as the inner loops number them. */
export const SIDE_INDEX: Readonly<Record<Side, number>> = { right: 0, left: 1, none: 2 }
export const SIDE_NAMES: readonly Side[] = ['right', 'left', 'none']
export const otherSide = (side: number): number => (side === 0 ? 1 : side === 1 ? 0 : 2)

/** A recorded finding with its words already turned into numbers. */
export interface Reading {
  readonly examined: boolean
  readonly reason: string | undefined
  readonly notValid: boolean
  /** Recorded as a gap ("not done", "not known"): nothing was found out, so only a rule that names the gap reads it. */
  readonly isGap: boolean
  readonly value: Value | undefined
  readonly qualifiers: Readonly<Record<string, Scalar | readonly string[]>>
}

/** What a slot read at the check before, and how long before. */
export interface Earlier {
  readonly reading: Reading
  readonly hours: number
}

export interface Interval {
  readonly low: number
  readonly high: number
}

/** The rungs at which a ladder may still stop; `mayFall` when it may run off the end. */
export interface Rungs {
  readonly possible: readonly string[]
  readonly mayFall: boolean
}

/** What a term is worth: a number, a range, words, or null when it is not known. */
export type Worth = number | Interval | string | readonly string[] | null

/** What was already worked out in one phase, so that a leaf that stands in dozens of flags runs once. */
export interface Memory {
  /** By rule and side; -1 where it was not run. */
  readonly truths: Int8Array
  /** By calc and side. */
  ladders: (Rungs | undefined)[]
  scores: (Interval | undefined)[]
}

/** One judgement in progress. A phase decides how a missing finding reads. */
export interface Context {
  readonly slots: readonly (Reading | undefined)[]
  readonly previous: readonly (Earlier | undefined)[]
  readonly asOf: number
  /** Flags that stay met from before, by flag and side: see `Prepared.flagSlot`. */
  readonly held: ReadonlyMap<number, PastFlag>
  /** Per item: 1 when some rule asks for it (or may yet), 0 when nothing calls for it. */
  indicated: Uint8Array | null
  /** The same of the last time that this record was judged, to see what changed. */
  lastIndicated: Uint8Array | null
  /** True while deciding what is in play: there "could not for pain" counts as abnormal. */
  deciding: boolean
  /** What was worked out in each phase: deciding what is in play, then judging. */
  readonly memories: readonly [Memory, Memory]
  /** The one of the present phase. */
  memory: Memory
  readonly derived: Map<number, Worth>
}

/** A rule ready to run. `side` is the side judged. */
export interface Compiled {
  readonly node: RuleNode
  readonly kids: readonly Compiled[]
  readonly run: (context: Context, side: number) => T
  /** The findings a leaf reads, as item index and side; empty for the other nodes. */
  readonly reads: (side: number) => readonly Slot[]
}

export interface Slot {
  readonly item: number
  readonly side: number
}

export const slotOf = (item: number, side: number): number => item * 3 + side

/** The side on which an item is recorded when `side` is judged. */
export const sideOf = (item: Item, side: number): number => (item.sided ? side : 2)

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
  const standing = new Array<Entry | undefined>(pack.items.length * 3)
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
  entry === undefined || entry.state === 'not-examined' ? undefined : readingOf(pack.items[Math.floor(slot / 3)], entry)

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

/** Is there an earlier check, and not too long ago? */
export const isWithin = (earlier: Earlier | undefined, window: number | undefined): earlier is Earlier =>
  earlier !== undefined && (window === undefined || earlier.hours <= window)
