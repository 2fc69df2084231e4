import { rulesOfCalc } from '../rules/calc.js'
import type { CompiledCalc } from '../rules/compiledCalc.js'
import type { RuleNode } from '../rules/rule.js'
import type { Compiled } from '../rules/runtime.js'

/** What has to be worked out anew when the reading of one item changes. */
export interface Dependents {
  readonly rules: readonly number[]
  readonly calcs: readonly number[]
  /** Items that are worked out from it, itself included. */
  readonly items: readonly number[]
  /** Flags that it may help to meet. */
  readonly flags: readonly number[]
}

/** The rules of a pack, as far as it matters what they read. */
interface RulesOfPack {
  readonly pack: { readonly items: readonly unknown[] }
  readonly compiledRules: readonly Compiled[]
  readonly calcs: readonly CompiledCalc[]
  readonly flags: readonly { readonly any: Compiled }[]
  readonly workedOut: readonly { readonly item: number; readonly source: number }[]
  index(id: string): number
  compiledCalc(id: string): CompiledCalc
  compiledFlag(id: string): { readonly any: Compiled; readonly inPlay: Compiled }
  compiledHold(id: string): { readonly rule: Compiled }
  moreUrgentClauses(self: string): readonly { readonly rule: Compiled }[]
}

/** For each item, every rule and calculated value that can come out otherwise when the item reads otherwise. */
export function dependentsOf(compiled: RulesOfPack): readonly Dependents[] {
  const known = new Map<RuleNode, ReadonlySet<number>>()
  const calcReads = new Map<string, ReadonlySet<number>>()
  const workedOut = new Map<number, number[]>()
  for (const { item, source } of compiled.workedOut) workedOut.set(item, [...(workedOut.get(item) ?? []), source])

  const ofItem = (id: string): number[] => {
    const index = compiled.index(id)
    return [index, ...(workedOut.get(index) ?? [])]
  }
  const ofCalc = (id: string): ReadonlySet<number> => {
    const kept = calcReads.get(id)
    if (kept) return kept
    const reads = merged(rulesOfCalc(compiled.compiledCalc(id).calc).map(ofNode))
    calcReads.set(id, reads)
    return reads
  }
  function ofNode(node: RuleNode): ReadonlySet<number> {
    const kept = known.get(node)
    if (kept) return kept
    const reads = node.op === 'leaf' ? ofLeaf(node) : merged(node.of.map(ofNode))
    known.set(node, reads)
    return reads
  }
  function ofLeaf({ leaf }: Extract<RuleNode, { op: 'leaf' }>): ReadonlySet<number> {
    switch (leaf.type) {
      case 'compare':
        return new Set([leaf.term.item, ...(leaf.term.more ?? [])].flatMap(ofItem))
      case 'calc':
        return ofCalc(leaf.calc)
      case 'all-examined':
        return new Set(leaf.items.flatMap(ofItem))
      case 'flag':
        return ofNode(compiled.compiledFlag(leaf.ref).any.node)
      case 'in-play':
        return ofNode(compiled.compiledFlag(leaf.ref).inPlay.node)
      case 'hold':
        return ofNode(compiled.compiledHold(leaf.ref).rule.node)
      case 'any-flag':
        return merged(compiled.moreUrgentClauses(leaf.self).map(({ rule }) => ofNode(rule.node)))
      case 'always':
        return new Set()
      default:
        return new Set(ofItem(leaf.item))
    }
  }

  const found = compiled.pack.items.map((_, at) => ({ rules: [] as number[], calcs: [] as number[], items: [at], flags: [] as number[] }))
  compiled.compiledRules.forEach(({ node }, rule) => ofNode(node).forEach((item) => found[item]?.rules.push(rule)))
  compiled.calcs.forEach(({ calc }, at) => ofCalc(calc.id).forEach((item) => found[item]?.calcs.push(at)))
  compiled.flags.forEach(({ any }, at) => ofNode(any.node).forEach((item) => found[item]?.flags.push(at)))
  for (const { item, source } of compiled.workedOut) found[source]?.items.push(item)
  return found
}

function merged(sets: readonly ReadonlySet<number>[]): ReadonlySet<number> {
  const whole = new Set<number>()
  for (const set of sets) for (const item of set) whole.add(item)
  return whole
}
