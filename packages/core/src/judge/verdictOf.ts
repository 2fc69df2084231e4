import { NORMAL } from '../model/item.js'
import { SIDE_INDEX, SIDES, type SideIndex } from '../model/side.js'
import { mostUrgent, tierRank } from '../model/tier.js'
import { type RegionPack } from '../pack/pack.js'
import { hasSides } from '../pack/view.js'
import { findingsOf, proofOf } from '../rules/proof.js'
import { slotOf } from '../rules/runtime.js'
import { NO, UNKNOWN, YES, type T } from '../rules/truth.js'
import { askedItems } from './asked.js'
import { isCalm, withoutFalseCalm } from './calm.js'
import type { CompiledPack } from './compiledPack.js'
import type { JudgeContext } from './judgeContext.js'
import { judgeFlag } from './judgeFlag.js'
import { withRetained } from './retained.js'
import { isUnexplained, withoutUnexplained } from './unexplained.js'
import type { Asked, FlagVerdict, HoldVerdict, Verdict } from './verdict.js'
import { waitsForAsked } from './waitsForAsked.js'

/** The verdict of what stands, worked out from its beginning. */
export function judgeContext(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): Verdict {
  compiled.enterPhase(context, { deciding: true, indicated: null })
  const asked = askedItems(compiled, context, sides)
  compiled.enterPhase(context, { deciding: false, indicated: asked.level })
  return verdictOf(compiled, context, sides, asked)
}

/** The verdict of a context whose phases are prepared, with the items that are asked for. */
export function verdictOf(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[], asked: Asked): Verdict {
  const holds = metHolds(compiled, context, sides)
  const judged = sides.flatMap((side, at) =>
    compiled.flags.flatMap(
      (_, flag) => judgeFlag(compiled, context, side, flag, playingOf(compiled, context, side, flag, asked, asked.inPlay[flag]?.[at] ?? UNKNOWN)) ?? [],
    ),
  )
  const found = [...judged.filter((flag) => flag.truth === 'met'), ...comparisonSideFlags(compiled, context, sides, judged)]
  const isHeld = (flag: FlagVerdict): boolean => context.retained.has(compiled.flagSlot(flag.id, SIDE_INDEX[flag.side]))
  const openFlags = judged.filter(
    (flag) => flag.ceiling !== undefined && (flag.tier === undefined || tierRank(flag.ceiling) < tierRank(flag.tier)) && !isHeld(flag),
  )
  const byFindings = withoutUnexplained(withoutRepeats(compiled, found))
  const met = withRetained(compiled, withoutFalseCalm(byFindings, openFlags, { compiled, context, sides }), context)
  const floor = mostUrgent(met.map((flag) => flag.tier ?? 'here'))
  const ceiling = mostUrgent([floor, ...judged.map((flag) => flag.ceiling ?? 'here')])
  return {
    floor,
    ceiling,
    flags: byUrgency(compiled.pack, met),
    openFlags: byUrgency(compiled.pack, openFlags),
    holds,
    asked,
  }
}

/** In a region without a side a flag that both sides meet is told once, with no side unless its findings have one. */
function withoutRepeats(compiled: CompiledPack, flags: readonly FlagVerdict[]): FlagVerdict[] {
  if (hasSides(compiled.pack)) return [...flags]
  const byId = new Map<string, FlagVerdict>()
  for (const flag of [...flags].sort((a, b) => tierRank(a.tier ?? 'here') - tierRank(b.tier ?? 'here'))) {
    const isSided = flag.proof !== undefined && findingsOf(flag.proof).some((finding) => finding.side !== 'none')
    if (!byId.has(flag.id))
      byId.set(flag.id, isSided && !flags.some((other) => other.id === flag.id && other.side !== flag.side) ? flag : { ...flag, side: 'none' })
  }
  return [...byId.values()]
}

/** Whether a flag is in play: by the core, or because a finding that could still meet it is asked for anyway. */
function playingOf(compiled: CompiledPack, context: JudgeContext, side: SideIndex, at: number, asked: Asked, byCore: T): T {
  const { flag, any } = compiled.flags[at] ?? {}
  const byItself = flag && isUnexplained(flag) ? NO : byCore
  return byItself === NO && any !== undefined && waitsForAsked(any, context, side, compiled, asked.level) ? UNKNOWN : byItself
}

/** The side that does not hurt is the comparison: it raises a flag only by a finding of its own, and leaves none open. */
function comparisonSideFlags(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[], judged: readonly FlagVerdict[]): FlagVerdict[] {
  const others = ([0, 1] as const).filter((side) => !sides.includes(side) && sides.every((s) => s !== 2))
  const raised = new Map<string, number>()
  for (const { id, truth, tier } of judged) if (truth === 'met') raised.set(id, Math.min(tierRank(tier ?? 'here'), raised.get(id) ?? Infinity))
  return others.flatMap((side) =>
    flagsOfOwn(compiled, context, side).flatMap((at) => {
      const ready = compiled.flags[at]
      if (!ready || isCalm(ready.flag) || ready.any.run(context, side) !== YES) return []
      const verdict = judgeFlag(compiled, context, side, at, NO)
      // What the sore side tells as urgently is told once.
      if ((raised.get(ready.flag.id) ?? Infinity) <= tierRank(verdict?.tier ?? 'here')) return []
      const own =
        verdict?.proof &&
        findingsOf(verdict.proof).some(
          (finding) => finding.side === SIDES[side] && finding.state === 'examined' && isAbnormal(compiled, context, compiled.index(finding.item), side),
        )
      return verdict && own ? [verdict] : []
    }),
  )
}

/** Flags that something found on this side may help to meet: only these can be raised by it. */
function flagsOfOwn(compiled: CompiledPack, context: JudgeContext, side: SideIndex): number[] {
  const flags = new Set<number>()
  compiled.pack.items.forEach(({ sided }, index) => {
    const isOwn = sided && context.slots[slotOf(index, side)]?.examined === true && isAbnormal(compiled, context, index, side)
    if (isOwn) for (const flag of compiled.dependentsOn(index).flags) flags.add(flag)
  })
  return [...flags].sort((a, b) => a - b)
}

function isAbnormal(compiled: CompiledPack, context: JudgeContext, index: number, side: SideIndex): boolean {
  const value = context.slots[slotOf(index, side)]?.value
  return value !== NORMAL && (typeof value !== 'string' || !compiled.item(index).calm.includes(value))
}

function metHolds(compiled: CompiledPack, context: JudgeContext, sides: readonly SideIndex[]): HoldVerdict[] {
  return sides.flatMap((side) =>
    compiled.holds.flatMap(({ hold, rule }) =>
      compiled.holdTruth(hold.id, context, side) === YES
        ? [
            {
              id: hold.id,
              title: hold.title,
              side: SIDES[side],
              reason: hold.reason,
              allowed: hold.allowed,
              stops: hold.stops,
              proof: proofOf(rule, context, side, compiled),
            },
          ]
        : [],
    ),
  )
}

/** Most urgent first; among equals as the pack orders their classes, then by id. */
function byUrgency({ leadOrder }: RegionPack, flags: readonly FlagVerdict[]): FlagVerdict[] {
  const rankOf = (flag: FlagVerdict): number => {
    const lead = leadOrder.findIndex((letter) => flag.classes.includes(letter))
    return tierRank(flag.tier ?? flag.ceiling ?? 'here') * (leadOrder.length + 1) + (lead < 0 ? leadOrder.length : lead)
  }
  const ranked = flags.map((flag) => ({ flag, rank: rankOf(flag) }))
  return ranked.sort((a, b) => a.rank - b.rank || (a.flag.id < b.flag.id ? -1 : 1)).map(({ flag }) => flag)
}
