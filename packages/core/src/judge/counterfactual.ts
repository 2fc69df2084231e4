import { SIDE_INDEX, SIDES, type Side } from '../model/side.js'
import { tierRank, type Tier } from '../model/tier.js'
import { findingsOf } from '../rules/proof.js'
import { itemOfSlot, sideOfSlot, slotOf, type Reading } from '../rules/runtime.js'
import { settlingSet, totalCost } from '../rules/settle.js'
import { YES } from '../rules/truth.js'
import { judgeContext } from './verdictOf.js'
import type { JudgeContext } from './judgeContext.js'
import { type Judgement } from './judgement.js'
import type { CompiledPack } from './compiledPack.js'
import { type FlagVerdict } from './verdict.js'

export interface ChangedFinding {
  readonly item: string
  readonly side: Side
  /** What it would have to be: normal for a lowering, abnormal for a raising. */
  readonly to: 'normal' | 'abnormal'
}

/** "If these were so, the priority would be that." */
export interface Counterfactual {
  readonly direction: 'raise' | 'lower'
  readonly changes: readonly ChangedFinding[]
  readonly tier: Tier
  /** The flag that it would meet (raise), or the flags it would remove (lower). */
  readonly flags: readonly string[]
}

const MOST = 3

/**
 * The smallest changes that would move the priority: sets of at most three missing findings that would meet a more urgent flag,
 * and the smallest set of recorded abnormal findings that, were they normal, would take away every flag at the floor.
 */
export function counterfactuals(judged: Judgement): { readonly raise: readonly Counterfactual[]; readonly lower: readonly Counterfactual[] } {
  return { raise: raising(judged), lower: lowering(judged) }
}

function raising({ verdict, compiled, context }: Judgement): Counterfactual[] {
  const cost = (slot: number): number => compiled.item(itemOfSlot(slot)).seconds
  const found = verdict.openFlags.flatMap((open) => {
    const side = SIDE_INDEX[open.side]
    return compiled.compiledFlag(open.id).clauses.flatMap((clause) => {
      if (tierRank(clause.tier) >= tierRank(verdict.floor)) return []
      const set = settlingSet(clause.rule, YES, context, side, compiled, cost)
      return set === null || set.size === 0 || set.size > MOST ? [] : [{ set, tier: clause.tier, flag: open.id }]
    })
  })
  return found
    .sort((a, b) => a.set.size - b.set.size || tierRank(a.tier) - tierRank(b.tier) || totalCost(a.set, cost) - totalCost(b.set, cost))
    .slice(0, MOST)
    .map(({ set, tier, flag }) => ({ direction: 'raise', changes: [...set].map((slot) => changeAt(slot, 'abnormal', compiled)), tier, flags: [flag] }))
}

/** Flags that must go for the floor to fall, and the findings that hold them up. */
function lowering({ verdict, compiled, context, sides }: Judgement): Counterfactual[] {
  const atFloor = verdict.flags.filter((flag) => flag.tier === verdict.floor)
  // What is retained falls when it is lifted, not by a finding.
  if (atFloor.length === 0 || atFloor.some((flag) => flag.retained)) return []
  const candidates = recordedBehind(atFloor, compiled, context)
  for (let size = 1; size <= MOST; size++) {
    const hits = subsets(candidates, size)
      .filter((set) => allFall(atFloor, set, compiled, context))
      .map((set) => ({ set, tier: judgeContext(compiled, withNormal(set, compiled, context), sides).floor }))
      .filter(({ tier }) => tierRank(tier) > tierRank(verdict.floor))
    if (hits.length === 0) continue
    return hits.slice(0, MOST).map(({ set, tier }) => ({
      direction: 'lower',
      changes: set.map((slot) => changeAt(slot, 'normal', compiled)),
      tier,
      flags: atFloor.map((flag) => flag.id),
    }))
  }
  return []
}

/** Recorded findings in the proofs that could have been normal: facts about the person cannot be wished away. */
function recordedBehind(flags: readonly FlagVerdict[], compiled: CompiledPack, context: JudgeContext): number[] {
  const slots = flags
    .flatMap((flag) => (flag.proof ? findingsOf(flag.proof) : []))
    .map((finding) => slotOf(compiled.index(finding.item), SIDE_INDEX[finding.side]))
  return [...new Set(slots)].filter((slot) => {
    const item = compiled.item(itemOfSlot(slot))
    return item.depth !== 'card' && item.normal !== undefined && context.slots[slot] !== undefined
  })
}

function allFall(flags: readonly FlagVerdict[], set: readonly number[], compiled: CompiledPack, context: JudgeContext): boolean {
  const changed = withNormal(set, compiled, context)
  return flags.every((flag) => compiled.compiledFlag(flag.id).any.run(changed, SIDE_INDEX[flag.side]) !== YES)
}

/** A copy of the working area in which some findings read normal. What is not asked for stays as it was. */
function withNormal(set: readonly number[], compiled: CompiledPack, context: JudgeContext): JudgeContext {
  const slots = [...context.slots]
  for (const slot of set) slots[slot] = normalReading(slot, compiled, context)
  const changed = compiled.context(slots, context.previous, context.asOf, context.retained)
  compiled.enterPhase(changed, { deciding: false, indicated: context.indicated })
  return changed
}

function normalReading(slot: number, compiled: CompiledPack, context: JudgeContext): Reading {
  const item = compiled.item(itemOfSlot(slot))
  const other = context.slots[sideOfSlot(slot) === 0 ? slot + 1 : slot - 1]
  const like = item.kind === 'angle' && sideOfSlot(slot) !== 2 && other?.examined ? other : undefined
  return {
    examined: true,
    reason: undefined,
    isGap: false,
    notValid: false,
    value: like?.value ?? item.normal?.value,
    qualifiers: like?.qualifiers ?? item.normal?.qualifiers ?? {},
  }
}

const changeAt = (slot: number, to: 'normal' | 'abnormal', compiled: CompiledPack): ChangedFinding => ({
  item: compiled.item(itemOfSlot(slot)).id,
  side: SIDES[sideOfSlot(slot)],
  to,
})

function subsets(from: readonly number[], size: number): number[][] {
  if (size === 0) return [[]]
  return from.flatMap((first, at) => subsets(from.slice(at + 1), size - 1).map((rest) => [first, ...rest]))
}
