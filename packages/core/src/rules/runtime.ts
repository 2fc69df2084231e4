import type { Item, Scalar, Value } from '../model/item.js'
import type { RuleNode } from './rule.js'
import type { T } from './truth.js'
import type { Interval, TermValue } from '../model/interval.js'
import type { ProofNode } from './proofNode.js'
import { type SideIndex, SIDE_COUNT } from '../model/side.js'
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

/** The rungs at which a ladder may still stop; `mayFall` when it may run off the end. */
export interface Rungs {
  readonly possible: readonly string[]
  readonly mayFall: boolean
}

/** What was already worked out in one phase, so that a leaf that stands in dozens of flags runs once. */
export interface Memory {
  /** By rule and side; -1 where it was not run. */
  readonly truths: Int8Array
  /** By calc and side. */
  ladders: (Rungs | undefined)[]
  scores: (Interval | undefined)[]
}

/** A flag that stays met from before, and what met it then. */
export interface RetainedFlag {
  readonly flag: { readonly id: string; readonly proof?: ProofNode }
  readonly until: string
}

/** One judgement in progress. A phase decides how a missing finding reads. */
export interface Context {
  readonly slots: readonly (Reading | undefined)[]
  readonly previous: readonly (Earlier | undefined)[]
  readonly asOf: number
  /** Flags that stay met from before, by flag and side: see `PreparedPack.flagSlot`. */
  readonly retained: ReadonlyMap<number, RetainedFlag>
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
  readonly derived: Map<number, TermValue>
}

/** A rule ready to run. `side` is the side judged. */
export interface Compiled {
  readonly node: RuleNode
  readonly kids: readonly Compiled[]
  readonly run: (context: Context, side: SideIndex) => T
  /** The findings a leaf reads, as item index and side; empty for the other nodes. */
  readonly reads: (side: SideIndex) => readonly Slot[]
}

export interface Slot {
  readonly item: number
  readonly side: SideIndex
}

/** One number for an item and a side; each item has a slot for right, left and none. */
export const slotOf = (item: number, side: SideIndex): number => item * SIDE_COUNT + side
export const itemOfSlot = (slot: number): number => Math.floor(slot / SIDE_COUNT)
export const sideOfSlot = (slot: number): SideIndex => (slot % SIDE_COUNT) as SideIndex

/** The side on which an item is recorded when `side` is judged. */
export const sideOf = (item: Item, side: SideIndex): SideIndex => (item.sided ? side : 2)

/** Is there an earlier check, and not too long ago? */
export const isWithin = (earlier: Earlier | undefined, window: number | undefined): earlier is Earlier =>
  earlier !== undefined && (window === undefined || earlier.hours <= window)
