import { judge } from '../judge/judge.js'
import { mostUrgent, tierRank, type Tier } from '../model/tier.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import { entryOf } from './alone.js'
import { examinationOf, idsFrom } from './calmRecord.js'
import { deservedIn, type LeastTiers } from './least.js'
import { problem } from './lintProblem.js'

/** A sequence of numbers from 0 up to 1 that is the same for the same seed (mulberry32). */
export function numbersFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
}

/**
 * Records in which one to twelve items took some word: the floor is never below what the most urgent of the words deserves by itself.
 * Statements that hold in some contexts only are left out, for what is drawn beside them may be the exception.
 * @param count how many records are judged
 * @example randomlyTooLow(view, leastTiers(files, view), 10_000, numbersFrom(1)) // []
 */
export function randomlyTooLow(view: RegionPack, least: LeastTiers, count: number, next: () => number): Problem[] {
  const choices = view.items.filter(({ options, derive }) => options.length > 0 && derive === undefined)
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(next() * list.length)]
  const problems: Problem[] = []
  for (let made = 0; made < count; made++) {
    const drawn = new Map(Array.from({ length: 1 + Math.floor(next() * 12) }, () => pick(choices)).flatMap((item) => (item ? [[item.id, item] as const] : [])))
    const newId = idsFrom(0)
    const told = [...drawn.values()].flatMap((item) => {
      const word = pick(item.options)
      return word === undefined || item.gaps.includes(word) ? [] : [{ item, word, entry: { ...entryOf(item, word), id: newId() } }]
    })
    const deserved = told.flatMap(({ item, word }): Tier[] => {
      const said = deservedIn(least.get(item.id)?.get(word), 'nothing else')
      return said === undefined || said.tier === 'none' || said.unless.length + said.in.length > 0 ? [] : [said.tier]
    })
    const most = mostUrgent(['here', ...deserved])
    const { floor } = judge(
      view,
      examinationOf(
        view,
        told.map(({ entry }) => entry),
      ),
    )
    if (tierRank(floor) > tierRank(most))
      problems.push(
        problem(
          view.regions[0].id,
          `${told.map(({ item, word }) => `${item.id}: ${word}`).join(', ')} deserves ${most} and is ${floor}`,
          'let a clause be met by it, or state otherwise',
        ),
      )
  }
  return problems
}
