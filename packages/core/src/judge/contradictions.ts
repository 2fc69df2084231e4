import type { Side, SideIndex } from '../model/side.js'
import type { CompiledPack } from './compiledPack.js'
import type { JudgeContext } from './judgeContext.js'
import type { Judgement } from './judgement.js'
import { isMet, metBy } from './metBy.js'

/** Findings that cannot both be so: an effusion said to be absent, and a positive patellar tap. */
export interface Contradiction {
  readonly id: string
  /** What contradicts what, in words. */
  readonly says: string
  readonly side: Side
  /** Items whose findings do not agree, to look at again. */
  readonly items: readonly string[]
}

/**
 * What in this record contradicts itself. Until it is resolved the more urgent reading stands, and nothing is called free of criteria.
 * @example contradictionsOf(judgement(pack, noEffusionTapPositive)) // [{ id: 'knee.contradiction.effusion', side: 'right', … }]
 */
export const contradictionsOf = (judged: Pick<Judgement, 'compiled' | 'context' | 'sides'>): readonly Contradiction[] =>
  judged.compiled.sayings.contradictions.flatMap(({ id, says, rule }) => metBy(rule, judged).map((met) => ({ id, says, ...met })))

export const isContradictory = (compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): boolean =>
  compiled.sayings.contradictions.some(({ rule }) => isMet(rule, { context, sides }))
