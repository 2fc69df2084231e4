export * from './content/types.js'
export { compilePack } from './content/compile.js'
export { PackError, problemLine, type Problem } from './content/problem.js'
export type { SourceFile } from './content/source.js'
export * from './record/entry.js'
export { fold, slotKey, superseded, type Folded } from './record/fold.js'
export {
  calcVerdicts,
  judge,
  judgeAlong,
  judgedSides,
  judgement,
  preparePack,
  rejudge,
  type CalcVerdict,
  type FlagVerdict,
  type HoldVerdict,
  type Judgement,
  type Verdict,
} from './judge/judge.js'
export { openItems, type OpenItem } from './judge/openItems.js'
export { counterfactuals, type ChangedFinding, type Counterfactual } from './judge/counterfactual.js'
export { findingsOf, type ProofFinding, type ProofNode } from './judge/proof.js'
export { dueAt, dueState, repairClock, runningClock, tierByClock, WINDOW_HOURS, type ClockReading, type DueState } from './judge/clock.js'
export { modifiedTier, mostUrgent } from './judge/priorityTier.js'
export { tierRank } from './judge/prepare.js'
export * as truth from './judge/truth.js'
export type { Truth } from './judge/truth.js'
export { conditionRanges, type ConditionRange } from './reason/conditions.js'
export * from './reason/likelihood.js'
export * from './measure/units.js'
export { checkEntries, expectedOf, itemsById, type Fault } from './record/checkEntry.js'
export { ENTRY_SCHEMA, EXAMINATION_FILE_SCHEMA, examinationFile, readExamination, type ExaminationFile } from './record/examinationFile.js'
export { clinicalNote, noteText, type NoteSection } from './report/note.js'
export { referralLetter, type Letter } from './report/letter.js'
export { findingWords, isAbnormalEntry, sideWord } from './report/words.js'
export { publicVerdict } from './report/publicVerdict.js'
export { examinedNormal, normalEntry, sidesOf, type Recorder } from './record/examinedNormal.js'
export { lintPack } from './content/lint.js'
export { findingLine, tellingFindings } from './report/reasons.js'
export { dayAndTime, dayOnly, isTimeZone } from './report/times.js'
export { compileRule } from './judge/compileRule.js'
export { viewOf } from './content/view.js'
export { packReport, type RegionReport } from './report/packReport.js'
