import type { Tier } from '../content/types.js'
import type { Judgement } from '../judge/judge.js'
import { priorityOf } from '../judge/priorityOf.js'

/** What of a verdict is compared when it is signed: the range, the priority that counts, and the flags as one line each. */
export interface ShownVerdict {
  readonly floor: Tier
  readonly ceiling: Tier
  /** The floor, or what a clinician set in its place. */
  readonly priority: Tier
  /** Id, side and tier of each met flag, sorted. */
  readonly flags: readonly string[]
}

/** @example shownVerdict(judgement(pack, calmKnee)).flags // ['any.flag.here|right|here'] */
export const shownVerdict = (judged: Judgement): ShownVerdict => ({
  floor: judged.verdict.floor,
  ceiling: judged.verdict.ceiling,
  priority: priorityOf(judged).tier,
  flags: judged.verdict.flags.map((flag) => `${flag.id}|${flag.side}|${flag.tier ?? ''}`).sort(),
})
