export { ageOn, localDay, type Age } from './model/age.js'
export * from './content/types.js'
export { compilePack } from './content/compile.js'
export { PackError, problemLine, type Problem } from './content/problem.js'
export type { SourceFile } from './content/source.js'
export * from './record/entry.js'
export { carriedEntries } from './record/carried.js'
export { fold, slotKey, superseded, type Folded } from './record/fold.js'
export { counselsOf, type Counsel } from './judge/counsels.js'
export { calcVerdicts, scoreReadings, spanWords, type CalcVerdict, type ScoreReading } from './judge/calcVerdicts.js'
export {
  comparedItems,
  judge,
  judgedSides,
  judgement,
  preparePack,
  type Disagreement,
  type FlagVerdict,
  type HoldVerdict,
  type Judgement,
  type Verdict,
} from './judge/judge.js'
export { judgeAlong, rejudge } from './judge/judgeAlong.js'
export { openItems, type OpenItem } from './judge/openItems.js'
export { unexaminedCore, type UnexaminedStop } from './judge/unexamined.js'
export { counterfactuals, type ChangedFinding, type Counterfactual } from './judge/counterfactual.js'
export { findingsOf, type ProofFinding, type ProofNode } from './judge/proof.js'
export {
  dueHere,
  dueState,
  isCallDue,
  repairClock,
  runningClock,
  tierByClock,
  WINDOW_HOURS,
  windowsOf,
  type ClockReading,
  type DueState,
} from './judge/clock.js'
export { priorityOf, raisedTo, rangeToAccept, type Priority, type SetPriority } from './judge/priorityOf.js'
export { modifiedTier, mostUrgent } from './judge/priorityTier.js'
export * as truth from './judge/truth.js'
export type { Truth } from './judge/truth.js'
export { conditionRanges, type ConditionRange } from './reason/conditions.js'
export * from './reason/likelihood.js'
export { entropy, expectedInformation, tellingTests, type TellingTest } from './reason/nextTest.js'
export { aroundTest, bestTier, costsOf, tierLoss, worthAround, type Costs, type TestWorth, type TierChoice } from './reason/tierValue.js'
export { sampleChance, type Chance, type Estimate } from './reason/sampleChance.js'
export { localise, nerveLevels, type Localisation, type NerveLevels, type NervePattern, type Place } from './reason/localise.js'
export * from './measure/units.js'
export { isDecided, isReason, isSamePerson, LEAST_REASON, LEAST_WORDS, needsReason, needsSenior, PRIORITY, RANGE } from './record/checkDecision.js'
export { standingRecord } from './judge/standingRecord.js'
export { openPairs } from './record/disagreement.js'
export { activeHolds, releaseOf, standingHolds, type StandingHold } from './judge/holds.js'
export { checkEntries, expectedOf, itemsById, type Fault } from './record/checkEntry.js'
export { ENTRY_SCHEMA, EXAMINATION_FILE_SCHEMA, examinationFile, readExamination, type ExaminationFile } from './record/examinationFile.js'
export { clinicalNote, noteText, type NoteSection } from './report/note.js'
export { pathwaysOf, type PathwayStep } from './report/pathways.js'
export { referralLetter, type Letter } from './report/letter.js'
export { complaintWords, findingWords, isAbnormalEntry, rangeWords, sideWord, tierName } from './report/words.js'
export { shownVerdict, type ShownVerdict } from './report/shownVerdict.js'
export { publicVerdict } from './report/publicVerdict.js'
export { examinedNormal, normalByKey, sidesOf, type Recorder } from './record/examinedNormal.js'
export { lastBatch, saidAgain, takingBack } from './record/undo.js'
export { isGapEntry } from './record/gaps.js'
export { isSameEntry, recordHash } from './record/recordHash.js'
export { hasLetters, isolated, plainEntry, plainText } from './record/plainText.js'
export { lintPack } from './content/lint.js'
export { localChoices } from './content/profile.js'
export { earlierFlags, endedFlags, type EarlierFlag, type PastFlag } from './judge/pastFlags.js'
export { asEntry, beforeWords, acceptedWords, disagreementLines, earlierLines, findingLine, setWords, tellingFindings } from './report/reasons.js'
export { dayAndTime, dayOnly, isTimeZone } from './report/times.js'
export { compileRule } from './judge/compileRule.js'
export { oncePer } from './content/oncePer.js'
export { viewOf } from './content/view.js'
export { rangesBySchool, usualRange } from './content/norms.js'
export { packReport, type RegionReport } from './report/packReport.js'
export { leadsTo } from './library/leadsTo.js'
export { LIBRARY_KINDS, libraryIndex, sourceNames, type LibraryEntry, type LibraryKind } from './library/libraryIndex.js'
export { calcLines, ruleLines, type RuleLine } from './library/ruleWords.js'
export { usersOf, type Users } from './library/usersOf.js'
export { upgradePack } from './content/upgradePack.js'
