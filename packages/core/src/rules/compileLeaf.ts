import { NORMAL, type Item } from '../model/item.js'
import { type Comparator, type Leaf, type RuleNode } from './rule.js'
import { compareValue, type Target } from './compare.js'
import type { RuleSet } from './ruleSet.js'
import type { CompiledCalc } from './compiledCalc.js'
import { isWithin, sideOf, slotOf, type Compiled, type Context, type Reading, type Slot } from './runtime.js'
import { otherSide, type SideIndex } from '../model/side.js'
import { spanValue, termReader } from './term.js'
import { NO, UNKNOWN, YES, type T } from './truth.js'

type LeafNode = Extract<RuleNode, { op: 'leaf' }>
type Of<K extends Leaf['type']> = Extract<Leaf, { type: K }>
type StateLeaf = Extract<Leaf, { type: 'unseen' | 'not-valid' }> | Of<'could-not'>
type Run = Compiled['run']

/** Turns a leaf into a function. Each kind of leaf is one function below. */
export function compileLeaf(node: LeafNode, rules: RuleSet): Compiled {
  const { leaf } = node
  const done = (run: Run, reads: Compiled['reads'] = () => []): Compiled => ({ node, kids: [], run, reads })
  switch (leaf.type) {
    case 'always':
      return done(() => YES)
    case 'compare':
      return done(overSides(leaf.over, compareLeaf(leaf, rules)), (side) => comparedSlots(leaf, rules, side))
    case 'calc':
      return done(overSides(leaf.over, calcLeaf(leaf, rules)))
    case 'weak':
      return done(weakLeaf(leaf, rules), (side) => bothSlots(rules, leaf.item, side))
    case 'differs':
      return done(differsLeaf(leaf, rules), (side) => bothSlots(rules, leaf.item, side))
    case 'rechecked':
      return done(recheckedLeaf(leaf, rules), (side) => [ownSlot(rules, leaf.item, side)])
    case 'unseen':
    case 'not-valid':
    case 'could-not':
      return done(stateLeaf(leaf, rules), (side) => [ownSlot(rules, leaf.item, side)])
    case 'all-examined':
      return done(allExaminedLeaf(leaf, rules))
    case 'flag':
      return done((context, side) => rules.flagTruth(leaf.ref, context, side))
    case 'hold':
      return done((context, side) => rules.holdTruth(leaf.ref, context, side))
    case 'in-play':
      return done((context, side) => rules.inPlayTruth(leaf.ref, context, side))
    case 'any-flag':
      return done((context, side) => rules.moreUrgentFlag(leaf.self, context, side))
  }
}

const overSides = (over: 'this' | 'either' | 'both', run: Run): Run => {
  if (over === 'this') return run
  return (context, side) => {
    const here = run(context, side)
    const there = run(context, otherSide(side))
    return over === 'either' ? (Math.max(here, there) as T) : (Math.min(here, there) as T)
  }
}

function compareLeaf(leaf: Of<'compare'>, rules: RuleSet): Run {
  const index = rules.index(leaf.term.item)
  const item = rules.item(index)
  const read = termReader(leaf.term, rules)
  const target = targetOf(leaf, item)
  const whenNormal = normalTruth(leaf, item, target)
  const byWord = truthByWord(leaf, item, target)
  const namesGap = leaf.term.qualifier === undefined && leaf.term.fn === 'value' && leaf.operand.some((word) => item.gaps.includes(word))
  return (context, side) => {
    if (namesGap) {
      const reading = context.slots[slotOf(index, sideOf(item, side))]
      if (reading?.isGap && reading.value !== undefined) return compareValue(reading.value as string | readonly string[], leaf.cmp, target)
    }
    if (byWord) {
      const reading = context.slots[slotOf(index, item.sided ? side : 2)]
      const truth = reading?.examined ? byWord.get(reading.value) : undefined
      return truth ?? missing(context, side, item, index, whenNormal)
    }
    const worth = read(context, side)
    if (worth !== null) return compareValue(worth, leaf.cmp, target)
    return missing(context, side, item, index, whenNormal)
  }
}

/** For an item of one word the truth of every word, worked out once; undefined where more than its own word is compared. */
function truthByWord({ term, cmp }: Of<'compare'>, item: Item, target: Target): ReadonlyMap<Reading['value'], T> | undefined {
  if (term.fn !== 'value' || term.qualifier !== undefined || item.options.length === 0 || item.kind === 'multi' || item.derive) return undefined
  return new Map(item.options.map((word, rank) => [word, compareValue(item.ordered ? rank : word, cmp, target)]))
}

/** How an unread finding reads: abnormal while deciding what is in play if pain stopped it, else unknown, or not indicated. */
function missing(context: Context, side: SideIndex, item: Item, index: number, whenNormal: T): T {
  const reading = context.slots[slotOf(index, sideOf(item, side))]
  if (reading === undefined) return context.indicated && context.indicated[index] === 0 ? NO : UNKNOWN
  if (context.deciding && stoppedByPain(reading)) return whenNormal === YES ? NO : YES
  return UNKNOWN
}

const stoppedByPain = (reading: Reading): boolean => reading.reason === 'pain' || reading.reason === 'guarding' || reading.reason === 'not safe'

/** Whether the item's normal finding would satisfy the leaf. A difference between sides is then nought. */
function normalTruth(leaf: Of<'compare'>, item: Item, target: Target): T {
  if (leaf.term.fn !== 'value' && leaf.term.fn !== 'other') return compareValue(0, leaf.cmp, target)
  const normal = item.normal
  const { qualifier } = leaf.term
  const isReading = qualifier === undefined || item.readings.includes(qualifier)
  const value = isReading && normal?.value === NORMAL ? NORMAL : qualifier === undefined ? normal?.value : normal?.qualifiers?.[qualifier]
  if (value === NORMAL && item.normalSpan) return compareValue(spanValue(item.normalSpan), leaf.cmp, target)
  if (value === undefined || typeof value === 'boolean') return NO
  return compareValue(typeof value === 'string' && item.ordered && leaf.term.qualifier === undefined ? item.options.indexOf(value) : value, leaf.cmp, target)
}

/** The right-hand side of a comparison, in the numbers that the left-hand side will come in. */
function targetOf(leaf: Of<'compare'>, item: Item): Target {
  const { term, operand, cmp } = leaf
  if (cmp === 'is') return { kind: 'bare' }
  const plain = term.qualifier === undefined && (term.fn === 'value' || term.fn === 'other' || term.fn === 'worst')
  if (item.ordered && plain) return { kind: 'numbers', numbers: operand.map((word) => item.options.indexOf(word)) }
  if (operand.every((word) => word !== '' && !Number.isNaN(Number(word)))) return { kind: 'numbers', numbers: operand.map(Number), words: operand }
  return { kind: 'words', words: operand, ...(item.empty === undefined ? {} : { empty: item.empty }) }
}

function comparedSlots(leaf: Of<'compare'>, rules: RuleSet, side: SideIndex): Slot[] {
  const { term } = leaf
  const ids = [term.item, ...(term.more ?? [])]
  const one = (at: SideIndex): Slot[] => ids.map((id) => ownSlot(rules, id, at))
  const sides = term.fn === 'diff' || term.fn === 'deficit' ? [side, otherSide(side)] : term.fn === 'other' ? [otherSide(side)] : [side]
  const over = leaf.over === 'this' ? sides : [side, otherSide(side)]
  const slots = over.flatMap(one)
  return slots.filter((slot, at) => slots.findIndex((s) => s.item === slot.item && s.side === slot.side) === at)
}

const ownSlot = (rules: RuleSet, id: string, side: SideIndex): Slot => {
  const item = rules.index(id)
  return { item, side: sideOf(rules.item(item), side) }
}

const bothSlots = (rules: RuleSet, id: string, side: SideIndex): Slot[] =>
  rules.item(rules.index(id)).sided ? [ownSlot(rules, id, side), ownSlot(rules, id, otherSide(side))] : [ownSlot(rules, id, side)]

function calcLeaf(leaf: Of<'calc'>, rules: RuleSet): Run {
  const target: Target = { kind: 'numbers', numbers: leaf.operand.map(Number) }
  const runs = (calc: CompiledCalc): Run => {
    switch (calc.calc.kind) {
      case 'truth':
        return (context, side) => calc.truth(context, side)
      case 'score':
        return (context, side) => {
          const { low, high } = calc.range(context, side)
          return compareValue(low === high ? low : { low, high }, leaf.cmp, target)
        }
      case 'ladder':
        return ladderLeaf(calc, leaf)
    }
  }
  // A calculated value may read one that is compiled after it: it is looked up when it first runs.
  let run: Run | undefined
  return (context, side) => (run ??= runs(rules.compiledCalc(leaf.calc)))(context, side)
}

/** Met when every rung the ladder may still stop at fits, not met when none does (running off the end is no rung). */
function ladderLeaf(calc: CompiledCalc, leaf: Of<'calc'>): Run {
  const fitting = new Set(calc.ladder.filter(({ value }) => rungFits(value, leaf.cmp, leaf.operand)).map(({ value }) => value))
  return (context, side) => {
    const { possible, mayFall } = calc.rungs(context, side)
    let fits = 0
    for (const value of possible) if (fitting.has(value)) fits++
    if (!mayFall && fits === possible.length && fits > 0) return YES
    return fits === 0 && (!mayFall || leaf.cmp !== '!=') ? NO : UNKNOWN
  }
}

/** Whether a ladder that stopped at this rung would satisfy the comparison. */
export function rungFits(value: string, cmp: Comparator, operand: readonly string[]): boolean {
  const [first = ''] = operand
  switch (cmp) {
    case '=':
      return value === first
    case '!=':
      return value !== first
    case 'in':
      return operand.includes(value)
    case '>=':
      return Number(value) >= Number(first)
    case '>':
      return Number(value) > Number(first)
    case '<=':
      return Number(value) <= Number(first)
    case '<':
      return Number(value) < Number(first)
    default:
      return false
  }
}

/** Power valid and 4 or less, or 4+ where the other side is 5. 4+ with the other side unseen is not known. */
function weakLeaf(leaf: Of<'weak'>, rules: RuleSet): Run {
  const index = rules.index(leaf.item)
  const item = rules.item(index)
  const at = (word: string): number => item.options.indexOf(word)
  return (context, side) => {
    const here = context.slots[slotOf(index, sideOf(item, side))]
    if (!here?.examined || typeof here.value !== 'string') return missing(context, side, item, index, NO)
    if (at(here.value) <= at('4')) return YES
    if (here.value !== '4+') return NO
    const there = context.slots[slotOf(index, sideOf(item, otherSide(side)))]
    if (!there?.examined || typeof there.value !== 'string') return UNKNOWN
    return there.value === '5' ? YES : NO
  }
}

function differsLeaf(leaf: Of<'differs'>, rules: RuleSet): Run {
  const index = rules.index(leaf.item)
  const item = rules.item(index)
  return (context, side) => {
    const here = context.slots[slotOf(index, sideOf(item, side))]
    const there = context.slots[slotOf(index, sideOf(item, otherSide(side)))]
    if (!here?.examined || !there?.examined) return missing(context, side, item, index, NO)
    return String(here.value) === String(there.value) ? NO : YES
  }
}

function stateLeaf(leaf: StateLeaf, rules: RuleSet): Run {
  const index = rules.index(leaf.item)
  const item = rules.item(index)
  return (context, side) => {
    const reading = context.slots[slotOf(index, sideOf(item, side))]
    if (leaf.type === 'unseen') return reading?.examined ? NO : YES
    if (leaf.type === 'not-valid') return reading?.notValid ? YES : NO
    if (reading?.reason === undefined) return NO
    const asked = 'reason' in leaf ? leaf.reason : undefined
    return asked === undefined || asked === reading.reason ? YES : NO
  }
}

/** Met when the finding was examined before as well: always met or not met. */
function recheckedLeaf(leaf: Of<'rechecked'>, rules: RuleSet): Run {
  const index = rules.index(leaf.item)
  const item = rules.item(index)
  return (context, side) => (isWithin(context.previous[slotOf(index, sideOf(item, side))], leaf.window) ? YES : NO)
}

function allExaminedLeaf(leaf: Of<'all-examined'>, rules: RuleSet): Run {
  const slots = leaf.items.map((id) => ({ index: rules.index(id), item: rules.item(rules.index(id)) }))
  return (context, side) => (slots.every(({ index, item }) => context.slots[slotOf(index, sideOf(item, side))]?.examined === true) ? YES : NO)
}
