import type { FlagVerdict } from '../judge/verdict.js'
import type { Action, RegionPack } from '../pack/pack.js'

/** What some flags ask for at once. */
export interface DoFirst {
  /** Names of the destinations to call. */
  readonly calls: readonly string[]
  readonly actions: readonly Action[]
  readonly avoid: readonly string[]
}

/** @param raised destinations of a priority that was raised past the findings */
export function doFirst(pack: RegionPack, flags: readonly FlagVerdict[], raised: readonly string[] = []): DoFirst {
  const each = <T>(of: (flag: FlagVerdict) => readonly T[]): readonly T[] => [...new Set(flags.flatMap(of))]
  return {
    calls: [...new Set([...raised, ...each((flag) => flag.to)])].map((id) => pack.destinations.find((one) => one.id === id)?.name ?? id),
    actions: each((flag) => flag.doNow).flatMap((id) => pack.actions.find((one) => one.id === id) ?? []),
    avoid: each((flag) => flag.avoid),
  }
}
