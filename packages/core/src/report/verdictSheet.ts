import { adviceOf, type Advice } from '../judge/advice.js'
import { scoreReadings, type ScoreReading } from '../judge/calcVerdicts.js'
import { dueHere } from '../judge/clock.js'
import { counterfactuals, type Counterfactual } from '../judge/counterfactual.js'
import type { Judgement } from '../judge/judgement.js'
import { endedFlags } from '../judge/pastFlags.js'
import { raisedTo, rangeToAccept } from '../judge/priorityOf.js'
import type { Tier } from '../model/tier.js'
import type { RegionPack } from '../pack/pack.js'
import { doFirst, type DoFirst } from './doFirst.js'
import { clinicalNote, type NoteSection } from './note.js'
import { pathwaysOf, type PathwayStep } from './pathways.js'
import { planOf, type Plan } from './plan.js'
import { acceptedWords, conclusionLines, contradictionLines, disagreementLines, earlierLines } from './reasons.js'
import { standingOf, type Standing } from './standing.js'

/** What the verdict sheet shows of a judgement. */
export interface VerdictSheet extends Standing {
  readonly tier: RegionPack['tiers'][number] | undefined
  /** When the patient is seen by, ISO 8601. */
  readonly due: string | undefined
  readonly acceptedBy: string | undefined
  /** How urgent it could still be, when that has to be accepted before it is signed. */
  readonly toAccept: Tier | undefined
  /** What the most urgent flags ask for at once. */
  readonly first: DoFirst
  /** What all flags that are met ask for. */
  readonly whole: DoFirst
  readonly disagreements: readonly string[]
  /** What in the record contradicts itself. */
  readonly contradictions: readonly string[]
  /** What the findings mean together. */
  readonly conclusions: readonly string[]
  readonly earlier: readonly string[]
  readonly changes: readonly Counterfactual[]
  readonly unexaminedCount: number
  readonly advice: readonly Advice[]
  readonly plan: Plan
  readonly pathways: readonly PathwayStep[]
  readonly scores: readonly ScoreReading[]
  readonly note: readonly NoteSection[]
}

/**
 * Everything that the verdict sheet shows of a judgement.
 * @param zone IANA time zone in which times are written
 * @example verdictSheetOf(judgement(pack, acuteKnee)).first.calls // ['Acute knee clinic']
 */
export function verdictSheetOf(judged: Judgement, zone?: string): VerdictSheet {
  const { pack, examination } = judged
  const { floor, flags } = judged.verdict
  const standing = standingOf(judged, zone)
  const { priority } = standing
  const { raise, lower } = counterfactuals(judged)
  return {
    ...standing,
    tier: pack.tiers.find((one) => one.id === priority.tier),
    due: dueHere(pack, examination.asOf, priority.tier, flags),
    acceptedBy: acceptedWords(judged, zone),
    toAccept: rangeToAccept(judged),
    first: doFirst(
      pack,
      flags.filter((flag) => flag.tier === floor && flag.tier !== 'here'),
      raisedTo(pack, priority),
    ),
    whole: doFirst(pack, flags),
    disagreements: disagreementLines(judged, zone),
    contradictions: contradictionLines(judged, zone),
    conclusions: conclusionLines(judged, zone),
    earlier: earlierLines(pack, endedFlags(judged), zone),
    changes: [...raise, ...lower],
    unexaminedCount: standing.unexamined.reduce((sum, stop) => sum + stop.items.length, 0),
    advice: adviceOf(judged),
    plan: planOf(judged),
    pathways: pathwaysOf(judged),
    scores: scoreReadings(judged),
    note: clinicalNote(judged, zone),
  }
}
