import type { AnyPack } from './pack.js'
import { rulesOfCalc } from '../rules/calc.js'
import type { RuleNode } from '../rules/rule.js'
/** Every rule of a pack with the id of what owns it. */
export function rulesOf(pack: AnyPack): (readonly [id: string, rule: RuleNode])[] {
  return [
    ...pack.flags.flatMap((flag) => [[flag.id, flag.inPlay] as const, ...flag.clauses.map((clause) => [flag.id, clause.when] as const)]),
    ...pack.calcs.flatMap((calc) => rulesOfCalc(calc).map((rule) => [calc.id, rule] as const)),
    ...pack.prompts.map((group) => [group.id, group.when] as const),
    ...pack.holds.map((hold) => [hold.id, hold.when] as const),
    ...pack.modifiers.map((modifier) => [modifier.id, modifier.when] as const),
    ...pack.phrases.flatMap(({ id, when }) => (when ? [[id, when] as const] : [])),
    ...pack.conditions.flatMap(({ id, gate, evidence, presentations }) =>
      [...(gate ? [gate] : []), ...[...presentations, ...evidence].map((one) => one.when)].map((rule) => [id, rule] as const),
    ),
  ]
}
