import type { Side, SideIndex } from '../model/side.js'
import { SIDES } from '../model/side.js'
import { NO, YES, truthOf } from '../rules/truth.js'
import type { JudgeContext } from './judgeContext.js'
import type { Judgement } from './judgement.js'
import type { CompiledPack } from './compiledPack.js'

export interface CalcVerdict {
  readonly id: string
  readonly label: string
  readonly side: Side
  readonly value: string
}

/** A score with something found for it. */
export interface ScoreReading {
  readonly id: string
  readonly label: string
  readonly side: Side
  readonly low: number
  readonly high: number
  readonly note?: string
  readonly source: string
}

/** Every calculated value of the pack as this record makes it: scores as ranges while parts are missing. */
export function calcVerdicts(judged: Judgement): readonly CalcVerdict[] {
  const { compiled, context, sides } = judged
  const bare = withoutAssumptions(judged)
  return sides.flatMap((side) =>
    compiled.calcs.map(({ calc }) => ({
      id: calc.id,
      label: calc.label,
      side: SIDES[side],
      value: calcValue(compiled, calc.kind === 'score' ? bare : context, side, calc.id, calc.kind),
    })),
  )
}

/** The scores that something speaks for, each as a range of what was found and what is still missing; of two sides that agree, one. */
export function scoreReadings(judged: Judgement): readonly ScoreReading[] {
  const { compiled, sides } = judged
  const bare = withoutAssumptions(judged)
  const found = sides.flatMap((side) =>
    compiled.calcs.flatMap((ready): ScoreReading[] => {
      const { calc, points, validWhen } = ready
      if (calc.kind !== 'score' || validWhen?.run(bare, side) === NO || !points.flat().some(({ rule }) => rule.run(bare, side) === YES)) return []
      const { id, label, note, source } = calc
      return [{ id, label, side: SIDES[side], ...ready.range(bare, side), ...(note === undefined ? {} : { note }), source }]
    }),
  )
  const alike = (a: ScoreReading, b: ScoreReading): boolean => a.id === b.id && a.low === b.low && a.high === b.high
  return found.filter((one, at) => !found.slice(0, at).some((other) => alike(one, other)))
}

/** A finding that nobody asked for is no finding: a score counts it neither way, although a flag may leave it aside. */
const withoutAssumptions = ({ compiled, context }: Judgement): JudgeContext => compiled.context(context.slots, context.previous, context.asOf, context.retained)

/** A number that may still be several: "4", or "2 to 5" while parts are missing. */
export const spanWords = ({ low, high }: { readonly low: number; readonly high: number }): string => (low === high ? String(low) : `${low} to ${high}`)

function calcValue(compiled: CompiledPack, context: JudgeContext, side: SideIndex, id: string, kind: 'truth' | 'ladder' | 'score'): string {
  const ready = compiled.compiledCalc(id)
  if (kind === 'truth') return truthOf(ready.truth(context, side))
  if (kind === 'score') return spanWords(ready.range(context, side))
  const { possible, mayFall } = ready.rungs(context, side)
  // Two rungs may say the same word: whichever it stops at, the value is known.
  return new Set(possible).size === 1 && !mayFall ? (possible[0] ?? 'unknown') : 'unknown'
}
