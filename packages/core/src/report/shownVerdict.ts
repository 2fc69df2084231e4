import type { Tier } from '../content/types.js'
import type { Verdict } from '../judge/judge.js'

/** What of a verdict is compared when it is signed: the range, and the flags as one line each. */
export interface ShownVerdict {
  readonly floor: Tier
  readonly ceiling: Tier
  /** Id, side and tier of each met flag, sorted. */
  readonly flags: readonly string[]
}

/** @example shownVerdict(judge(pack, calmKnee)).flags // ['any.flag.here|right|here'] */
export const shownVerdict = ({ floor, ceiling, flags }: Verdict): ShownVerdict => ({
  floor,
  ceiling,
  flags: flags.map((flag) => `${flag.id}|${flag.side}|${flag.tier ?? ''}`).sort(),
})
