import type { Calc } from './calc.js'
import { slotOf, type Compiled, type Context, type Rungs } from './runtime.js'
import type { Interval } from '../model/interval.js'
import { NO, UNKNOWN, YES, type T } from './truth.js'
import type { SideIndex } from '../model/side.js'

export interface CompiledLevel {
  readonly points: number
  readonly rule: Compiled
}

/** A calculated value ready to work out: a truth, a ladder tried from the top, or a score of components. Each is remembered for the phase. */
export class CompiledCalc {
  readonly when: Compiled | undefined
  readonly validWhen: Compiled | undefined
  readonly ladder: readonly { readonly value: string; readonly rule: Compiled }[]
  /** The components of a score, each with its levels; a part that stands alone has one. */
  readonly points: readonly (readonly CompiledLevel[])[]

  /** @param at its place among the calcs of the view: where its answers are remembered */
  constructor(
    readonly calc: Calc,
    private readonly at: number,
    ready: (rule: NonNullable<Calc['when']>) => Compiled,
  ) {
    this.when = calc.when && ready(calc.when)
    this.validWhen = calc.validWhen && ready(calc.validWhen)
    this.ladder = calc.ladder.map((rung) => ({ value: rung.value, rule: ready(rung.when) }))
    this.points = componentsOf(calc.points.map(({ points, when, oneOf }) => ({ points, oneOf, rule: ready(when) })))
  }

  truth(context: Context, side: SideIndex): T {
    const valid = this.validWhen ? this.validWhen.run(context, side) : YES
    const truth = valid === NO ? UNKNOWN : (this.when?.run(context, side) ?? UNKNOWN)
    return valid === UNKNOWN && truth !== YES ? UNKNOWN : truth
  }

  /** A score as a range: what is known for certain, and what the unknown parts could still add or take away. */
  range(context: Context, side: SideIndex): Interval {
    return (context.memory.scores[slotOf(this.at, side)] ??= this.addUp(context, side))
  }

  private addUp(context: Context, side: SideIndex): Interval {
    let low = 0
    let high = 0
    for (const levels of this.points) {
      let [least, most, isKnown] = [0, 0, false]
      for (const { points, rule } of levels) {
        const truth = rule.run(context, side)
        if (truth === YES && !isKnown) [least, most, isKnown] = [points, points, true]
        if (truth !== UNKNOWN || isKnown) continue
        least = Math.min(least, points)
        most = Math.max(most, points)
      }
      low += least
      high += most
    }
    return { low, high }
  }

  /** Where a ladder stops, tried from the top. */
  rungs(context: Context, side: SideIndex): Rungs {
    return (context.memory.ladders[slotOf(this.at, side)] ??= this.climbDown(context, side))
  }

  private climbDown(context: Context, side: SideIndex): Rungs {
    const possible: string[] = []
    for (const { value, rule } of this.ladder) {
      const truth = rule.run(context, side)
      if (truth === NO) continue
      possible.push(value)
      if (truth === YES) return { possible, mayFall: false }
    }
    return { possible, mayFall: true }
  }
}

/** Levels of one component together, in the order written. */
function componentsOf(parts: readonly (CompiledLevel & { readonly oneOf: number | undefined })[]): (readonly CompiledLevel[])[] {
  const components = new Map<string, CompiledLevel[]>()
  parts.forEach((part, at) => {
    const key = part.oneOf === undefined ? `alone ${String(at)}` : `one of ${String(part.oneOf)}`
    components.set(key, [...(components.get(key) ?? []), part])
  })
  return [...components.values()]
}
