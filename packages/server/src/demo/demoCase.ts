import type { FindingEntry, Side } from '@kneecap-awl/core'
import type { PEOPLE } from './people.js'

export type Finding = Partial<Pick<FindingEntry, 'value' | 'qualifiers'>> & {
  readonly item: string
  readonly side?: Side
  /** Found not at the start but so many minutes later: a check done anew. */
  readonly minutesLater?: number
}

/** One visit of the demonstration: who, when relative to today, what was found, and how far it got. */
export interface DemoCase {
  readonly who: keyof typeof PEOPLE
  readonly region: string
  readonly side: Side
  readonly hoursAgo: number
  readonly onsetDaysAgo: number
  readonly base: 'normal' | 'screen only' | 'nothing'
  readonly findings: readonly Finding[]
  readonly state: 'draft' | 'signed' | 'referred' | 'amended'
  readonly setting: 'primary-care' | 'emergency'
}
