import type { Entry } from '../record/entry.js'

/** What clinicians decided, as far as it stands. */
export interface Decisions {
  /** Sets the priority: see `priorityOf`. */
  readonly choice: Entry | undefined
  /** Leaves the range open: see `rangeToAccept`. */
  readonly acceptance: Entry | undefined
  /** Releases holds: see `releaseOf`. */
  readonly releases: readonly Entry[]
}
