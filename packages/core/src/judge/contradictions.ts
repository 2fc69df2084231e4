import { SIDES, type Side, type SideIndex } from '../model/side.js'
import { findingsOf, proofOf } from '../rules/proof.js'
import { YES } from '../rules/truth.js'
import type { CompiledPack } from './compiledPack.js'
import type { JudgeContext } from './judgeContext.js'
import type { Judgement } from './judgement.js'

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
export const contradictionsOf = ({ compiled, context, sides }: Pick<Judgement, 'compiled' | 'context' | 'sides'>): readonly Contradiction[] =>
  compiled.contradictions.flatMap(({ id, says, rule }) => {
    const found = sides.filter((side) => rule.run(context, side) === YES)
    const told = found.map((side) => ({ side, findings: findingsOf(proofOf(rule, context, side, compiled)) }))
    return told.flatMap(({ side, findings }, at) => {
      const isSided = findings.some((finding) => finding.side !== 'none')
      const items = [...new Set(findings.map((finding) => finding.item))]
      return isSided || at === 0 ? [{ id, says, side: isSided ? SIDES[side] : 'none', items }] : []
    })
  })

export const isContradictory = (compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): boolean =>
  compiled.contradictions.some(({ rule }) => sides.some((side) => rule.run(context, side) === YES))
