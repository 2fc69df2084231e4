import type { Judgement } from '../judge/judgement.js'
import { SIDE_INDEX, type Side } from '../model/side.js'
import type { Accuracy, Item } from '../model/item.js'
import { slotOf } from '../rules/runtime.js'
import { compiledConditions } from './conditions.js'

/** What a negative test leaves open. */
export interface Residual {
  /** Of 100 who have it, how many this test misses. */
  readonly missed: number
  readonly figure: Accuracy
  /** Tests of the same conditions, not done yet, that would lower it: the one that lowers most first. */
  readonly lowers: readonly { readonly item: string; readonly label: string }[]
}

const MOST_NAMED = 2

/**
 * The chance that a negative result leaves, and what would lower it: no negative test of the bedside is the end of a suspicion.
 * @returns undefined where it is not negative on that side, or no usable figure says how many it misses
 * @example residualOf(sharpPurser, judgement(pack, negativeInRheumatoidNeck), 'none') // { missed: 31, figure: { sens: 69, … }, lowers: […] }
 */
export function residualOf(item: Item, judged: Judgement, side: Side): Residual | undefined {
  const { compiled, context, standing } = judged
  const at = SIDE_INDEX[side]
  const entry = standing[slotOf(compiled.index(item.id), at)]
  const figure = item.accuracy.find(({ sens, unverified }) => sens !== undefined && unverified !== true)
  if (figure?.sens === undefined || figure.sens >= 100 || entry?.state !== 'examined' || !item.calm.includes(String(entry.value))) return undefined
  const others = compiledConditions(compiled)
    .filter(({ evidence }) => evidence.some(({ items }) => items.has(item.id)))
    .flatMap(({ evidence }) => evidence.map(({ items, evidence: { lrNegative } }) => ({ items: [...items], lowers: lrNegative?.[1] ?? 1 })))
    .filter(({ lowers }) => lowers < 1)
    .sort((a, b) => a.lowers - b.lowers)
  const open = others.flatMap(({ items: [id = '', ...more] }) => {
    if (more.length > 0 || id === item.id) return []
    const other = compiled.item(compiled.index(id))
    const isOpen = context.slots[slotOf(compiled.index(id), other.sided ? at : SIDE_INDEX.none)] === undefined
    return isOpen && other.stage !== 'story' && other.stage !== 'patient' ? [{ item: id, label: other.label }] : []
  })
  return { missed: 100 - figure.sens, figure, lowers: [...new Map(open.map((one) => [one.item, one])).values()].slice(0, MOST_NAMED) }
}
