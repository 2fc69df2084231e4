import { type Calc, itemsOfRule } from '../rules/calc.js'
import type { Flag } from './pack.js'

/** The items that could meet or exclude a flag of tier now or today: those are answered one by one. */
export function urgentItems(flags: readonly Flag[], calcs: readonly Calc[]): ReadonlySet<string> {
  const byId = new Map(calcs.map((calc) => [calc.id, calc]))
  const urgent = flags.flatMap((flag) => flag.clauses.filter(({ tier }) => tier === 'now' || tier === 'today'))
  const seen = new Set<string>()
  return new Set(urgent.flatMap((clause) => itemsOfRule(clause.when, byId, seen)))
}
