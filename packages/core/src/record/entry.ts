import type { DecisionForm, EntryForm, FindingForm } from '@kneecap-awl/contract'
import type { Side } from '../model/side.js'

export const REASONS = ['pain', 'guarding', 'not safe', 'declined', 'no equipment', 'other'] as const
export type Reason = (typeof REASONS)[number]

/** One thing recorded at one time by one person, as the contract describes it. Entries are only ever added to. */
export type Entry = EntryForm

/** What was found of an item on one side, or why it was not: `not-examined` takes an earlier one back, and counts as unknown. */
export type FindingEntry = FindingForm

/** What a clinician decides by name: lifts a flag, releases a hold, sets the priority, leaves its range open, or withdraws one of these. */
export type Decision = DecisionForm

/** An entry of one state. @example EntryOf<'lifted'> */
export type EntryOf<S extends Entry['state']> = Extract<Entry, { readonly state: S }>

/** What each entry says, before it has an id, a time and a name. */
export type Said<E extends Entry = Entry> = E extends Entry ? Omit<E, 'id' | 'by' | 'saidBy' | 'at' | 'device' | 'deviceAt' | 'amends'> : never

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
