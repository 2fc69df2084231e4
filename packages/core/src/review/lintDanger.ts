import type { Clause, RegionPack } from '../pack/pack.js'
import type { Item } from '../model/item.js'
import type { Calc } from '../rules/calc.js'
import { itemsById } from '../pack/itemsById.js'
import { tierRank } from '../model/tier.js'
import type { Problem } from '../pack/problem.js'
import type { Leaf, RuleNode } from '../rules/rule.js'
import { problem } from './lintProblem.js'

/** What hides a picture while nobody has asked. */
interface Hidden {
  readonly owner: string
  readonly reason: string
  readonly cure: string
}

/**
 * How a danger clause is written: at Now, Today and Days an exclusion or a time window that nobody asked for never hides the picture.
 * A bare `not`, a comparison with a calm value or an upper bound of time is refused wherever the clause needs it, unless the clause says why.
 * @example lintDanger(view) // [{ id: 'knee.flag.locked', reason: 'is hidden while "story.onset-days <= 14 days" is not known', … }]
 */
export function lintDanger(view: RegionPack): Problem[] {
  const items = itemsById(view)
  const calcs = new Map(view.calcs.map((calc) => [calc.id, calc]))
  const found = view.flags.flatMap((flag) =>
    flag.clauses
      .filter((clause) => isDanger(clause) && clause.because === undefined)
      .flatMap((clause) => hiding(clause.when, { owner: flag.id, items, calcs, seen: new Set() })),
  )
  const unique = new Map(found.map((one) => [`${one.owner} ${one.reason}`, one]))
  return [...unique.values()].map(({ owner, reason, cure }) => problem(owner, reason, `${cure}, or say because in the clause`))
}

const isDanger = ({ tier }: Clause): boolean => tierRank(tier) <= tierRank('days')

interface Walk {
  readonly owner: string
  readonly items: ReadonlyMap<string, Item>
  readonly calcs: ReadonlyMap<string, Calc>
  readonly seen: ReadonlySet<string>
}

function hiding(node: RuleNode, walk: Walk): Hidden[] {
  if (node.op === 'leaf') return hidingLeaf(node.leaf, walk)
  if (node.op === 'proven') return []
  if (node.op !== 'not') return node.of.flatMap((kid) => hiding(kid, walk))
  const [kid] = node.of
  if (kid.op === 'proven') return []
  const what = kid.op === 'leaf' ? kid.leaf.text : `${kid.op} of ${String(kid.of.length)}`
  return [{ owner: walk.owner, reason: `is hidden while "not: ${what}" is not known`, cure: 'write not: { proven: … }' }]
}

function hidingLeaf(leaf: Leaf, walk: Walk): Hidden[] {
  if (leaf.type === 'calc') {
    const calc = walk.calcs.get(leaf.calc)
    if (calc?.when === undefined || leaf.cmp !== 'is' || calc.because !== undefined || walk.seen.has(calc.id)) return []
    return hiding(calc.when, { ...walk, owner: calc.id, seen: new Set([...walk.seen, calc.id]) })
  }
  if (leaf.type !== 'compare' || leaf.term.qualifier !== undefined || leaf.term.fn !== 'value') return []
  const item = walk.items.get(leaf.term.item)
  if (!item) return []
  if (isTime(item) && (leaf.cmp === '<' || leaf.cmp === '<='))
    return [{ owner: walk.owner, reason: `is hidden while "${leaf.text}" is not known`, cure: 'write not: { proven: … > … }' }]
  const excludes = item.options.some((word) => !item.calm.includes(word) && !item.gaps.includes(word))
  const onlyCalm = excludes && leaf.operand.length > 0 && leaf.operand.every((word) => item.calm.includes(word))
  return onlyCalm && (leaf.cmp === '=' || leaf.cmp === 'in' || leaf.cmp === 'has')
    ? [{ owner: walk.owner, reason: `is hidden while "${leaf.text}" is not known`, cure: 'write not: { proven: … != … }' }]
    : []
}

/** How long ago something began or happened. */
const isTime = ({ unit, stage }: Item): boolean => stage === 'story' && ['days', 'hours', 'weeks', 'months', 'years', 'd', 'h'].includes(unit ?? '')
