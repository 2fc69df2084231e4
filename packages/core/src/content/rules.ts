import type { AnyPack, Calc, Leaf, RuleNode } from './types.js'

/** Every rule of a calculated value: when it holds, when it is valid, its rungs and its parts. */
export const rulesOfCalc = ({ when, validWhen, ladder, points }: Pick<Calc, 'when' | 'validWhen' | 'ladder' | 'points'>): RuleNode[] =>
  [when, validWhen, ...ladder.map((rung) => rung.when), ...points.map((part) => part.when)].filter((rule) => rule !== undefined)

/** Every rule of a pack with the id of what owns it. */
export function rulesOf(pack: AnyPack): (readonly [id: string, rule: RuleNode])[] {
  return [
    ...pack.flags.flatMap((flag) => [[flag.id, flag.inPlay] as const, ...flag.clauses.map((clause) => [flag.id, clause.when] as const)]),
    ...pack.calcs.flatMap((calc) => rulesOfCalc(calc).map((rule) => [calc.id, rule] as const)),
    ...pack.groups.map((group) => [group.id, group.when] as const),
    ...pack.holds.map((hold) => [hold.id, hold.when] as const),
    ...pack.modifiers.map((modifier) => [modifier.id, modifier.when] as const),
    ...pack.phrases.flatMap(({ id, when }) => (when ? [[id, when] as const] : [])),
    ...pack.conditions.flatMap(({ id, gate, evidence }) => [...(gate ? [gate] : []), ...evidence.map((one) => one.when)].map((rule) => [id, rule] as const)),
  ]
}

export const leavesOf = (node: RuleNode): Leaf[] => (node.op === 'leaf' ? [node.leaf] : node.of.flatMap(leavesOf))

/** The items that a leaf names itself; those behind a calculated value, a flag or a set are not among them. */
export function itemsOfLeaf(leaf: Leaf): readonly string[] {
  if (leaf.type === 'compare') return [leaf.term.item, ...(leaf.term.more ?? [])]
  return 'item' in leaf ? [leaf.item] : []
}

/** The items that a rule reads, also through calculated values. One set passed on for many rules visits each calculated value once. */
export function itemsOfRule(node: RuleNode, calcs: ReadonlyMap<string, Calc>, seen = new Set<string>()): string[] {
  const items: string[] = []
  const visit = (one: RuleNode): void => {
    if (one.op !== 'leaf') return one.of.forEach(visit)
    if (one.leaf.type !== 'calc') return void items.push(...itemsOfLeaf(one.leaf))
    const calc = calcs.get(one.leaf.calc)
    if (!calc || seen.has(calc.id)) return
    seen.add(calc.id)
    rulesOfCalc(calc).forEach(visit)
  }
  visit(node)
  return items
}
