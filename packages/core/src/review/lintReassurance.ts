import type { Item } from '../model/item.js'
import { tierRank } from '../model/tier.js'
import { itemsById } from '../pack/itemsById.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import type { Calc } from '../rules/calc.js'
import type { Leaf, RuleNode } from '../rules/rule.js'
import { problem } from './lintProblem.js'

/** The qualifier of a result that says from when it is. */
const TAKEN = 'taken'

/**
 * What a reassuring result clears: at Now, Today and Days, and in a hold, an image that is called normal takes nothing away unless the rule also
 * says that it was taken since the onset. Which views and which modality are said beside it.
 * @example lintReassurance(view) // [{ id: 'knee.flag.occult', reason: 'is cleared by "imaging.film has normal" of any date', … }]
 */
export function lintReassurance(view: RegionPack): Problem[] {
  const items = itemsById(view)
  const calcs = new Map(view.calcs.map((calc) => [calc.id, calc]))
  const rules = [
    ...view.flags.flatMap(({ id, clauses }) => clauses.filter(({ tier }) => tierRank(tier) <= tierRank('days')).map(({ when }) => [id, when] as const)),
    ...view.holds.map(({ id, when }) => [id, when] as const),
  ]
  const found = rules.flatMap(([id, when]) =>
    exclusions(when)
      .flatMap((node) => undated(node, { items, calcs }, new Set()))
      .map((text) => [id, text] as const),
  )
  const unique = new Map(found.map(([id, text]) => [`${id} ${text}`, [id, text] as const]))
  return [...unique.values()].map(([id, text]) => problem(id, `is cleared by "${text}" of any date`, `ask for .${TAKEN} = since onset beside it`))
}

/** What would take the picture away if it were proven. */
const exclusions = (node: RuleNode): RuleNode[] =>
  node.op === 'leaf' ? [] : node.op === 'not' ? [...node.of] : node.op === 'proven' ? [] : node.of.flatMap((kid) => exclusions(kid))

interface Walk {
  readonly items: ReadonlyMap<string, Item>
  readonly calcs: ReadonlyMap<string, Calc>
}

/** @param dated items of which the rules above it ask when they were taken */
function undated(node: RuleNode, walk: Walk, dated: ReadonlySet<string>): string[] {
  if (node.op === 'leaf') return undatedLeaf(node.leaf, walk, dated)
  if (node.op === 'not') return []
  const beside = node.op === 'all' ? new Set([...dated, ...node.of.flatMap((kid) => takenOf(kid))]) : dated
  return node.of.flatMap((kid) => undated(kid, walk, beside))
}

const takenOf = (node: RuleNode): string[] =>
  node.op !== 'leaf' ? [] : node.leaf.type === 'compare' && node.leaf.term.qualifier === TAKEN ? [node.leaf.term.item] : []

function undatedLeaf(leaf: Leaf, walk: Walk, dated: ReadonlySet<string>): string[] {
  if (leaf.type === 'calc') {
    const when = walk.calcs.get(leaf.calc)?.when
    return when === undefined || leaf.cmp !== 'is' ? [] : undated(when, walk, dated)
  }
  if (leaf.type !== 'compare' || leaf.term.qualifier !== undefined || dated.has(leaf.term.item)) return []
  const item = walk.items.get(leaf.term.item)
  const isReport = item !== undefined && TAKEN in item.qualifiers && leaf.operand.some((word) => item.calm.includes(word) && !item.gaps.includes(word))
  return isReport ? [leaf.text] : []
}
