import type { Tier } from '../model/tier.js'
import type { Judgement } from '../judge/judgement.js'
import { priorityOf } from '../judge/priorityOf.js'
import { recordHash } from '../record/recordHash.js'

/** What is compared when an examination is signed: the record as it was shown, and the verdict on it, the flags as one line each. */
export interface ShownVerdict {
  /** Seal of the record that was shown: see `recordHash`. */
  readonly record: string
  readonly floor: Tier
  readonly ceiling: Tier
  /** The floor, or what a clinician set in its place. */
  readonly priority: Tier
  /** Id, side and tier of each met flag, sorted. */
  readonly flags: readonly string[]
}

/** @example shownVerdict(judgement(pack, calmKnee)).flags // ['any.flag.here|right|here'] */
export const shownVerdict = (judged: Judgement): ShownVerdict => ({
  record: recordHash(judged.examination, judged.pack.hash),
  floor: judged.verdict.floor,
  ceiling: judged.verdict.ceiling,
  priority: priorityOf(judged).tier,
  flags: judged.verdict.flags.map((flag) => `${flag.id}|${flag.side}|${flag.tier ?? ''}`).sort(),
})
