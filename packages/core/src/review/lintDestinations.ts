import { tierRank } from '../model/tier.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import { problem } from './lintProblem.js'

/**
 * Where a clause sends first can take the patient in time: Now never goes to a clinic, Today never to one that sees within days; and
 * only Now goes to the resuscitation room.
 * @example lintDestinations(view) // [{ id: 'any.flag.zoster', reason: 'sends Now to dest.neurology first, which sees from days on', … }]
 */
export function lintDestinations(view: RegionPack): Problem[] {
  const places = new Map(view.destinations.map((place) => [place.id, place]))
  return view.flags.flatMap((flag) => {
    const idle = flag.clauses.flatMap(({ tier, to = flag.to }) =>
      tier !== 'now' && to[0] === RESUSCITATION
        ? [problem(flag.id, `sends ${tier} to the resuscitation room first`, 'give the clause its own `to`: dest.ed, or the team on call')]
        : [],
    )
    const late = flag.clauses.flatMap(({ tier, to = flag.to }) => {
      const [first] = to
      const place = first === undefined ? undefined : places.get(first)
      return place && tierRank(place.sees) > tierRank(tier)
        ? [problem(flag.id, `sends ${tier} to ${place.id} first, which sees from ${place.sees} on`, 'give the clause its own `to`')]
        : []
    })
    return [...idle, ...late]
  })
}

const RESUSCITATION = 'dest.ed-resus'
