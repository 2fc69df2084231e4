import { oncePer } from '../model/oncePer.js'
import type { Tier } from '../model/tier.js'
import { itemsOfRule } from '../rules/calc.js'
import type { Condition, Evidence, Presentation } from '../pack/pack.js'
import type { Judgement } from '../judge/judgement.js'
import { compileRule } from '../rules/compileRule.js'
import type { CompiledPack } from '../judge/compiledPack.js'
import { SIDES, type SideIndex } from '../model/side.js'
import { slotOf, type Compiled, type Slot } from '../rules/runtime.js'
import { NO, YES } from '../rules/truth.js'
import { afterTest, combineDependent, combineIndependent } from './likelihood.js'
import type { Estimate } from './sampleChance.js'

/** A condition and how likely it is, as a range. An estimate: it never decides the priority. */
export interface ConditionRange {
  readonly id: string
  readonly name: string
  readonly side: string
  /** Share, 0 to 1. */
  readonly low: number
  readonly high: number
  readonly evidence: readonly { readonly text: string; readonly truth: 'met' | 'not-met'; readonly source: string; readonly certainty: string }[]
  /** What the range was worked out from: plain data, to be sampled elsewhere. */
  readonly estimate: Estimate
  /** Why it starts from another share than the setting's, and by which source. */
  readonly presentation?: Pick<Presentation, 'because' | 'source'>
  /** Tier of its flag on this side, where its criteria are met: they need not wait for a figure. */
  readonly met?: Tier
}

export interface CompiledCondition {
  readonly condition: Condition
  readonly gate: Compiled | undefined
  readonly presentations: readonly { readonly presentation: Presentation; readonly rule: Compiled }[]
  readonly evidence: readonly { readonly evidence: Evidence; readonly rule: Compiled; readonly items: ReadonlySet<string> }[]
}

/**
 * Conditions with at least one finding for or against them, most likely first. A published cluster counts whole, without the findings it
 * is made of; other tests of one structure count as dependent, structures multiply, and both ends of the starting band are carried through.
 */
export function conditionRanges(judged: Judgement): readonly ConditionRange[] {
  const { setting = 'primary-care' } = judged.examination
  const { compiled, sides } = judged
  return sides
    .flatMap((side) => compiledConditions(compiled).flatMap((one) => rangeOf(one, judged, side, setting)))
    .sort((a, b) => b.low + b.high - (a.low + a.high))
}

function rangeOf(one: CompiledCondition, judged: Judgement, side: SideIndex, setting: Setting): ConditionRange[] {
  const known = weighed(one, judged, side, setting)
  if (!known) return []
  const { condition, counted, estimate, presentation } = known
  const [priorLow, priorHigh] = estimate.prior
  const met = judged.verdict.flags.find((flag) => flag.id === condition.flag && (flag.side === SIDES[side] || flag.side === 'none'))?.tier
  return [
    {
      id: condition.id,
      name: condition.name,
      side: SIDES[side],
      ...(presentation ? { presentation: { because: presentation.because, source: presentation.source } } : {}),
      ...(met === undefined ? {} : { met }),
      low: afterTest(priorLow, ratioAt(counted, 0)),
      high: afterTest(priorHigh, ratioAt(counted, 1)),
      estimate,
      evidence: counted.map(({ about, truth, rule }) => ({ text: textOf(rule), truth, source: about.source, certainty: about.certainty })),
    },
  ]
}

export type Setting = 'primary-care' | 'emergency'

export interface Weighed {
  readonly condition: Condition
  readonly counted: Counted
  /** The structures of the estimate, by name and in its order. */
  readonly structures: readonly string[]
  readonly estimate: Estimate
  /** What it starts from, where the presentation tells more than the setting. */
  readonly presentation: Presentation | undefined
}

/** What was found for and against a condition on one side; undefined when nothing speaks for it, or its gate is closed. */
export function weighed(
  { condition, gate, presentations, evidence }: CompiledCondition,
  { context }: Judgement,
  side: SideIndex,
  setting: Setting,
): Weighed | undefined {
  if (gate?.run(context, side) === NO) return undefined
  const told = evidence.flatMap(({ evidence: about, rule, items }) => {
    const truth = rule.run(context, side)
    const ratio = truth === YES ? about.lrPositive : truth === NO && isSeen(rule, context, side) ? about.lrNegative : undefined
    return ratio ? [{ about, ratio, truth: truth === YES ? ('met' as const) : ('not-met' as const), rule, items }] : []
  })
  const counted = withoutMembers(told)
  if (!counted.some((one) => one.truth === 'met')) return undefined
  const groups = structuresOf(counted)
  const presentation = presentations.find(({ rule }) => rule.run(context, side) === YES)?.presentation
  const prior = presentation?.prior ?? condition.prior[setting]
  const estimate: Estimate = { prior, structures: [...groups.values()].map((ratios) => ratios.map(sorted)) }
  return { condition, counted, structures: [...groups.keys()], estimate, presentation }
}

/** Least share at which a condition is shown as part of the differential diagnosis: its upper end. */
const LEAST_SHOWN = 0.05

/**
 * What is shown of the differential diagnosis: what could still be one in twenty, and what meets its own criteria; those first.
 * @example likelyOf(judgement(pack, lachmanSoft8)).at(0) // { name: 'ACL rupture', met: 'weeks', low: 0.41, high: 0.93, … }
 */
export function likelyOf(judged: Judgement): readonly ConditionRange[] {
  const shown = conditionRanges(judged).filter(({ high, met }) => met !== undefined || high >= LEAST_SHOWN)
  return [...shown.filter(({ met }) => met !== undefined), ...shown.filter(({ met }) => met === undefined)]
}

/** Every finding that a rule reads, down to its last part. */
export const readsOf = (rule: Compiled, side: SideIndex): readonly Slot[] => [...rule.reads(side), ...rule.kids.flatMap((kid) => readsOf(kid, side))]

/** A finding that nobody took says nothing against a condition, even where a rule reads it as not indicated. */
const isSeen = (rule: Compiled, { slots }: Judgement['context'], side: SideIndex): boolean =>
  readsOf(rule, side).every((slot) => slots[slotOf(slot.item, slot.side)]?.examined === true)

/** Of clusters that share a finding the one that says most stands; what a finding of it says by itself is in it already. */
function withoutMembers(told: Counted): Counted {
  const says = ({ ratio: [low, high] }: Counted[number]): number => Math.abs(Math.log(low * high))
  const wholes: Counted[number][] = []
  for (const one of told.filter(({ about }) => about.whole).sort((a, b) => says(b) - says(a)))
    if (!wholes.some((kept) => [...one.items].some((item) => kept.items.has(item)))) wholes.push(one)
  return told.filter((one) => (one.about.whole ? wholes.includes(one) : !wholes.some((whole) => [...one.items].every((item) => whole.items.has(item)))))
}

type Counted = readonly {
  readonly about: Evidence
  readonly ratio: readonly [number, number]
  readonly truth: 'met' | 'not-met'
  readonly rule: Compiled
  readonly items: ReadonlySet<string>
}[]

/** Ratios of the findings of each structure: these are dependent on each other. */
function structuresOf(counted: Counted): ReadonlyMap<string, readonly (readonly [number, number])[]> {
  const groups = new Map<string, (readonly [number, number])[]>()
  for (const { about, ratio } of counted) groups.set(about.structure, [...(groups.get(about.structure) ?? []), ratio])
  return groups
}

const sorted = ([a, b]: readonly [number, number]): readonly [number, number] => [Math.min(a, b), Math.max(a, b)]

const ratioAt = (counted: Counted, end: 0 | 1): number =>
  combineIndependent([...structuresOf(counted).values()].map((ratios) => combineDependent(ratios.map((ratio) => ratio[end]))))

const textOf = (rule: Compiled): string =>
  rule.node.op === 'leaf' ? rule.node.leaf.text : rule.kids.map(textOf).join(rule.node.op === 'any' ? ' or ' : ' and ')

export const compiledConditions = oncePer((compiled: CompiledPack): readonly CompiledCondition[] => {
  const calcs = new Map(compiled.pack.calcs.map((calc) => [calc.id, calc]))
  return compiled.pack.conditions.map((condition) => ({
    condition,
    gate: condition.gate && compileRule(condition.gate, compiled),
    presentations: condition.presentations.map((presentation) => ({ presentation, rule: compileRule(presentation.when, compiled) })),
    evidence: condition.evidence.map((evidence) => ({
      evidence,
      rule: compileRule(evidence.when, compiled),
      items: new Set(itemsOfRule(evidence.when, calcs)),
    })),
  }))
})
