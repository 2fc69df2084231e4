import type { RegionPack } from '../pack/pack.js'
import { hasSides } from '../pack/view.js'
import type { FlagVerdict, PastFlag } from './verdict.js'
import type { Prepared } from './prepare.js'
import { SIDE_INDEX, SIDE_INDEXES } from '../model/side.js'
import type { JudgeContext } from './judgeContext.js'

/** By what a flag is known again: in a joint without a side, whose flags are told once for both, by its id alone. */
export const flagKey = (view: RegionPack, id: string, side: string): string => (hasSides(view) ? `${id}|${side}` : id)

/** Held flags by flag and side, as rules read them; in a joint without a side each is held on all. */
export function heldSlots(prepared: Prepared, held: readonly PastFlag[]): JudgeContext['held'] {
  return new Map(
    held.flatMap((past) => {
      const sides = hasSides(prepared.pack) ? [SIDE_INDEX[past.flag.side]] : SIDE_INDEXES
      return sides.map((side) => [prepared.flagSlot(past.flag.id, side), past] as const)
    }),
  )
}

/** A flag that is held stands at Now with what met it then, unless its findings meet it so again. */
export function withHeld(prepared: Prepared, met: FlagVerdict[], { held }: JudgeContext): FlagVerdict[] {
  if (held.size === 0) return met
  const keyOf = (flag: FlagVerdict): string => flagKey(prepared.pack, flag.id, flag.side)
  const byFindings = new Set(met.filter(({ tier }) => tier === 'now').map(keyOf))
  const kept = [...new Set(held.values())].filter(({ flag }) => !byFindings.has(keyOf(flag)))
  const keptKeys = new Set(kept.map(({ flag }) => keyOf(flag)))
  return [...met.filter((flag) => !keptKeys.has(keyOf(flag))), ...kept.map(({ flag, from, until }) => ({ ...flag, held: { from, until } }))]
}
