import { adviceOf, type Advice } from '../judge/advice.js'
import { scoreReadings, type ScoreReading } from '../judge/calcVerdicts.js'
import { dueHere } from '../judge/clock.js'
import { counterfactuals, type Counterfactual } from '../judge/counterfactual.js'
import type { Judgement } from '../judge/judgement.js'
import { openItems, type OpenItem } from '../judge/openItems.js'
import { endedFlags } from '../judge/pastFlags.js'
import { priorityOf, raisedTo, rangeToAccept, type Priority } from '../judge/priorityOf.js'
import { unexaminedCore, type UnexaminedStop } from '../judge/unexamined.js'
import type { FlagVerdict } from '../judge/verdict.js'
import type { Tier } from '../model/tier.js'
import type { RegionPack } from '../pack/pack.js'
import { conditionRanges, type ConditionRange } from '../reason/conditions.js'
import { nerveLevels, type NerveLevels } from '../reason/localise.js'
import { doFirst, type DoFirst } from './doFirst.js'
import { clinicalNote, type NoteSection } from './note.js'
import { pathwaysOf, type PathwayStep } from './pathways.js'
import { acceptedWords, disagreementLines, earlierLines, setWords } from './reasons.js'

/** What the verdict sheet shows of a judgement. */
export interface VerdictSheet {
  readonly pack: RegionPack
  readonly floor: Tier
  readonly ceiling: Tier
  readonly isSettled: boolean
  readonly priority: Priority
  /** Whether the patient is seen by another priority than the findings give. */
  readonly isSet: boolean
  readonly tier: RegionPack['tiers'][number] | undefined
  /** When the patient is seen by, ISO 8601. */
  readonly due: string | undefined
  readonly setBy: string | undefined
  readonly acceptedBy: string | undefined
  /** How urgent it could still be, when that has to be accepted before it is signed. */
  readonly toAccept: Tier | undefined
  /** What the most urgent flags ask for at once. */
  readonly first: DoFirst
  /** What all flags that are met ask for. */
  readonly whole: DoFirst
  readonly flags: readonly FlagVerdict[]
  readonly disagreements: readonly string[]
  readonly earlier: readonly string[]
  readonly changes: readonly Counterfactual[]
  readonly open: readonly OpenItem[]
  readonly unexamined: readonly UnexaminedStop[]
  readonly unexaminedCount: number
  readonly advice: readonly Advice[]
  readonly pathways: readonly PathwayStep[]
  readonly nerve: NerveLevels
  readonly scores: readonly ScoreReading[]
  readonly likely: readonly ConditionRange[]
  readonly note: readonly NoteSection[]
}

/**
 * Everything that the verdict sheet shows of a judgement.
 * @param zone IANA time zone in which times are written
 * @example verdictSheetOf(judgement(pack, acuteKnee)).first.calls // ['Acute knee clinic']
 */
export function verdictSheetOf(judged: Judgement, zone?: string): VerdictSheet {
  const { pack, examination, verdict } = judged
  const { floor, ceiling, flags } = verdict
  const priority = priorityOf(judged)
  const unexamined = unexaminedCore(judged)
  const { raise, lower } = counterfactuals(judged)
  return {
    pack,
    floor,
    ceiling,
    isSettled: floor === ceiling,
    priority,
    isSet: priority.tier !== floor,
    tier: pack.tiers.find((one) => one.id === priority.tier),
    due: dueHere(pack, examination.asOf, priority.tier, flags),
    setBy: setWords(pack, priority, zone),
    acceptedBy: acceptedWords(judged, zone),
    toAccept: rangeToAccept(judged),
    first: doFirst(
      pack,
      flags.filter((flag) => flag.tier === floor && flag.tier !== 'here'),
      raisedTo(pack, priority),
    ),
    whole: doFirst(pack, flags),
    flags: flags.filter((flag) => flag.tier !== 'here'),
    disagreements: disagreementLines(judged, zone),
    earlier: earlierLines(pack, endedFlags(judged), zone),
    changes: [...raise, ...lower],
    open: openItems(judged),
    unexamined,
    unexaminedCount: unexamined.reduce((sum, stop) => sum + stop.items.length, 0),
    advice: adviceOf(judged),
    pathways: pathwaysOf(judged),
    nerve: nerveLevels(judged),
    scores: scoreReadings(judged),
    likely: conditionRanges(judged),
    note: clinicalNote(judged, zone),
  }
}
