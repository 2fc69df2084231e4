import type { Side } from '../model/side.js'
import type { Tier } from '../model/tier.js'
import type { EntryOf } from '../record/entry.js'
import type { ProofNode } from '../rules/proofNode.js'
import type { T, Truth } from '../rules/truth.js'
import type { ClockReading } from './clock.js'

export interface FlagVerdict {
  readonly id: string
  readonly concept: string
  readonly classes: readonly string[]
  readonly title: string
  readonly side: Side
  readonly truth: Truth
  readonly inPlay: Truth
  /** Tier that is proven; undefined while the flag is only open. */
  readonly tier?: Tier
  /** Most urgent tier it could still have. */
  readonly ceiling?: Tier
  readonly baseTier?: Tier
  readonly modifiers: readonly { readonly id: string; readonly truth: Truth }[]
  readonly to: readonly string[]
  readonly doNow: readonly string[]
  readonly avoid: readonly string[]
  readonly clock?: ClockReading
  /** Set when its findings no longer meet it at Now: it was met so `until` then, and stays Now until it is lifted. The first recheck of it was at `from`. */
  readonly retained?: { readonly from: string; readonly until: string }
  /** What meets it; of a retained flag what met it then. */
  readonly proof?: ProofNode
}

export interface HoldVerdict {
  readonly id: string
  readonly title: string
  readonly side: Side
  readonly reason: string
  readonly allowed: string
  readonly stops: readonly string[]
  readonly proof?: ProofNode
}

export interface Verdict {
  readonly floor: Tier
  readonly ceiling: Tier
  /** Met flags, most urgent first. */
  readonly flags: readonly FlagVerdict[]
  /** Flags that are not settled and hold the ceiling up. */
  readonly openFlags: readonly FlagVerdict[]
  readonly holds: readonly HoldVerdict[]
  readonly asked: Asked
}

/** What the core findings call for. */
export interface Asked {
  /** Per item: 2 asked for, 1 may still be asked for, 0 nothing calls for it. */
  readonly level: Uint8Array
  /** Why a prompted item is asked, by item id: the group's own words. */
  readonly because: ReadonlyMap<string, string>
  readonly prompts: readonly { readonly id: string; readonly title: string; readonly because: string; readonly items: readonly string[] }[]
  /** inPlay of each flag, by complaint side. */
  readonly inPlay: readonly (readonly T[])[]
}

/** An urgent flag that its findings met before one of them was checked anew. */
export interface PastFlag {
  readonly flag: FlagVerdict
  readonly tier: Tier
  /** When the first of what it stood on was rechecked, ISO 8601: `flag` is as it was before. */
  readonly from: string
  /** When a later check took the place of what still met it. The same as `from` unless several findings were rechecked in one go. */
  readonly until: string
  /** Who lifted it since, when and why: an entry of state `lifted`. */
  readonly lifted?: EntryOf<'lifted'>
}

/** A time at which something recorded was found otherwise, or was taken back. */
export interface Recheck {
  readonly at: string
  readonly isTakenBack: boolean
}
