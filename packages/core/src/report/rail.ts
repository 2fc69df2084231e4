import type { Judgement } from '../judge/judgement.js'
import { openItems, type OpenItem } from '../judge/openItems.js'
import { endedFlags, type EarlierFlag } from '../judge/pastFlags.js'
import { priorityOf, type Priority } from '../judge/priorityOf.js'
import { unexaminedCore, type UnexaminedStop } from '../judge/unexamined.js'
import type { FlagVerdict } from '../judge/verdict.js'
import type { Tier } from '../model/tier.js'
import type { RegionPack } from '../pack/pack.js'
import { conditionRanges, type ConditionRange } from '../reason/conditions.js'
import { nerveLevels, type NerveLevels } from '../reason/localise.js'
import { tellingTests, type TellingTest } from '../reason/nextTest.js'
import { recordOf } from '../record/record.js'
import { findingsOf } from '../rules/proof.js'
import { doFirst, type DoFirst } from './doFirst.js'
import { setWords } from './reasons.js'

/** What stands beside the sheet while somebody examines. */
export interface Rail {
  readonly pack: RegionPack
  readonly floor: Tier
  readonly ceiling: Tier
  readonly isSettled: boolean
  readonly priority: Priority
  /** Who set the priority, in place of what. */
  readonly setBy?: string
  /** What a flag of tier Now asks for at once, and when the first of them was proven. */
  readonly actNow?: DoFirst & { readonly firstSeen?: string }
  /** The flags that are met and lead anywhere. */
  readonly flags: readonly FlagVerdict[]
  /** What was urgent before a finding was checked anew, and is not held. */
  readonly earlier: readonly EarlierFlag[]
  readonly open: readonly OpenItem[]
  readonly unexamined: readonly UnexaminedStop[]
  readonly likely: readonly ConditionRange[]
  readonly telling: readonly TellingTest[]
  readonly nerve: NerveLevels
}

/**
 * Everything that the rail shows of a judgement.
 * @param zone IANA time zone in which times are written
 * @example railOf(judgement(pack, nothingExamined)).ceiling // 'now'
 */
export function railOf(judged: Judgement, zone?: string): Rail {
  const { pack, verdict } = judged
  const { floor, ceiling } = verdict
  const priority = priorityOf(judged)
  const now = verdict.flags.filter((flag) => flag.tier === 'now')
  const setBy = setWords(pack, priority, zone)
  const firstSeen = firstProven(judged, now)
  return {
    pack,
    floor,
    ceiling,
    isSettled: floor === ceiling,
    priority,
    ...(setBy === undefined ? {} : { setBy }),
    ...(now.length === 0 ? {} : { actNow: { ...doFirst(pack, now), ...(firstSeen === undefined ? {} : { firstSeen }) } }),
    flags: verdict.flags.filter((flag) => flag.tier !== 'here'),
    earlier: endedFlags(judged),
    open: openItems(judged),
    unexamined: unexaminedCore(judged),
    likely: conditionRanges(judged),
    telling: tellingTests(judged),
    nerve: nerveLevels(judged),
  }
}

/** When the first of some flags was proven: the time of the last finding that its proof needed. Of one that is held, as it was until then. */
function firstProven({ record, examination }: Judgement, flags: readonly FlagVerdict[]): string | undefined {
  const times = flags.flatMap(({ proof, retained }) => {
    const stood = retained ? recordOf(examination.entries).without(({ at }) => Date.parse(at) >= Date.parse(retained.from)) : record
    const found = (proof ? findingsOf(proof) : []).flatMap((finding) => stood.finding(finding.item, finding.side)?.at ?? [])
    return found.sort().at(-1) ?? []
  })
  return times.sort()[0]
}
