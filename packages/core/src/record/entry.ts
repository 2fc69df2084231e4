import type { Scalar, Value } from '../model/item.js'
import type { Side } from '../model/side.js'

export const STATES = ['examined', 'could-not', 'not-valid', 'not-examined', 'lifted', 'released', 'chosen', 'accepted'] as const
/**
 * `not-examined` takes an earlier entry back; it stays in the history and counts as unknown. `lifted` is said of a flag, not of a finding:
 * `item` is then the flag's id, `by` whoever lifts it, `reason` why. `released` is said of a hold in the same way: its tests may be done. `chosen` sets the priority (`item: priority`) to `value` in place of `from`.
 * `accepted` leaves the range open up to a ceiling (`item: range`), with reason and plan.
 */
export type State = (typeof STATES)[number]

export const REASONS = ['pain', 'guarding', 'not safe', 'declined', 'no equipment', 'other'] as const
export type Reason = (typeof REASONS)[number]

/** One thing recorded at one time by one person. Entries are only ever added to. */
export interface Entry {
  /** UUID v7. Sending the same entry twice stores it once. */
  readonly id: string
  /** An item of the pack; a flag where one is lifted. */
  readonly item: string
  readonly side: Side
  readonly state: State
  /** One of `REASONS`, or the examiner's own words. */
  readonly reason?: string
  readonly value?: Value
  readonly qualifiers?: Readonly<Record<string, Scalar | readonly string[]>>
  readonly by: string
  /** ISO 8601 with zone. For the same item and side the later time wins. */
  readonly at: string
  /** Which browser recorded it. */
  readonly device?: string
  /** The time by the device's own clock, where that was off and `at` was put right. */
  readonly deviceAt?: string
  /** Entries that this one takes back, by an undo. */
  readonly undoes?: readonly string[]
  /** Entries of two devices that did not agree, between which this one decides. */
  readonly settles?: readonly string[]
  /** Set when the item was on hold and the examiner went on deliberately. Never removed. */
  readonly override?: { readonly hold: string; readonly reason: string }
  /** Why a signed examination was changed. */
  readonly amends?: string
}

/** Whose joint it is about. The complaint sides are judged; the other side is the comparison. */
export interface Complaint {
  readonly region: string
  readonly sides: readonly Side[]
}

/** Everything the engine needs of one examination: what hurts, when it was examined, and what was recorded. */
export interface Examination {
  readonly complaint: Complaint
  /** The time that "days since" is counted to, ISO 8601. */
  readonly asOf: string
  readonly setting?: 'primary-care' | 'emergency'
  readonly entries: readonly Entry[]
  /** What was found at earlier examinations of the same joint: rules on change compare with it, as with earlier checks in this one. */
  readonly previous?: readonly Entry[]
}
