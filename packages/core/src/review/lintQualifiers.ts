import { tierRank } from '../model/tier.js'
import { itemsById } from '../pack/itemsById.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import { leavesOf } from '../rules/leaves.js'
import { problem } from './lintProblem.js'

/** What the sheet and the quick line ask of an item in their own way. */
const ASKED_OTHERWISE: ReadonlySet<string> = new Set(['equal', 'method', 'precision'])

/**
 * A qualifier that a clause of Now, Today or Days reads is asked with the item, in its row: what nobody can record would leave it open for good.
 * @example lintQualifiers(view) // [{ id: 'screen.history-consistent', reason: 'has "delay", which any.flag.safeguarding reads and no row asks', … }]
 */
export function lintQualifiers(view: RegionPack): Problem[] {
  const items = itemsById(view)
  const calcs = new Map(view.calcs.map((calc) => [calc.id, calc]))
  const found = new Map<string, Problem>()
  for (const { id, clauses } of view.flags)
    for (const { tier, when } of clauses) {
      if (tierRank(tier) > tierRank('days')) continue
      const leaves = leavesOf(when).flatMap((leaf) => {
        const within = leaf.type === 'calc' ? calcs.get(leaf.calc)?.when : undefined
        return within ? leavesOf(within) : [leaf]
      })
      for (const leaf of leaves) {
        if (leaf.type !== 'compare' || leaf.term.qualifier === undefined) continue
        const item = items.get(leaf.term.item)
        const name = leaf.term.qualifier
        const isAsked = item === undefined || item.qualifiers[name]?.inRow === true || item.readings.includes(name) || ASKED_OTHERWISE.has(name)
        if (!isAsked) found.set(`${item.id} ${name}`, problem(item.id, `has "${name}", which ${id} reads and no row asks`, 'write inRow: true'))
      }
    }
  return [...found.values()]
}
