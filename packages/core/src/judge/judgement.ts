import type { SideIndex } from '../model/side.js'
import type { RegionPack } from '../pack/pack.js'
import type { Examination, FindingEntry } from '../record/entry.js'
import type { ExaminationRecord } from '../record/record.js'
import type { JudgeContext } from './judgeContext.js'
import type { CompiledPack } from './compiledPack.js'
import type { Recheck, PastFlag, Verdict } from './verdict.js'

/** Everything that was used in reaching a verdict, for explanations that go on from it. */
export interface Judgement {
  /** The pack that it was judged with, as its region sees it. */
  readonly pack: RegionPack
  /** The whole record that was judged. */
  readonly examination: Examination
  /** What of it stands: of two devices that do not agree what the more urgent one found. */
  readonly record: ExaminationRecord
  readonly verdict: Verdict
  readonly compiled: CompiledPack
  readonly context: JudgeContext
  readonly sides: readonly SideIndex[]
  /** The entry that stands in each slot, for judging on. */
  readonly standing: readonly (FindingEntry | undefined)[]
  /** What else was recorded in the slots that are compared with an earlier check, in this examination or before it. */
  readonly others: ReadonlyMap<number, readonly FindingEntry[]>
  /** When something was found otherwise than before, and what had been urgent until then. */
  readonly rechecks: readonly Recheck[]
  readonly past: readonly PastFlag[]
  /** What two devices found within minutes of each other: the more urgent finding stands until a clinician decides between them. */
  readonly disagreements: readonly Disagreement[]
}

export interface Disagreement {
  readonly stands: FindingEntry
  readonly other: FindingEntry
}
