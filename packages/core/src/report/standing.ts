import type { Judgement } from '../judge/judgement.js'
import { openItems, type OpenItem } from '../judge/openItems.js'
import { priorityOf, type Priority } from '../judge/priorityOf.js'
import { unexaminedCore, type UnexaminedStop } from '../judge/unexamined.js'
import type { FlagVerdict } from '../judge/verdict.js'
import type { Tier } from '../model/tier.js'
import type { RegionPack } from '../pack/pack.js'
import { likelyOf, type ConditionRange } from '../reason/conditions.js'
import { nerveLevels, type NerveLevels } from '../reason/localise.js'
import { setWords } from './reasons.js'

/** What every screen shows of a judgement: where it stands, on what, and what is missing. */
export interface Standing {
  readonly pack: RegionPack
  readonly floor: Tier
  readonly ceiling: Tier
  readonly isSettled: boolean
  readonly priority: Priority
  /** Whether the patient is seen by another priority than the findings give. */
  readonly isSet: boolean
  /** Who set the priority, in place of what. */
  readonly setBy: string | undefined
  /** The flags that are met and lead anywhere. */
  readonly flags: readonly FlagVerdict[]
  readonly open: readonly OpenItem[]
  readonly unexamined: readonly UnexaminedStop[]
  readonly likely: readonly ConditionRange[]
  readonly nerve: NerveLevels
}

/** @param zone IANA time zone in which times are written */
export function standingOf(judged: Judgement, zone: string | undefined): Standing {
  const { pack, verdict } = judged
  const { floor, ceiling } = verdict
  const priority = priorityOf(judged)
  return {
    pack,
    floor,
    ceiling,
    isSettled: floor === ceiling,
    priority,
    isSet: priority.tier !== floor,
    setBy: setWords(pack, priority, zone),
    flags: verdict.flags.filter((flag) => flag.tier !== 'here'),
    open: openItems(judged),
    unexamined: unexaminedCore(judged),
    likely: likelyOf(judged),
    nerve: nerveLevels(judged),
  }
}
