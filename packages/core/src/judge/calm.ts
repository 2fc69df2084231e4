import { NORMAL } from '../model/item.js'
import { SIDE_INDEX, type SideIndex } from '../model/side.js'
import { tierRank } from '../model/tier.js'
import { slotOf, type Compiled } from '../rules/runtime.js'
import { UNKNOWN, YES } from '../rules/truth.js'
import type { CompiledPack } from './compiledPack.js'
import { isContradictory } from './contradictions.js'
import type { JudgeContext } from './judgeContext.js'
import type { FlagVerdict } from './verdict.js'

/** The flag that says that no criterion for a referral was found. */
export const isCalm = ({ concept }: Pick<FlagVerdict, 'concept'>): boolean => concept === 'review-here'

/**
 * Without "no referral criterion" while findings contradict each other, or while something found in the examination leaves a suspicion
 * of Now or Today open: half of what meets it is there.
 * @param open what is not settled and holds the ceiling up
 */
export function withoutFalseCalm(
  flags: readonly FlagVerdict[],
  open: readonly FlagVerdict[],
  { compiled, context, sides }: { readonly compiled: CompiledPack; readonly context: JudgeContext; readonly sides: readonly SideIndex[] },
): FlagVerdict[] {
  if (!flags.some(isCalm)) return [...flags]
  const isStirred = isContradictory(compiled, context, sides) || open.some((flag) => standsOnFinding(flag, compiled, context))
  return isStirred ? flags.filter((flag) => !isCalm(flag)) : [...flags]
}

const standsOnFinding = ({ id, side }: FlagVerdict, compiled: CompiledPack, context: JudgeContext): boolean =>
  compiled
    .compiledFlag(id)
    .clauses.some(
      ({ tier, rule }) =>
        tierRank(tier) <= tierRank('today') && rule.run(context, SIDE_INDEX[side]) === UNKNOWN && isHalfMet(rule, SIDE_INDEX[side], compiled, context),
    )

/** Whether part of an open rule is proven by something abnormal that was found in the examination, not by a fact of the story or the card. */
function isHalfMet(rule: Compiled, side: SideIndex, compiled: CompiledPack, context: JudgeContext): boolean {
  if (rule.node.op === 'not' || rule.node.op === 'proven') return false
  if (rule.kids.length > 0) return rule.kids.some((kid) => isHalfMet(kid, side, compiled, context))
  if (rule.run(context, side) !== YES) return false
  if (rule.node.op === 'leaf' && rule.node.leaf.type === 'calc') {
    const { when } = compiled.compiledCalc(rule.node.leaf.calc)
    return when !== undefined && isHalfMet(when, side, compiled, context)
  }
  return rule.reads(side).some(({ item, side: at }) => isFound(item, at, compiled, context))
}

function isFound(index: number, side: SideIndex, compiled: CompiledPack, context: JudgeContext): boolean {
  const item = compiled.item(index)
  const reading = context.slots[slotOf(index, side)]
  if (!reading?.examined || item.stage === 'patient' || item.stage === 'story') return false
  const { value } = reading
  if (value === undefined) return Object.keys(reading.qualifiers).length > 0
  const isQuiet = (word: unknown): boolean => word === NORMAL || item.calm.includes(String(word)) || item.gaps.includes(String(word))
  return Array.isArray(value) ? !value.every(isQuiet) : !isQuiet(value)
}
