import type { Side } from '../model/side.js'
import type { DaySpan, Rival } from '../pack/pack.js'
import type { Judgement } from './judgement.js'
import { metBy } from './metBy.js'

/** What several findings together mean, as an examiner would say it. */
export interface Conclusion {
  readonly id: string
  readonly says: string
  readonly side: Side
  /** Items whose findings it stands on. */
  readonly items: readonly string[]
  /** What else would explain them, each with the finding that separates the two best. */
  readonly rivals: readonly Rival[]
  readonly source: string
  /** When it is looked at again, where it does not count yet. */
  readonly again?: DaySpan
}

/**
 * What the findings of this record mean together; only what is proven by them.
 * @example conclusionsOf(judgement(pack, stiffShoulder))[0]?.says // 'Glenohumeral stiffness: passive external rotation and elevation lost'
 */
export const conclusionsOf = (judged: Pick<Judgement, 'compiled' | 'context' | 'sides'>): readonly Conclusion[] =>
  judged.compiled.sayings.conclusions.flatMap(({ id, source, says, rivals, again, rule }) =>
    metBy(rule, judged).map(({ side, items }) => ({ id, says, side, items, rivals, source, ...(again === undefined ? {} : { again }) })),
  )
