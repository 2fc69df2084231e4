/** So many faults are named; somebody who has put these right sends it again. */
const NAMED = 20

/**
 * The first faults of many, and how many more there are: a list as long as what was sent helps nobody, and costs more than reading it.
 * @param each the faults of one part after the other; parts after the first twenty faults are only counted
 * @example firstFaults(entries.map(faultsOf), '/entries').at(-1) // { path: '/entries', reason: 'has 4,980 more faults', … }
 */
export function firstFaults(each: Iterable<readonly Fault[]>, path: string): Fault[] {
  const named: Fault[] = []
  let more = 0
  for (const faults of each) {
    const room = Math.max(0, NAMED - named.length)
    named.push(...faults.slice(0, room))
    more += Math.max(0, faults.length - room)
  }
  const rest = `has ${more.toLocaleString('en-GB')} more fault${more === 1 ? '' : 's'}`
  return more === 0 ? named : [...named, { path, reason: rest, expected: 'these put right first, then all of it sent again' }]
}

/** Why something that was sent cannot be taken: where, what is wrong, and what was expected. */
export interface Fault {
  readonly path: string
  readonly reason: string
  readonly expected: string
}
