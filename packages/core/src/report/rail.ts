import type { Judgement } from '../judge/judgement.js'
import { endedFlags, type EarlierFlag } from '../judge/pastFlags.js'
import type { FlagVerdict } from '../judge/verdict.js'
import { tellingTests, type TellingTest } from '../reason/nextTest.js'
import { recordOf } from '../record/record.js'
import { findingsOf } from '../rules/proof.js'
import { doFirst, type DoFirst } from './doFirst.js'
import { standingOf, type Standing } from './standing.js'

/** What stands beside the sheet while somebody examines. */
export interface Rail extends Standing {
  /** What a flag of tier Now asks for at once, and when the first of them was proven. */
  readonly actNow?: DoFirst & { readonly firstSeen?: string }
  /** What was urgent before a finding was checked anew, and is not held. */
  readonly earlier: readonly EarlierFlag[]
  readonly telling: readonly TellingTest[]
}

/**
 * Everything that the rail shows of a judgement.
 * @param zone IANA time zone in which times are written
 * @example railOf(judgement(pack, nothingExamined)).ceiling // 'now'
 */
export function railOf(judged: Judgement, zone?: string): Rail {
  const now = judged.verdict.flags.filter((flag) => flag.tier === 'now')
  const firstSeen = firstProven(judged, now)
  return {
    ...standingOf(judged, zone),
    ...(now.length === 0 ? {} : { actNow: { ...doFirst(judged.pack, now), ...(firstSeen === undefined ? {} : { firstSeen }) } }),
    earlier: endedFlags(judged),
    telling: tellingTests(judged),
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
