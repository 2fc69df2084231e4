import type { Side } from '../content/types.js'
import type { Judgement } from './judge.js'
import type { Prepared } from './prepare.js'
import { SIDE_NAMES, type Context } from './runtime.js'
import { truthOf } from './truth.js'

export interface CalcVerdict {
  readonly id: string
  readonly label: string
  readonly side: Side
  readonly value: string
}

/** Every calculated value of the pack as this record makes it: scores as ranges while parts are missing. */
export function calcVerdicts({ prepared, context, sides }: Judgement): readonly CalcVerdict[] {
  return sides.flatMap((side) =>
    prepared.calcs.map(({ calc }) => ({
      id: calc.id,
      label: calc.label,
      side: SIDE_NAMES[side] ?? 'none',
      value: calcValue(prepared, context, side, calc.id, calc.kind),
    })),
  )
}

function calcValue(prepared: Prepared, context: Context, side: number, id: string, kind: 'truth' | 'ladder' | 'score'): string {
  if (kind === 'truth') return truthOf(prepared.calcTruth(id, context, side))
  if (kind === 'score') {
    const { low, high } = prepared.scoreRange(id, context, side)
    return low === high ? String(low) : `${low} to ${high}`
  }
  const { possible, mayFall } = prepared.rungs(id, context, side)
  // Two rungs may say the same word: whichever it stops at, the value is known.
  return new Set(possible).size === 1 && !mayFall ? (possible[0] ?? 'unknown') : 'unknown'
}
