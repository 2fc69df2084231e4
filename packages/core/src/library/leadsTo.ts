import { itemsOfRule } from '../rules/calc.js'
import type { AnyPack } from '../pack/pack.js'
import { itemsById } from '../pack/itemsById.js'
import type { LibraryEntry } from './libraryIndex.js'

/**
 * The items that are examined for something of the library, the first to go to first: of a flag or a condition what its rules read, the core
 * before what is asked for, hands before questions.
 * @param pack the view of one region
 * @example leadsTo(knee, { kind: 'condition', id: 'knee.cond.acl' })[0] // 'knee.test.lachman'
 */
export function leadsTo(pack: AnyPack, { kind, id }: Pick<LibraryEntry, 'kind' | 'id'>): readonly string[] {
  const items = itemsById(pack)
  if (kind === 'test' || kind === 'item') return items.has(id) ? [id] : []
  const rules =
    kind === 'flag'
      ? pack.flags.filter((flag) => flag.id === id).flatMap((flag) => flag.clauses.map((clause) => clause.when))
      : pack.conditions.filter((one) => one.id === id).flatMap((one) => one.evidence.map((evidence) => evidence.when))
  const rank = (item: string): number => {
    const { stage, depth } = items.get(item) ?? { stage: 'patient', depth: 'on-demand' }
    return (stage === 'patient' ? 8 : stage === 'story' ? 4 : 0) + (depth === 'core' ? 0 : depth === 'prompted' ? 1 : 2)
  }
  const calcs = new Map(pack.calcs.map((calc) => [calc.id, calc]))
  const seen = new Set<string>()
  const read = [...new Set(rules.flatMap((rule) => itemsOfRule(rule, calcs, seen)))].filter((one) => items.has(one) && items.get(one)?.derive === undefined)
  return read
    .map((one, at) => ({ one, at }))
    .sort((a, b) => rank(a.one) - rank(b.one) || a.at - b.at)
    .map(({ one }) => one)
}
