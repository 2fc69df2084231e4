import type { SideIndex } from '../model/side.js'
import type { RegionPack } from '../pack/pack.js'
import type { Entry, Examination } from '../record/entry.js'
import type { Decisions } from './decisions.js'
import type { JudgeContext } from './judgeContext.js'
import type { Prepared } from './prepare.js'
import type { Recheck, PastFlag, Verdict } from './verdict.js'

/** Everything that was used in reaching a verdict, for explanations that go on from it. */
export interface Judgement {
  /** The pack that it was judged with, as its region sees it. */
  readonly pack: RegionPack
  /** The whole record that was judged. */
  readonly examination: Examination
  readonly verdict: Verdict
  readonly prepared: Prepared
  readonly context: JudgeContext
  readonly sides: readonly SideIndex[]
  /** The entry that stands in each slot, for judging on. */
  readonly standing: readonly (Entry | undefined)[]
  /** What else was recorded in the slots that are compared with an earlier check, in this examination or before it. */
  readonly others: ReadonlyMap<number, readonly Entry[]>
  /** When something was found otherwise than before, and what had been urgent until then. */
  readonly rechecks: readonly Recheck[]
  readonly past: readonly PastFlag[]
  readonly decisions: Decisions
  /** What two devices found within minutes of each other: the more urgent finding stands until a clinician decides between them. */
  readonly disagreements: readonly Disagreement[]
}

export interface Disagreement {
  readonly stands: Entry
  readonly other: Entry
}
