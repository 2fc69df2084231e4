import { rungFits } from '../rules/compileLeaf.js'
import { CompiledPack } from '../judge/compiledPack.js'
import { slotOf, type Compiled, type Earlier, type Reading, type Slot } from '../rules/runtime.js'
import { NO, UNKNOWN, YES } from '../rules/truth.js'
import { isGapValue } from '../record/gaps.js'
import { itemsOfLeaf, leavesOf } from '../rules/leaves.js'
import { rulesOfCalc } from '../rules/calc.js'
import type { Item, Scalar } from '../model/item.js'
import type { Leaf } from '../rules/rule.js'
import type { RegionPack } from '../pack/pack.js'
import type { JudgeContext } from '../judge/judgeContext.js'
import { SIDE_COUNT, SIDE_INDEXES } from '../model/side.js'

/** A wish: this rule should come out met (2) or not met (0), on the side judged unless the other is named. */
export interface Goal {
  readonly rule: Compiled
  readonly want: typeof YES | typeof NO
  readonly side?: typeof RIGHT | typeof LEFT
}

/** Findings that grant every wish, by slot number, those of an earlier check after all slots of the present one; undefined when none was found within the budget. */
export type Witness = ReadonlyMap<number, Reading>
export type Search = { readonly found: Witness } | { readonly found: undefined; readonly exhausted: boolean }

type CalcLeaf = Extract<Leaf, { type: 'calc' }>

const RIGHT = 0
const LEFT = 1
const BUDGET = 120_000
const NOW = Date.UTC(2026, 0, 15)

/**
 * Looks for findings that make rules come out as wished, by trying for each leaf the values at and beside the thresholds that the
 * pack names. When it ends without a witness and was not cut short, there is none among those values: for the rules of a pack a proof.
 */
export class WitnessSearch {
  readonly compiled: CompiledPack
  private readonly context: JudgeContext
  private readonly slots: (Reading | undefined)[]
  private readonly earlier: (Earlier | undefined)[]
  private readonly thresholds: ReadonlyMap<string, readonly number[]>
  private budget = 0

  constructor(readonly pack: RegionPack) {
    this.compiled = new CompiledPack(pack)
    this.slots = new Array<Reading | undefined>(pack.items.length * SIDE_COUNT)
    this.earlier = new Array<Earlier | undefined>(this.slots.length)
    this.context = this.compiled.context(this.slots, this.earlier, NOW)
    this.thresholds = thresholdsOf(pack)
  }

  /**
   * @param mayUse which items may be examined
   */
  find(goals: readonly Goal[], mayUse: (item: Item) => boolean = () => true): Search {
    const first = this.findWith(goals, mayUse, [])
    const compared = [...this.compiled.compared]
    return first.found || compared.length === 0 ? first : this.findWith(goals, mayUse, compared)
  }

  /** @param checked items that were found normal at an earlier check */
  private findWith(goals: readonly Goal[], mayUse: (item: Item) => boolean, checked: readonly number[]): Search {
    this.slots.fill(undefined)
    this.earlier.fill(undefined)
    for (const item of checked) for (const side of SIDE_INDEXES) this.earlier[slotOf(item, side)] = { reading: calmReading(this.compiled.item(item)), hours: 1 }
    this.budget = BUDGET
    const isFound = this.solve(goals, mayUse)
    const readings = [...this.slots, ...this.earlier.map((one) => one?.reading)]
    this.slots.fill(undefined)
    this.earlier.fill(undefined)
    return isFound
      ? { found: new Map(readings.flatMap((reading, at) => (reading ? [[at, reading] as const] : []))) }
      : { found: undefined, exhausted: this.budget > 0 }
  }

  /** A working area with the findings of a witness, to run rules in. */
  contextOf(witness: Witness): JudgeContext {
    const slots = new Array<Reading | undefined>(this.slots.length)
    const earlier = new Array<Earlier | undefined>(this.slots.length)
    for (const [at, reading] of witness) {
      if (at < slots.length) slots[at] = reading
      else earlier[at - slots.length] = { reading, hours: 1 }
    }
    const context = this.compiled.context(slots, earlier, NOW)
    this.compiled.enterPhase(context, { deciding: false, indicated: null })
    return context
  }

  private solve(goals: readonly Goal[], mayUse: (item: Item) => boolean): boolean {
    if (--this.budget <= 0) return false
    this.compiled.enterPhase(this.context, { deciding: false, indicated: null })
    this.context.derived.clear()
    let open: Goal | undefined
    for (const goal of goals) {
      const truth = goal.rule.run(this.context, goal.side ?? RIGHT)
      if (truth === goal.want) continue
      if (truth !== UNKNOWN) return false
      open = goal
    }
    return open ? this.expand(open, goals, mayUse) : true
  }

  private expand(goal: Goal, goals: readonly Goal[], mayUse: (item: Item) => boolean): boolean {
    const { want, side = RIGHT } = goal
    const { node, kids } = goal.rule
    const each = (wish: Goal['want']): boolean => this.solve([...goals, ...kids.map((kid) => ({ rule: kid, want: wish, side }))], mayUse)
    const some = (wish: Goal['want']): boolean =>
      kids.some((kid) => kid.run(this.context, side) === UNKNOWN && this.solve([...goals, { rule: kid, want: wish, side }], mayUse))
    switch (node.op) {
      case 'all':
        return want === YES ? each(YES) : some(NO)
      case 'any':
        return want === YES ? some(YES) : each(NO)
      case 'not':
        return each(want === YES ? NO : YES)
      case 'proven':
        return each(want)
      case 'atLeast':
        return some(want)
      case 'leaf':
        return this.expandLeaf(node.leaf, goal, goals, mayUse)
    }
  }

  private expandLeaf(leaf: Leaf, { rule, want, side = RIGHT }: Goal, goals: readonly Goal[], mayUse: (item: Item) => boolean): boolean {
    const more = (wishes: readonly Goal[]): boolean => this.solve([...goals, ...wishes], mayUse)
    if (leaf.type === 'calc') return this.calcWishesOver(leaf, want, side).some(more)
    if (leaf.type === 'flag') return more([{ rule: this.compiled.compiledFlag(leaf.ref).any, want, side }])
    return rule.reads(side).some((slot) => this.tryValues(leaf, slot, slot.side === (side === RIGHT ? LEFT : RIGHT), goals, mayUse))
  }

  /** As `calcWishes`, for a value asked of this side, of either or of both. */
  private calcWishesOver(leaf: CalcLeaf, want: Goal['want'], side: typeof RIGHT | typeof LEFT): Goal[][] {
    const on = (at: typeof RIGHT | typeof LEFT): Goal[][] => this.calcWishes(leaf, want, at).map((wishes) => wishes.map((wish) => ({ ...wish, side: at })))
    if (leaf.over === 'this') return on(side)
    const here = on(RIGHT)
    const there = on(LEFT)
    return (leaf.over === 'either') === (want === YES)
      ? [...here, ...there]
      : here.length === 0 || there.length === 0
        ? [...here, ...there]
        : here.flatMap((one) => there.map((other) => [...one, ...other]))
  }

  /** Ways in which a calculated value can come to satisfy, or fail, a leaf. */
  private calcWishes(leaf: CalcLeaf, want: Goal['want'], side: typeof RIGHT | typeof LEFT): Goal[][] {
    const ready = this.compiled.compiledCalc(leaf.calc)
    const validity: Goal[] = ready.validWhen ? [{ rule: ready.validWhen, want: YES }] : []
    if (ready.when) return [[...validity, { rule: ready.when, want }]]
    if (ready.points.length > 0) {
      const part = ready.points.flat().find((one) => one.rule.run(this.context, side) === UNKNOWN)
      return part ? [[{ rule: part.rule, want }], [{ rule: part.rule, want: want === YES ? NO : YES }]] : []
    }
    const fitting = ready.ladder.filter((rung) => rungFits(rung.value, leaf.cmp, leaf.operand))
    const none: Goal[][] = want === NO ? [[...validity, ...fitting.map((rung) => ({ rule: rung.rule, want: NO }) as const)]] : []
    const unmet = (rule: Compiled): Goal => ({ rule, want: NO })
    const stops: Goal[][] = ready.ladder.map((rung, at) => [
      ...validity,
      { rule: rung.rule, want: YES },
      ...ready.ladder.slice(0, at).map((above) => unmet(above.rule)),
    ])
    return [...none, ...stops]
  }

  private tryValues(leaf: Leaf, slot: Slot, onOther: boolean, goals: readonly Goal[], mayUse: (item: Item) => boolean): boolean {
    const item = this.compiled.item(slot.item)
    if (!mayUse(item)) return false
    const at = slotOf(slot.item, slot.side)
    const before = this.slots[at]
    for (const candidate of this.candidates(leaf, item, before, onOther && !(leaf.type === 'compare' && leaf.over !== 'this'))) {
      this.slots[at] = candidate
      if (this.solve(goals, mayUse)) return true
    }
    this.slots[at] = before
    return false
  }

  private candidates(leaf: Leaf, item: Item, before: Reading | undefined, onOther: boolean): Reading[] {
    const qualifier = leaf.type === 'compare' ? leaf.term.qualifier : undefined
    const reading = (value: Reading['value'], qualifiers: Reading['qualifiers']): Reading => {
      const isGap = isGapValue(item, value)
      return { examined: !isGap, isGap, reason: undefined, notValid: false, value, qualifiers }
    }
    if (qualifier !== undefined) {
      if (before?.qualifiers[qualifier] !== undefined) return []
      return this.qualifierValues(item, qualifier, onOther).map((value) => reading(before?.value, { ...before?.qualifiers, [qualifier]: value }))
    }
    if (leaf.type === 'compare' && leaf.term.fn === 'gap')
      return this.gapReadings(item, before).map((readings) => reading(before?.value, { ...before?.qualifiers, ...readings }))
    if (item.kind === 'multi') return multiValues(leaf, item, before).map((value) => reading(value, before?.qualifiers ?? {}))
    if (before?.value !== undefined) return []
    return this.itemValues(item, onOther).map((value) => reading(value, before?.qualifiers ?? {}))
  }

  /** Both readings of an item, their difference at and beside every threshold. */
  private gapReadings(item: Item, before: Reading | undefined): Record<string, number>[] {
    const [first = '', last = ''] = [item.readings[0], item.readings[item.readings.length - 1]]
    const told = before?.qualifiers[first]
    const start = typeof told === 'number' ? told : referenceOf(item)
    const known = before?.qualifiers[last]
    const gaps = (this.thresholds.get(item.id) ?? [0]).flatMap((t) => [t, t + 1, t - 1])
    const ends = typeof known === 'number' ? [] : gaps.map((by) => start + by)
    return [
      ...ends.map((end) => ({ [first]: start, [last]: end })),
      ...(typeof known === 'number' && typeof told !== 'number' ? gaps.map((by) => ({ [first]: known - by })) : []),
    ]
  }

  private itemValues(item: Item, onOther: boolean): Scalar[] {
    if (item.options.length > 0) return [...item.options]
    if (item.kind === 'moment') return []
    return onOther ? [referenceOf(item)] : this.numbers(item.id, item)
  }

  private qualifierValues(item: Item, name: string, onOther: boolean): (Scalar | readonly string[])[] {
    const qualifier = item.qualifiers[name]
    if (!qualifier) return []
    if (qualifier.kind === 'sign') return [true, false]
    if (qualifier.kind === 'number') return onOther ? [referenceOf(qualifier)] : this.numbers(`${item.id}.${name}`, qualifier)
    if (qualifier.kind === 'multi') return (qualifier.options ?? []).map((option) => [option])
    return [...(qualifier.options ?? [])]
  }

  private numbers(key: string, { min, max }: { readonly min?: number | undefined; readonly max?: number | undefined }): number[] {
    const near = (this.thresholds.get(key) ?? [0]).flatMap((t) => [t + 1, t, t - 1])
    const reference = referenceOf({ ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) })
    return [...new Set([reference, ...near, ...near.map((n) => reference + n)])].filter((n) => n >= (min ?? -Infinity) && n <= (max ?? Infinity)).slice(0, 40)
  }
}

/** Examined and normal; a number without a normal value is the reference that differences are taken from. */
const calmReading = (item: Item): Reading => ({
  examined: true,
  isGap: false,
  reason: undefined,
  notValid: false,
  value: item.normal?.value ?? (item.options.length > 0 || item.kind === 'moment' ? undefined : referenceOf(item)),
  qualifiers: item.normal?.qualifiers ?? {},
})

/** The number that the other side has wherever only the difference matters. */
const referenceOf = ({ min, max }: { readonly min?: number | undefined; readonly max?: number | undefined }): number =>
  [40, 2, 0].find((n) => n >= (min ?? -Infinity) && n <= (max ?? Infinity)) ?? (min ?? 0) + 100

/** A word is added to what is ticked already, so that two rules on one list can both be met. */
function multiValues(leaf: Leaf, item: Item, before: Reading | undefined): (readonly string[])[] {
  const ticked = Array.isArray(before?.value) ? (before.value as readonly string[]).filter((word) => word !== item.empty) : []
  if (before)
    return leaf.type === 'compare'
      ? leaf.operand.filter((word) => item.options.includes(word) && word !== item.empty && !ticked.includes(word)).map((word) => [...ticked, word])
      : []
  const words = item.options.filter((word) => word !== item.empty)
  return [...(item.empty === undefined ? [] : [[item.empty]]), ...words.map((word) => [word]), words]
}

/** Numbers that any rule of the pack compares an item (or a qualifier of it) with. */
function thresholdsOf({ flags, prompts, calcs, holds }: RegionPack): ReadonlyMap<string, readonly number[]> {
  const rules = [
    ...flags.flatMap((flag) => [flag.inPlay, ...flag.clauses.map((clause) => clause.when)]),
    ...prompts.map((group) => group.when),
    ...calcs.flatMap(rulesOfCalc),
    ...holds.map((hold) => hold.when),
  ]
  const found = new Map<string, Set<number>>()
  for (const leaf of rules.flatMap(leavesOf)) {
    if (leaf.type !== 'compare') continue
    const { term, operand } = leaf
    for (const id of itemsOfLeaf(leaf)) {
      const key = term.qualifier === undefined ? id : `${id}.${term.qualifier}`
      const set = found.get(key) ?? new Set()
      for (const word of operand) if (word !== '' && !Number.isNaN(Number(word))) set.add(Number(word))
      found.set(key, set)
    }
  }
  return new Map([...found].map(([key, set]) => [key, [...set]]))
}
