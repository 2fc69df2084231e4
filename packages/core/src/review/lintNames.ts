import type { Problem } from '../pack/problem.js'
import type { Pack, RegionPack } from '../pack/pack.js'
import { viewOf } from '../pack/view.js'
import { problem } from './lintProblem.js'

/** Characters that a name may have: it stands in one line of a row. */
const LONGEST = 40

/** What names a thing fits its row, and no two items of a joint are told apart by their id alone. */
export function lintNames(pack: Pack): Problem[] {
  const named = [
    ...pack.items.map(({ id, label }) => [id, label] as const),
    ...pack.calcs.map(({ id, label }) => [id, label] as const),
    ...pack.flags.map(({ id, title }) => [id, title] as const),
    ...pack.conditions.map(({ id, name }) => [id, name] as const),
    ...pack.actions.map(({ id, name }) => [id, name] as const),
    ...pack.destinations.map(({ id, name }) => [id, name] as const),
  ]
  return [
    ...new Map(
      named
        .filter(([, name]) => name.length > LONGEST)
        .map(([id, name]) => [id, problem(id, `"${name}" has ${name.length} characters`, `${LONGEST} at most: the rest belongs to the hint`)]),
    ).values(),
    ...pack.items
      .filter(({ label, unit }) => unit !== undefined && label.endsWith(`(${unit})`))
      .map(({ id, label }) => problem(id, `"${label}" repeats the unit, which stands with each value`, 'leave it out')),
    ...pack.regions.flatMap(({ id }) => twins(viewOf(pack, id))),
  ]
}

function twins(view: RegionPack): Problem[] {
  const first = new Map<string, string>()
  return view.items.flatMap(({ id, label }) => {
    const other = first.get(label.toLowerCase())
    first.set(label.toLowerCase(), other ?? id)
    return other === undefined ? [] : [problem(id, `is called "${label}", as ${other} is, in the ${view.regions[0].id}`, 'say what tells them apart')]
  })
}
