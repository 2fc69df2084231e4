import { measureOf } from '../measure/registry.js'
import type { Item } from '../model/item.js'
import type { Measure } from '../model/measure.js'
import { SIDE_COUNT, SIDE_INDEXES, type SideIndex } from '../model/side.js'
import type { Tier } from '../model/tier.js'
import { tierRank } from '../model/tier.js'
import type { Flag, Hold, Modifier, Phrase, Prompt, RegionPack } from '../pack/pack.js'
import { rulesOf } from '../pack/rulesOf.js'
import { compileRule } from '../rules/compileRule.js'
import { leavesOf } from '../rules/leaves.js'
import { CompiledCalc } from '../rules/compiledCalc.js'
import type { Leaf, RuleNode, Term } from '../rules/rule.js'
import type { Read, RuleSet } from '../rules/ruleSet.js'
import { sideOfSlot, slotOf, type Compiled, type Memory } from '../rules/runtime.js'
import { termReader } from '../rules/term.js'
import { NO, YES, type T } from '../rules/truth.js'
import { dependentsOf, type Dependents } from './dependents.js'
import type { JudgeContext } from './judgeContext.js'
import type { ApplicableModifier } from './priorityTier.js'
import { isMoving, sayingsOf, type Sayings } from './sayings.js'
import type { PastFlag } from './verdict.js'

export interface CompiledClause {
  readonly tier: Tier
  readonly rule: Compiled
}

export interface CompiledFlag {
  readonly flag: Flag
  readonly inPlay: Compiled
  readonly clauses: readonly CompiledClause[]
  readonly any: Compiled
  /** Those that may move its tier: by its class or its concept. */
  readonly modifiers: readonly CompiledModifier[]
}

interface CompiledModifier {
  readonly modifier: Modifier
  readonly applicable: ApplicableModifier
  readonly rule: Compiled
}

const EMPTY = -1
const NONE_RETAINED: JudgeContext['retained'] = new Map()

/**
 * A pack ready to judge with: ids turned into indexes, rules into functions. Made once per pack and shared; it keeps no state
 * of any examination (that is in the `JudgeContext`).
 */
export class CompiledPack implements RuleSet {
  readonly flags: readonly CompiledFlag[]
  readonly prompts: readonly { readonly group: Prompt; readonly rule: Compiled; readonly ask: readonly number[] }[]
  /** What each flag asks while in play: indexes of items and of prompts, -1 for none. */
  readonly flagAsks: readonly (readonly { readonly item: number; readonly group: number }[])[]
  /** Per item 2 when it is core or on the patient card. */
  readonly alwaysAsked: Uint8Array
  /** Items that are worked out, each with an item that it is worked out from. */
  readonly workedOut: readonly { readonly item: number; readonly source: number }[]
  /** Items that are asked whenever another is. */
  readonly alongside: readonly { readonly item: number; readonly source: number; readonly because: string }[]
  /** Items that some rule compares with an earlier check. */
  readonly compared: ReadonlySet<number>
  readonly holds: readonly { readonly hold: Hold; readonly rule: Compiled }[]
  readonly calcs: readonly CompiledCalc[]
  readonly sayings: Sayings
  readonly phrases: readonly { readonly phrase: Phrase; readonly rule: Compiled | undefined }[]
  readonly indexOf: ReadonlyMap<string, number>
  private readonly rules = new Map<string, Compiled>()
  /** Every rule compiled, by its number. */
  readonly compiledRules: Compiled[] = []
  private count = 0
  private readonly moreUrgent = new Map<string, readonly CompiledClause[]>()
  private dependents: readonly Dependents[] | undefined
  private readonly calcIndex: ReadonlyMap<string, number>
  private readonly flagIndex: ReadonlyMap<string, number>
  private readonly holdIndex: ReadonlyMap<string, number>

  constructor(readonly pack: RegionPack) {
    this.indexOf = indexById(pack.items)
    this.calcIndex = indexById(pack.calcs)
    this.flagIndex = indexById(pack.flags)
    this.holdIndex = indexById(pack.holds)
    const ready = (rule: RuleNode): Compiled => compileRule(rule, this)
    this.calcs = pack.calcs.map((calc, at) => new CompiledCalc(calc, at, ready))
    const modifiers = pack.modifiers.flatMap((modifier): CompiledModifier[] => {
      const moves = applicable(modifier)
      return moves ? [{ modifier, applicable: moves, rule: ready(modifier.when) }] : []
    })
    this.sayings = sayingsOf(pack, ready)
    this.flags = pack.flags.map((flag) => ({
      flag,
      modifiers: modifiers.filter(({ modifier }) => modifier.concepts.includes(flag.concept) || modifier.classes.some((one) => flag.classes.includes(one))),
      inPlay: ready(flag.inPlay),
      clauses: flag.clauses.map((clause) => ({ tier: clause.tier, rule: ready(clause.when) })),
      any: ready({ op: 'any', of: flag.clauses.map((clause) => clause.when) }),
    }))
    this.prompts = pack.prompts.map((group) => ({ group, rule: ready(group.when), ask: group.ask.map((id) => this.index(id)) }))
    this.flagAsks = pack.flags.map((flag) =>
      flag.asks.map((ask) => ({
        item: ask.item === undefined ? -1 : this.index(ask.item),
        group: ask.group === undefined || ask.conditional ? -1 : pack.prompts.findIndex((group) => group.id === ask.group),
      })),
    )
    this.alwaysAsked = Uint8Array.from(pack.items, (item) => (item.depth === 'core' || item.depth === 'card' ? YES : NO))
    this.workedOut = pack.items.flatMap((item, at) =>
      Object.values(item.derive?.from ?? {}).flatMap((path) => this.sourceIndex(path).map((source) => ({ item: at, source }))),
    )
    this.alongside = pack.items.flatMap(({ alongside, label }, at) =>
      alongside === undefined ? [] : [{ item: this.index(alongside), source: at, because: label }],
    )
    this.holds = pack.holds.map((hold) => ({ hold, rule: ready(hold.when) }))
    this.phrases = pack.phrases.map((phrase) => ({ phrase, rule: phrase.when && ready(phrase.when) }))
    this.compared = new Set(rulesOf(pack).flatMap(([, rule]) => leavesOf(rule).flatMap((leaf) => comparedItem(leaf).map((id) => this.index(id)))))
  }

  /** One compiled rule for each text, however often it stands in the pack. */
  shared(key: string, make: (id: number) => Compiled): Compiled {
    const kept = this.rules.get(key)
    if (kept) return kept
    const number = this.count++
    const made = make(number)
    this.compiledRules[number] = made
    this.rules.set(key, made)
    // What depends on what is worked out anew once there is a rule more.
    this.dependents = undefined
    return made
  }

  /** @throws Error when the pack has no such item: the compiler never lets that through. */
  index(id: string): number {
    return found(this.indexOf.get(id), id)
  }

  /** The item behind a path of a derivation. */
  private sourceIndex(path: string): number[] {
    const plain = path.replace(/^other\((.*)\)$/, '$1')
    const index = this.indexOf.get(plain) ?? this.indexOf.get(plain.slice(0, plain.lastIndexOf('.')))
    return index === undefined ? [] : [index]
  }

  measure(name: string): Measure {
    return measureOf(name)
  }

  item(index: number): Item {
    return found(this.pack.items[index], String(index))
  }

  compiledCalc(id: string): CompiledCalc {
    return found(this.calcs[found(this.calcIndex.get(id), id)], id)
  }

  compiledFlag(id: string): CompiledFlag {
    return found(this.flags[found(this.flagIndex.get(id), id)], id)
  }

  compiledHold(id: string): { readonly hold: Hold; readonly rule: Compiled } {
    return found(this.holds[found(this.holdIndex.get(id), id)], id)
  }

  /** A fresh working area for one judgement. */
  context(slots: JudgeContext['slots'], previous: JudgeContext['previous'], asOf: number, retained: JudgeContext['retained'] = NONE_RETAINED): JudgeContext {
    const memory = (): Memory => ({ truths: new Int8Array(this.compiledRules.length * SIDE_COUNT).fill(EMPTY), ladders: [], scores: [] })
    const memories = [memory(), memory()] as const
    return { slots, previous, asOf, retained, indicated: null, lastIndicated: null, deciding: false, memories, memory: memories[1], derived: new Map() }
  }

  /** The working area after one item reads otherwise: what does not depend on it is kept. */
  contextAfter(before: JudgeContext, slots: JudgeContext['slots'], previous: JudgeContext['previous'], item: number): JudgeContext {
    const copy = ({ truths, ladders, scores }: Memory): Memory => ({ truths: Int8Array.from(truths), ladders: [...ladders], scores: [...scores] })
    const memories = [copy(before.memories[0]), copy(before.memories[1])] as const
    const after = { ...before, slots, previous, memories, memory: memories[1], derived: new Map(before.derived) }
    this.forget(after, memories, item)
    return after
  }

  /** Starts a phase of a judgement. What was worked out in it under another reading of missing findings is forgotten. */
  enterPhase(context: JudgeContext, phase: { readonly deciding: boolean; readonly indicated: Uint8Array | null }): void {
    this.resumePhase(context, phase)
    context.memory.truths.fill(EMPTY)
    context.memory.ladders = []
    context.memory.scores = []
  }

  /** Starts a phase with what is remembered of it, save what hangs on items that are now asked for, or no longer. */
  resumePhase(context: JudgeContext, { deciding, indicated }: { readonly deciding: boolean; readonly indicated: Uint8Array | null }): void {
    const memory = context.memories[deciding ? 0 : 1]
    if (!deciding && indicated && context.lastIndicated) {
      const last = context.lastIndicated
      for (let item = 0; item < indicated.length; item++) if ((indicated[item] === 0) !== (last[item] === 0)) this.forget(context, [memory], item)
    }
    context.deciding = deciding
    context.indicated = deciding ? null : indicated
    if (!deciding) context.lastIndicated = indicated
    context.memory = memory
  }

  /** What has to be worked out anew when an item reads otherwise. */
  dependentsOn(item: number): Dependents {
    this.dependents ??= dependentsOf(this)
    return found(this.dependents[item], String(item))
  }

  private forget(context: JudgeContext, memories: readonly Memory[], item: number): void {
    const { rules, calcs, items } = this.dependentsOn(item)
    for (const memory of memories) {
      for (const rule of rules) memory.truths.fill(EMPTY, rule * SIDE_COUNT, (rule + 1) * SIDE_COUNT)
      for (const calc of calcs) {
        for (let at = calc * SIDE_COUNT; at < (calc + 1) * SIDE_COUNT; at++) {
          memory.ladders[at] = undefined
          memory.scores[at] = undefined
        }
      }
    }
    for (const one of items) for (const side of SIDE_INDEXES) context.derived.delete(slotOf(one, side))
  }

  flagTruth(id: string, context: JudgeContext, side: SideIndex): T {
    return this.retainedFlag(id, context, side) ? YES : this.compiledFlag(id).any.run(context, side)
  }

  /** One number for a flag on a side. */
  flagSlot(id: string, side: SideIndex): number {
    return slotOf(found(this.flagIndex.get(id), id), side)
  }

  retainedFlag(id: string, context: JudgeContext, side: SideIndex): PastFlag | undefined {
    return context.retained.size === 0 ? undefined : context.retained.get(this.flagSlot(id, side))
  }

  holdTruth(id: string, context: JudgeContext, side: SideIndex): T {
    return this.compiledHold(id).rule.run(context, side)
  }

  inPlayTruth(id: string, context: JudgeContext, side: SideIndex): T {
    return this.compiledFlag(id).inPlay.run(context, side)
  }

  /** Clauses of other flags whose tier is more urgent than every clause of `self`: what `any-flag` reads. */
  moreUrgentClauses(self: string): readonly CompiledClause[] {
    const kept = this.moreUrgent.get(self)
    if (kept) return kept
    const own = Math.min(...this.compiledFlag(self).clauses.map((clause) => tierRank(clause.tier)))
    const found = this.flags.flatMap(({ flag, clauses }) => (flag.id === self ? [] : clauses.filter((clause) => tierRank(clause.tier) < own)))
    this.moreUrgent.set(self, found)
    return found
  }

  /** Met when some flag of this side is proven at a more urgent tier than every clause of `self`. */
  moreUrgentFlag(self: string, context: JudgeContext, side: SideIndex): T {
    const clauses = this.moreUrgentClauses(self)
    const isHeld = clauses.length > 0 && [...context.retained].some(([slot, { flag }]) => sideOfSlot(slot) === side && flag.id !== self)
    return isHeld || clauses.some((clause) => clause.rule.run(context, side) === YES) ? YES : NO
  }

  /** A reader for a path written in a derivation: `item`, `item.qualifier` or `other(item)`. */
  reader(path: string, owner: Item): Read {
    const inner = /^other\((.*)\)$/.exec(path)?.[1]
    const term = this.termOf(inner ?? path, owner)
    return termReader(inner === undefined ? term : { ...term, fn: 'other' }, this)
  }

  private termOf(path: string, owner: Item): Term {
    if (this.indexOf.has(path)) return { fn: 'value', item: path }
    const cut = path.lastIndexOf('.')
    const item = path.slice(0, cut)
    if (!this.indexOf.has(item)) throw new Error(`${owner.id} is derived from "${path}", which is not in the pack`)
    return { fn: 'value', item, qualifier: path.slice(cut + 1) }
  }
}

const comparedItem = (leaf: Leaf): string[] =>
  leaf.type === 'rechecked' ? [leaf.item] : leaf.type === 'compare' && leaf.term.fn === 'change' ? [leaf.term.item] : []

/** What a modifier does to a tier; nothing when it only says something. */
const applicable = ({ id, effect }: Modifier): ApplicableModifier | undefined => {
  if (!isMoving(effect)) return undefined
  return 'step' in effect ? { id, step: true, ...(effect.onlyFrom ? { onlyFrom: effect.onlyFrom } : {}) } : { id, step: false, atLeast: effect.atLeast }
}

const indexById = (things: readonly { readonly id: string }[]): ReadonlyMap<string, number> => new Map(things.map((thing, at) => [thing.id, at]))

function found<V>(value: V | undefined, id: string): V {
  if (value === undefined) throw new Error(`"${id}" is not in the pack`)
  return value
}
