import type { Item, Pack, RuleNode, Scalar, Side, Value } from '../content/types.js'
import type { Folded } from '../record/fold.js'
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
  readonly value: Value | undefined
  readonly qualifiers: Readonly<Record<string, Scalar | readonly string[]>>
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

/** One judgement in progress. A phase decides how a missing finding reads. */
export interface Context {
  readonly slots: readonly (Reading | undefined)[]
  readonly previous: readonly (Reading | undefined)[]
  readonly asOf: number
  /** Per item: 1 when some rule asks for it (or may yet), 0 when nothing calls for it. */
  indicated: Uint8Array | null
  /** True while deciding what is in play: there "could not for pain" counts as abnormal. */
  deciding: boolean
  /** Truth of every rule already run in this phase, by rule and side; -1 where it was not. */
  readonly truths: Int8Array
  /** Ladders and scores already worked out in this phase, by calc and side. */
  ladders: (Rungs | undefined)[]
  scores: (Interval | undefined)[]
  readonly derived: Map<number, Worth>
}

/** A rule ready to run. `side` is the side judged. */
export interface Compiled {
  readonly node: RuleNode
  readonly kids: readonly Compiled[]
  run(context: Context, side: number): T
  /** The findings a leaf reads, as item index and side; empty for the other nodes. */
  reads(side: number): readonly Slot[]
}

export interface Slot {
  readonly item: number
  readonly side: number
}

export const slotOf = (item: number, side: number): number => item * 3 + side

/** The side on which an item is recorded when `side` is judged. */
export const sideOf = (item: Item, side: number): number => (item.sided ? side : 2)

/** Turns a folded record into the slots of a pack. Entries of items that this pack does not know are left out. */
export function fillSlots(pack: Pack, indexOf: ReadonlyMap<string, number>, state: Folded): (Reading | undefined)[] {
  const slots = new Array<Reading | undefined>(pack.items.length * 3)
  for (const entry of state.values()) {
    const index = indexOf.get(entry.item)
    if (index === undefined || entry.state === 'not-examined') continue
    slots[slotOf(index, SIDE_INDEX[entry.side])] = readingOf(pack.items[index], entry)
  }
  return slots
}

function readingOf(item: Item | undefined, entry: { state: string; reason?: string; value?: Value; qualifiers?: Reading['qualifiers'] }): Reading {
  const couldNot = entry.state === 'could-not'
  const adverse = couldNot && item?.adverseIfPain !== undefined && (entry.reason === 'pain' || entry.reason === 'guarding')
  return {
    examined: entry.state === 'examined' || adverse,
    reason: couldNot ? (entry.reason ?? 'other') : undefined,
    notValid: entry.state === 'not-valid',
    value: adverse ? item.adverseIfPain : entry.value,
    qualifiers: entry.qualifiers ?? {},
  }
}
