import type { RegionPack } from '../pack/pack.js'
import { hasSides } from '../pack/view.js'
import type { FlagVerdict, PastFlag } from './verdict.js'
import type { CompiledPack } from './compiledPack.js'
import { SIDE_INDEX, SIDE_INDEXES } from '../model/side.js'
import type { JudgeContext } from './judgeContext.js'

/** By what a flag is known again: in a joint without a side, whose flags are told once for both, by its id alone. */
export const flagKey = (view: RegionPack, id: string, side: string): string => (hasSides(view) ? `${id}|${side}` : id)

/** Held flags by flag and side, as rules read them; in a joint without a side each is retained on all. */
export function retainedSlots(compiled: CompiledPack, retained: readonly PastFlag[]): JudgeContext['retained'] {
  return new Map(
    retained.flatMap((past) => {
      const sides = hasSides(compiled.pack) ? [SIDE_INDEX[past.flag.side]] : SIDE_INDEXES
      return sides.map((side) => [compiled.flagSlot(past.flag.id, side), past] as const)
    }),
  )
}

/** A flag that is retained stands at Now with what met it then, unless its findings meet it so again. */
export function withRetained(compiled: CompiledPack, met: FlagVerdict[], { retained }: JudgeContext): FlagVerdict[] {
  if (retained.size === 0) return met
  const keyOf = (flag: FlagVerdict): string => flagKey(compiled.pack, flag.id, flag.side)
  const byFindings = new Set(met.filter(({ tier }) => tier === 'now').map(keyOf))
  const kept = [...new Set(retained.values())].filter(({ flag }) => !byFindings.has(keyOf(flag)))
  const keptKeys = new Set(kept.map(({ flag }) => keyOf(flag)))
  return [...met.filter((flag) => !keptKeys.has(keyOf(flag))), ...kept.map(({ flag, from, until }) => ({ ...flag, retained: { from, until } }))]
}
