import { rulesOfCalc } from '../rules/calc.js'
import type { ReadyCalc } from '../rules/readyCalc.js'
import type { RuleNode } from '../rules/rule.js'
import type { Compiled } from '../rules/runtime.js'

/** What has to be worked out anew when the reading of one item changes. */
export interface Dependents {
  readonly rules: readonly number[]
  readonly calcs: readonly number[]
  /** Items that are worked out from it, itself included. */
  readonly items: readonly number[]
}

/** The rules of a pack, as far as it matters what they read. */
interface RulesOfPack {
  readonly pack: { readonly items: readonly unknown[] }
  readonly compiled: readonly Compiled[]
  readonly calcs: readonly ReadyCalc[]
  readonly workedOut: readonly { readonly item: number; readonly source: number }[]
  index(id: string): number
  readyCalc(id: string): ReadyCalc
  readyFlag(id: string): { readonly any: Compiled; readonly inPlay: Compiled }
  readyHold(id: string): { readonly rule: Compiled }
  moreUrgentClauses(self: string): readonly { readonly rule: Compiled }[]
}

/** For each item, every rule and calculated value that can come out otherwise when the item reads otherwise. */
export function dependentsOf(prepared: RulesOfPack): readonly Dependents[] {
  const known = new Map<RuleNode, ReadonlySet<number>>()
  const calcReads = new Map<string, ReadonlySet<number>>()
  const workedOut = new Map<number, number[]>()
  for (const { item, source } of prepared.workedOut) workedOut.set(item, [...(workedOut.get(item) ?? []), source])

  const ofItem = (id: string): number[] => {
    const index = prepared.index(id)
    return [index, ...(workedOut.get(index) ?? [])]
  }
  const ofCalc = (id: string): ReadonlySet<number> => {
    const held = calcReads.get(id)
    if (held) return held
    const reads = merged(rulesOfCalc(prepared.readyCalc(id).calc).map(ofNode))
    calcReads.set(id, reads)
    return reads
  }
  function ofNode(node: RuleNode): ReadonlySet<number> {
    const held = known.get(node)
    if (held) return held
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
        return ofNode(prepared.readyFlag(leaf.ref).any.node)
      case 'in-play':
        return ofNode(prepared.readyFlag(leaf.ref).inPlay.node)
      case 'hold':
        return ofNode(prepared.readyHold(leaf.ref).rule.node)
      case 'any-flag':
        return merged(prepared.moreUrgentClauses(leaf.self).map(({ rule }) => ofNode(rule.node)))
      case 'always':
        return new Set()
      default:
        return new Set(ofItem(leaf.item))
    }
  }

  const found = prepared.pack.items.map((_, at) => ({ rules: [] as number[], calcs: [] as number[], items: [at] }))
  prepared.compiled.forEach(({ node }, rule) => ofNode(node).forEach((item) => found[item]?.rules.push(rule)))
  prepared.calcs.forEach(({ calc }, at) => ofCalc(calc.id).forEach((item) => found[item]?.calcs.push(at)))
  for (const { item, source } of prepared.workedOut) found[source]?.items.push(item)
  return found
}

function merged(sets: readonly ReadonlySet<number>[]): ReadonlySet<number> {
  const whole = new Set<number>()
  for (const set of sets) for (const item of set) whole.add(item)
  return whole
}
