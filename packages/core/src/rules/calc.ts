import { itemsOfLeaf } from './leaves.js'
import type { RuleNode } from './rule.js'

/** Points of a score. Parts with the same `oneOf` are levels of one component: at most one of them counts. */
export interface ScorePart {
  readonly points: number
  readonly when: RuleNode
  readonly oneOf?: number
}

/** A value worked out from findings and never entered: a truth, a word of a ladder, or a score with a range. */
export interface Calc {
  readonly id: string
  readonly region: string
  readonly label: string
  readonly also: readonly string[]
  readonly kind: 'truth' | 'ladder' | 'score'
  readonly when?: RuleNode
  /** When this is not met the calc is not known, whatever its rule says. */
  readonly validWhen?: RuleNode
  readonly ladder: readonly { readonly value: string; readonly when: RuleNode }[]
  readonly points: readonly ScorePart[]
  readonly source: string
  readonly note?: string
  /** Why it waits for an exclusion or a date (`lintDanger`). */
  readonly because?: string
}

/** Every rule of a calculated value: when it holds, when it is valid, its rungs and its parts. */
export const rulesOfCalc = ({ when, validWhen, ladder, points }: Pick<Calc, 'when' | 'validWhen' | 'ladder' | 'points'>): RuleNode[] =>
  [when, validWhen, ...ladder.map((rung) => rung.when), ...points.map((part) => part.when)].filter((rule) => rule !== undefined)

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
