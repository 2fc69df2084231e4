import type { Side } from '../model/side.js'
import { SIDE_INDEX, SIDES } from '../model/side.js'
import type { EntryOf } from '../record/entry.js'
import { itemOfSlot, sideOfSlot } from '../rules/runtime.js'
import { wayOut } from '../rules/settle.js'
import type { Judgement } from './judgement.js'
import type { HoldVerdict } from './verdict.js'

/** Something that nobody knows and a hold stands on. */
interface Awaited {
  readonly item: string
  readonly side: Side
  readonly label: string
}

/** A hold as the sheet shows it. */
export interface StandingHold extends HoldVerdict {
  /** What nobody knows and it stands on: told or examined, it may fall. Empty when it stands on what was found. */
  readonly awaits: readonly Awaited[]
}

/** The release of a hold, for all that it stops, as far as it stands. @returns the entry with name, reason and time */
export const releaseOf = (hold: Pick<HoldVerdict, 'id' | 'side'>, { record }: Pick<Judgement, 'record'>): EntryOf<'released'> | undefined =>
  record.decisions.releases.find((entry) => entry.hold === hold.id && (entry.side === hold.side || entry.side === 'none' || hold.side === 'none'))

/** Holds that nobody released. */
export const activeHolds = (judged: Pick<Judgement, 'verdict' | 'record'>): readonly HoldVerdict[] =>
  judged.verdict.holds.filter((hold) => releaseOf(hold, judged) === undefined)

/**
 * The holds that stop something now, each with what it waits for. What another hold stops is no way out, so it is never asked for.
 * @example standingHolds(judgement(pack, kneeHurtTwoWeeksAgo))[0]?.awaits // the bone points that nobody felt
 */
export function standingHolds(judged: Judgement): readonly StandingHold[] {
  const active = activeHolds(judged)
  const stopped = new Set(active.flatMap((hold) => hold.stops))
  return active.map((hold) => ({ ...hold, awaits: awaitedBy(hold, judged, stopped) }))
}

/** In the words of what can be asked or examined: a span of days is asked by its date. */
function awaitedBy(hold: HoldVerdict, { compiled, context }: Judgement, stopped: ReadonlySet<string>): readonly Awaited[] {
  const cost = (slot: number): number => {
    const item = compiled.item(itemOfSlot(slot))
    return stopped.has(item.id) ? Infinity : item.seconds
  }
  const slots = wayOut(compiled.compiledHold(hold.id).rule, context, SIDE_INDEX[hold.side], compiled, cost)
  const asked = [...(slots ?? [])].flatMap((slot) => {
    const index = itemOfSlot(slot)
    const item = compiled.item(index)
    const sources = item.derive ? compiled.workedOut.filter((one) => one.item === index).map((one) => compiled.item(one.source)) : [item]
    return sources.map((source): Awaited => ({ item: source.id, side: source.sided ? SIDES[sideOfSlot(slot)] : 'none', label: source.label }))
  })
  return [...new Map(asked.map((one) => [`${one.item} ${one.side}`, one])).values()]
}
