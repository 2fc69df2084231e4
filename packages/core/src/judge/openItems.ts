import { SIDE_INDEX, SIDES, type Side } from '../model/side.js'
import { moreUrgent, tierRank, type Tier } from '../model/tier.js'
import { itemOfSlot, sideOfSlot } from '../rules/runtime.js'
import { settlingSet } from '../rules/settle.js'
import { NO, UNKNOWN } from '../rules/truth.js'
import { activeHolds } from './holds.js'
import type { Judgement } from './judgement.js'
import type { FlagVerdict } from './verdict.js'

/** A finding that is still missing and matters to the priority. */
export interface OpenItem {
  readonly item: string
  readonly sides: readonly Side[]
  readonly label: string
  /** Seconds for the sides still missing. */
  readonly seconds: number
  /** Most urgent tier that it helps to settle. */
  readonly tier: Tier
  readonly flags: readonly string[]
  readonly onHold: boolean
}

/**
 * The missing findings that would bring the ceiling down (or, at the ceiling already, complete the picture), first the one to take first:
 * by the tier it can move, then core before prompted, story and screen before what needs hands, then how many flags it helps to settle, then its time.
 */
export function openItems(judged: Judgement): readonly OpenItem[] {
  const { verdict, compiled, context } = judged
  const { openFlags, floor } = verdict
  const onHold = new Set(activeHolds(judged).flatMap((hold) => hold.stops))
  const cost = (slot: number): number => compiled.item(itemOfSlot(slot)).seconds / (sideOfSlot(slot) === 2 ? 1 : 2)
  const found = new Map<number, { slots: Set<number>; tier: Tier; flags: Set<string>; sure: boolean }>()
  for (const flag of openFlags) {
    const tier = flag.ceiling ?? 'here'
    if (tierRank(tier) > tierRank(floor)) continue
    const ready = compiled.compiledFlag(flag.id)
    for (const clause of ready.clauses) {
      const set = settlingSet(clause.rule, NO, context, SIDE_INDEX[flag.side], compiled, cost)
      for (const slot of set ?? []) note(found, slot, tier, flag)
    }
    // A flag that is met may still be moved by a fact that nobody knows: that fact is missing too.
    if (flag.truth !== 'met') continue
    for (const modifier of ready.modifiers) {
      if (modifier.rule.run(context, SIDE_INDEX[flag.side]) !== UNKNOWN) continue
      for (const slot of settlingSet(modifier.rule, NO, context, SIDE_INDEX[flag.side], compiled, cost) ?? []) note(found, slot, tier, flag)
    }
  }
  return [...found.entries()]
    .map(([index, about]) => {
      const item = compiled.item(index)
      const slots = [...about.slots]
      return {
        order: [
          tierRank(about.tier),
          about.sure ? 0 : 1,
          item.depth === 'core' || item.depth === 'card' ? 0 : 1,
          STAGE_ORDER[item.stage] ?? 2,
          -about.flags.size,
          item.seconds,
        ],
        open: {
          item: item.id,
          sides: slots.map((slot) => SIDES[sideOfSlot(slot)]),
          label: item.label,
          seconds: slots.reduce((sum, slot) => sum + cost(slot), 0),
          tier: about.tier,
          flags: [...about.flags],
          onHold: onHold.has(item.id),
        },
      }
    })
    .sort((a, b) => Number(a.open.onHold) - Number(b.open.onHold) || lexical(a.order, b.order) || (a.open.item < b.open.item ? -1 : 1))
    .map(({ open }) => open)
}

/** Questions and the screen come before everything that needs hands. */
const STAGE_ORDER: Partial<Record<string, number>> = { patient: 0, story: 0, screen: 1 }

function note(found: Map<number, { slots: Set<number>; tier: Tier; flags: Set<string>; sure: boolean }>, slot: number, tier: Tier, flag: FlagVerdict): void {
  const index = itemOfSlot(slot)
  const about = found.get(index) ?? { slots: new Set(), tier, flags: new Set(), sure: false }
  about.slots.add(slot)
  about.flags.add(flag.id)
  about.tier = moreUrgent(about.tier, tier)
  about.sure ||= flag.inPlay === 'met'
  found.set(index, about)
}

function lexical(a: readonly number[], b: readonly number[]): number {
  for (const [at, value] of a.entries()) {
    const difference = value - (b[at] ?? 0)
    if (difference !== 0) return difference
  }
  return 0
}
