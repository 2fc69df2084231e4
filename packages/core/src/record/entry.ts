import type { Described, EntryForm, STATES } from '@kneecap-awl/contract'
import type { Side } from '../model/side.js'

/**
 * `not-examined` takes an earlier entry back; it stays in the history and counts as unknown. `lifted` is said of a flag, not of a finding:
 * `item` is then the flag's id, `by` whoever lifts it, `reason` why. `released` is said of a hold in the same way: its tests may be done. `chosen` sets the priority (`item: priority`) to `value` in place of `from`.
 * `accepted` leaves the range open up to a ceiling (`item: range`), with reason and plan.
 */
export type State = (typeof STATES)[number]

export const REASONS = ['pain', 'guarding', 'not safe', 'declined', 'no equipment', 'other'] as const
export type Reason = (typeof REASONS)[number]

/** One thing recorded at one time by one person, as the contract describes it. Entries are only ever added to. */
export type Entry = Described<typeof EntryForm>

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
