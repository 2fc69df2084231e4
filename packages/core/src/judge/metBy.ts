import { SIDES, type Side } from '../model/side.js'
import { findingsOf, proofOf } from '../rules/proof.js'
import type { Compiled } from '../rules/runtime.js'
import { YES } from '../rules/truth.js'
import type { Judgement } from './judgement.js'

/** Whether a rule is met on any side that is judged. */
export const isMet = (rule: Compiled, { context, sides }: Pick<Judgement, 'context' | 'sides'>): boolean =>
  sides.some((side) => rule.run(context, side) === YES)

/** On which sides a rule is met, with the items that meet it; once, without a side, where nothing that meets it has one. */
export function metBy(
  rule: Compiled,
  { compiled, context, sides }: Pick<Judgement, 'compiled' | 'context' | 'sides'>,
): { side: Side; items: readonly string[] }[] {
  const found = sides.filter((side) => rule.run(context, side) === YES)
  const told = found.map((side) => ({ side, findings: findingsOf(proofOf(rule, context, side, compiled)) }))
  return told.flatMap(({ side, findings }, at) => {
    const isSided = findings.some((finding) => finding.side !== 'none')
    return isSided || at === 0 ? [{ side: isSided ? SIDES[side] : 'none', items: [...new Set(findings.map((finding) => finding.item))] }] : []
  })
}
