import type { AnyPack, Condition, Flag, Hold, Prompt } from '../pack/pack.js'
import type { Calc } from '../rules/calc.js'
import { itemsOfRule, rulesOfCalc } from '../rules/calc.js'
import { leavesOf } from '../rules/leaves.js'
import type { RuleNode } from '../rules/rule.js'

/** Everything of a region that reads an item or a calculated value, itself or through a calculated value. */
export interface Users {
  readonly flags: readonly Flag[]
  readonly calcs: readonly Calc[]
  readonly conditions: readonly Condition[]
  /** Prompt groups that ask for it, and holds that stop it. */
  readonly askedBy: readonly Prompt[]
  readonly stoppedBy: readonly Hold[]
}

/**
 * @param pack the view of one region
 * @param id an item or a calculated value
 * @example usersOf(viewOf(pack, 'knee'), 'test.lachman').flags.map((flag) => flag.id) // ['knee.flag.acl', …]
 */
export function usersOf(pack: AnyPack, id: string): Users {
  const calcs = new Map(pack.calcs.map((calc) => [calc.id, calc]))
  const reads = (rule: RuleNode): boolean => itemsOfRule(rule, calcs).includes(id) || calcsOf(rule, calcs).has(id)
  return {
    flags: pack.flags.filter((flag) => [flag.inPlay, ...flag.clauses.map((clause) => clause.when)].some(reads)),
    calcs: pack.calcs.filter((calc) => calc.id !== id && rulesOfCalc(calc).some(reads)),
    conditions: pack.conditions.filter(({ gate, evidence, presentations }) =>
      [...(gate ? [gate] : []), ...[...presentations, ...evidence].map((one) => one.when)].some(reads),
    ),
    askedBy: pack.prompts.filter((group) => group.ask.includes(id)),
    stoppedBy: pack.holds.filter((hold) => hold.stops.includes(id)),
  }
}

function calcsOf(rule: RuleNode, calcs: ReadonlyMap<string, Calc>, seen = new Set<string>()): Set<string> {
  for (const leaf of leavesOf(rule)) {
    if (leaf.type !== 'calc' || seen.has(leaf.calc)) continue
    seen.add(leaf.calc)
    const calc = calcs.get(leaf.calc)
    for (const inner of calc ? rulesOfCalc(calc) : []) calcsOf(inner, calcs, seen)
  }
  return seen
}
