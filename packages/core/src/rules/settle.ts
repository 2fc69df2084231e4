import { belongs } from '../model/item.js'
import type { SideIndex } from '../model/side.js'
import { rungFits } from './compileLeaf.js'
import type { RuleSet } from './ruleSet.js'
import { slotOf, type Compiled, type Context, type Slot } from './runtime.js'
import { NO, UNKNOWN, YES } from './truth.js'

/** Findings to take, by slot number, that would settle a rule; null when no finding still missing can do it. */
export type SettlingSet = ReadonlySet<number> | null

type Goal = typeof YES | typeof NO
const NOTHING: ReadonlySet<number> = new Set()

/** What it costs to examine one slot: seconds of that side. Infinity when the item is on hold. */
export type Cost = (slot: number) => number

/**
 * The cheapest set of missing findings that would make a rule met (goal 2) or not met (goal 0), each finding turning out as the rule
 * needs it. For a rule that is already so the set is empty. A finding shared by branches is paid for once. Exact for a rule in which no
 * item stands twice; where one does, the set still settles the rule but may not be the cheapest.
 */
export function settlingSet(rule: Compiled, goal: Goal, context: Context, side: SideIndex, rules: RuleSet, cost: Cost): SettlingSet {
  return settle(rule, goal, { context, side, rules, cost, isThrough: false })
}

/**
 * What would end a hold that stands only because something is not known: as `settlingSet` for "not met", but looking behind "not proven" and
 * "unseen", which read what nobody knows as met.
 * @returns null when the hold stands on what was found
 */
export function wayOut(rule: Compiled, context: Context, side: SideIndex, rules: RuleSet, cost: Cost): SettlingSet {
  return settle(rule, NO, { context, side, rules, cost, isThrough: true })
}

interface About {
  readonly context: Context
  readonly side: SideIndex
  readonly rules: RuleSet
  readonly cost: Cost
  /** Whether to look behind what reads "not known" as decided. */
  readonly isThrough: boolean
}

function settle(rule: Compiled, goal: Goal, about: About): SettlingSet {
  const { context, side, cost, isThrough } = about
  const truth = rule.run(context, side)
  if (truth === goal) return NOTHING
  const { node } = rule
  if (truth !== UNKNOWN && !(isThrough && (node.op !== 'leaf' || node.leaf.type === 'unseen' || node.leaf.type === 'calc'))) return null
  const sets = (kids: readonly Compiled[], wanted: Goal): SettlingSet[] => kids.map((kid) => settle(kid, wanted, about))
  switch (node.op) {
    case 'leaf':
      return leafSet(rule, goal, about)
    case 'all':
      return goal === YES ? union(sets(rule.kids, YES)) : cheapest(sets(rule.kids, NO), cost)
    case 'any':
      return goal === YES ? cheapest(sets(rule.kids, YES), cost) : union(sets(rule.kids, NO))
    case 'not':
      return union(sets(rule.kids, goal === YES ? NO : YES))
    case 'proven':
      return goal === YES ? union(sets(rule.kids, YES)) : NOTHING
    case 'atLeast': {
      const needed = goal === YES ? node.n : rule.kids.length - node.n + 1
      return cheapestOf(needed, sets(rule.kids, goal), cost)
    }
  }
}

function leafSet(rule: Compiled, goal: Goal, about: About): SettlingSet {
  const { context, side, rules, cost } = about
  if (rule.node.op !== 'leaf') return null
  const { leaf } = rule.node
  if (leaf.type === 'calc') return calcSet(leaf.calc, rule, goal, about)
  if (leaf.type === 'flag') return settle(rules.compiledFlag(leaf.ref).any, goal, about)
  const missing = rule.reads(side).flatMap((slot) => obtain(slot, context, rules))
  if (missing.length === 0 || missing.some((slot) => cost(slot) === Infinity)) return null
  return new Set(missing)
}

/** A slot that was read needs nothing more; a derived one is obtained through what it is derived from. */
function obtain(slot: Slot, context: Context, rules: RuleSet): number[] {
  const at = slotOf(slot.item, slot.side)
  const reading = context.slots[at]
  const derived = context.derived.get(at)
  return reading?.examined === true && derived === undefined ? (isComplete(slot, context, rules) ? [] : [at]) : [at]
}

function isComplete(slot: Slot, context: Context, rules: RuleSet): boolean {
  const reading = context.slots[slotOf(slot.item, slot.side)]
  const item = rules.item(slot.item)
  const inRow = Object.entries(item.qualifiers)
    .filter(([, q]) => q.inRow && belongs(q, reading?.value))
    .map(([name]) => name)
  return inRow.every((name) => reading?.qualifiers[name] !== undefined)
}

function calcSet(id: string, rule: Compiled, goal: Goal, about: About): SettlingSet {
  const { context, side, rules, cost, isThrough } = about
  const ready = rules.compiledCalc(id)
  const inner = (compiled: Compiled, wanted: Goal): SettlingSet => settle(compiled, wanted, about)
  if (ready.when) return isThrough && ready.validWhen ? union([inner(ready.validWhen, YES), inner(ready.when, goal)]) : inner(ready.when, goal)
  if (ready.points.length > 0) {
    const open = ready.points.flat().filter((part) => part.rule.run(context, side) === UNKNOWN)
    return union(open.map((part) => inner(part.rule, NO) ?? inner(part.rule, YES)))
  }
  const { leaf } = rule.node.op === 'leaf' ? rule.node : { leaf: undefined }
  if (leaf?.type !== 'calc') return null
  const fits = (value: string): boolean => rungFits(value, leaf.cmp, leaf.operand)
  const stops = ready.ladder.flatMap((rung, at) =>
    fits(rung.value) === (goal === YES) ? [union([inner(rung.rule, YES), ...ready.ladder.slice(0, at).map((above) => inner(above.rule, NO))])] : [],
  )
  const none = goal === NO ? [union(ready.ladder.filter((rung) => fits(rung.value)).map((rung) => inner(rung.rule, NO)))] : []
  return cheapest([...stops, ...none], cost)
}

export const totalCost = (set: ReadonlySet<number>, cost: Cost): number => [...set].reduce((sum, slot) => sum + cost(slot), 0)

function union(sets: readonly SettlingSet[]): SettlingSet {
  const whole = new Set<number>()
  for (const set of sets) {
    if (set === null) return null
    for (const slot of set) whole.add(slot)
  }
  return whole
}

function cheapest(sets: readonly SettlingSet[], cost: Cost): SettlingSet {
  let best: SettlingSet = null
  let least = Infinity
  for (const set of sets) {
    if (set === null) continue
    const price = totalCost(set, cost)
    if (price < least) {
      best = set
      least = price
    }
  }
  return best
}

function cheapestOf(n: number, sets: readonly SettlingSet[], cost: Cost): SettlingSet {
  const usable = sets.filter((set): set is ReadonlySet<number> => set !== null).sort((a, b) => totalCost(a, cost) - totalCost(b, cost))
  return usable.length < n ? null : union(usable.slice(0, Math.max(0, n)))
}
