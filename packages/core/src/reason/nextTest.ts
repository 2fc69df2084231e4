import { activeHolds } from '../judge/holds.js'
import type { Judgement } from '../judge/judgement.js'
import { SIDES, type SideIndex } from '../model/side.js'
import { slotOf, type Slot } from '../rules/runtime.js'
import { slotKey } from '../record/record.js'
import { readsOf, compiledConditions, weighed, type CompiledCondition, type Setting } from './conditions.js'
import { afterTest, combineDependent, combineIndependent } from './likelihood.js'
import type { Estimate } from './sampleChance.js'
import { aroundTest, costsOf, benefitAround, type AroundTest } from './tierValue.js'

/** A test that nobody did yet and that would tell most about the conditions in question. */
export interface TellingTest {
  readonly item: string
  readonly label: string
  readonly side: string
  /** Expected information over the conditions that it moves. */
  readonly bits: number
  /** What it is worth for how soon each of these conditions has to be seen, less what it asks of the patient; it orders tests, no tier comes of it. */
  readonly benefit: number
  readonly conditions: readonly string[]
}

const MOST_TOLD = 3
/** Below this a test does not earn the patient's time. */
const LEAST_BITS = 0.01

/** @param p share, 0 to 1 @returns bits @example entropy(0.3) // 0.881 */
export const entropy = (p: number): number => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p))

/**
 * How much a test is expected to tell about a condition.
 * @param p chance before, 0 to 1
 * @param sens @param spec shares, 0 to 1
 * @returns bits, never below 0 for a test that can be right
 * @example expectedInformation(0.3, 0.85, 0.94) // 0.465
 */
export const expectedInformation = (p: number, sens: number, spec: number): number => told(aroundTest(p, sens, spec))

const told = ({ before, positive, afterPositive, afterNegative }: AroundTest): number =>
  entropy(before) - positive * entropy(afterPositive) - (1 - positive) * entropy(afterNegative)

/**
 * Tests that would tell most about the conditions with a finding for them, not done yet and not on hold; for equal priority it is these that
 * are worth the time. First what may change how soon the patient is seen, then what tells most. A test of a structure that was tested already tells less, as its finding would count less.
 */
export function tellingTests(judged: Judgement): readonly TellingTest[] {
  const { setting = 'primary-care' } = judged.examination
  const { compiled, sides } = judged
  const costs = costsOf(judged.pack)
  const stopped = new Set(activeHolds(judged).flatMap((hold) => hold.stops))
  const found = new Map<string, TellingTest>()
  for (const { slot, bits, value, condition } of sides.flatMap((side) => compiledConditions(compiled).flatMap((one) => askedOf(one, judged, side, setting)))) {
    const { id, label, stage, derive, burden } = compiled.item(slot.item)
    if (stage === 'result' || derive || stopped.has(id)) continue
    const side = SIDES[slot.side]
    const before = found.get(slotKey(id, side)) ?? { item: id, label, side, bits: 0, benefit: -costs.burden * burden, conditions: [] }
    found.set(slotKey(id, side), {
      ...before,
      bits: before.bits + bits,
      benefit: before.benefit + value,
      conditions: [...new Set([...before.conditions, condition])],
    })
  }
  return [...found.values()]
    .filter((one) => one.bits >= LEAST_BITS)
    .sort((a, b) => b.benefit - a.benefit || b.bits - a.bits || (a.item < b.item ? -1 : 1))
    .slice(0, MOST_TOLD)
}

interface Asked {
  readonly slot: Slot
  readonly bits: number
  readonly value: number
  readonly condition: string
}

/** What each finding still missing would tell about one condition on one side; evidence that needs several items at once is no single test. */
function askedOf(one: CompiledCondition, judged: Judgement, side: SideIndex, setting: Setting): Asked[] {
  const known = weighed(one, judged, side, setting)
  if (!known) return []
  const { estimate, structures, condition, counted } = known
  const before = middleChance(estimate)
  return one.evidence.flatMap(({ evidence, rule }) => {
    const missing = readsOf(rule, side).filter((slot) => judged.context.slots[slotOf(slot.item, slot.side)] === undefined)
    const [slot] = missing
    const { lrPositive, lrNegative, structure } = evidence
    if (!slot || !lrPositive || !lrNegative || missing.some((other) => other.item !== slot.item) || counted.some(({ about }) => about === evidence)) return []
    const [plus, minus] = [middleOf(lrPositive), middleOf(lrNegative)]
    if (plus <= 1 || minus >= 1) return []
    const spec = (plus - 1) / (plus - minus)
    const sens = (plus * (1 - minus)) / (plus - minus)
    const after = (ratio: number): number => middleChance(withFinding(estimate, structures.indexOf(structure), ratio))
    const around = { ...aroundTest(before, sens, spec), afterPositive: after(plus), afterNegative: after(minus) }
    const { value } = benefitAround(around, condition.defaultTier, 'here', judged.compiled.item(slot.item).burden, costsOf(judged.pack))
    return [{ slot, bits: Math.max(0, told(around)), value, condition: condition.name }]
  })
}

function withFinding({ prior, structures }: Estimate, structure: number, ratio: number): Estimate {
  const added = [ratio, ratio] as const
  return {
    prior,
    structures: structure < 0 ? [...structures, [added]] : structures.map((ratios, at) => (at === structure ? [...ratios, added] : ratios)),
  }
}

/** The chance with every band at its middle. */
function middleChance({ prior: [low, high], structures }: Estimate): number {
  const odds = Math.sqrt((low / (1 - low)) * (high / (1 - high)))
  return afterTest(odds / (1 + odds), combineIndependent(structures.map((ratios) => combineDependent(ratios.map(middleOf)))))
}

const middleOf = ([low, high]: readonly [number, number]): number => Math.sqrt(low * high)
