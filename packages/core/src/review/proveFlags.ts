import type { CompiledPack } from '../judge/compiledPack.js'
import type { Item } from '../model/item.js'
import type { RegionPack, Flag } from '../pack/pack.js'
import type { Problem } from '../pack/problem.js'
import { itemOfSlot } from '../rules/runtime.js'
import { NO, YES } from '../rules/truth.js'
import { problem } from './lintProblem.js'
import { WitnessSearch, type Goal } from './witness.js'

/** Proves by search that flags of a region can be met, be excluded, and are not met unseen. */
export function searchFlags(pack: RegionPack, only: readonly string[] | undefined): Problem[] {
  const search = new WitnessSearch(pack)
  const wanted = search.compiled.flags.filter(({ flag }) => flag.concept !== 'review-here' && (only?.includes(flag.id) ?? true))
  return wanted.flatMap((ready) => provable(search, ready))
}

/** A clause that demands what brings the flag into play cannot be met without it: nothing is left to search for. */
const demandsPlay = (inPlay: string, { when }: Flag['clauses'][number]): boolean =>
  JSON.stringify(when) === inPlay || (when.op === 'all' && when.of.some((part) => JSON.stringify(part) === inPlay))

function provable(search: WitnessSearch, { flag, clauses, inPlay, any }: CompiledPack['flags'][number]): Problem[] {
  const { id } = flag
  if (!search.find([{ rule: any, want: YES }]).found) return [problem(id, 'no findings meet it', 'some part of its rule contradicts another')]
  if (!search.find([{ rule: any, want: NO }]).found) return [problem(id, 'no findings exclude it', 'some part of its rule is always true')]
  const gate = JSON.stringify(flag.inPlay)
  return flag.clauses.flatMap((clause, at) => {
    const rule = clauses[at]?.rule
    return rule === undefined || demandsPlay(gate, clause) ? [] : metOutOfPlay(search, id, { rule: inPlay, want: NO }, { rule, want: YES })
  })
}

/** Core findings that meet a clause while its flag is out of play, as a problem; none when there are none. */
function metOutOfPlay(search: WitnessSearch, id: string, out: Goal, meeting: Goal): Problem[] {
  const mayUse = isAsGoodAsCore(search.pack)
  const first = search.find([out, meeting], mayUse)
  const escape = first.found || first.exhausted ? first : search.find([meeting, out], mayUse)
  if (!escape.found)
    return escape.exhausted ? [] : [problem(id, 'could not be shown to come into play whenever it is met', 'simplify its rule or widen inPlay')]
  const told = [...escape.found].map(
    ([slot, reading]) => `${search.pack.items[itemOfSlot(slot) % search.pack.items.length]?.id ?? ''} ${JSON.stringify(reading.value ?? reading.qualifiers)}`,
  )
  return [problem(id, `is met by core findings without being in play: ${told.join(', ')}`, 'widen inPlay')]
}

/**
 * The core alone must sort every flag into "in play" or "out of play": what meets a flag by core findings must also bring it into play.
 * A finding that nobody called for, once recorded, still meets its flag: a gate never silences evidence.
 */
const isAsGoodAsCore =
  (pack: RegionPack) =>
  (item: Item): boolean =>
    item.depth === 'core' || item.depth === 'card' || (item.depth !== 'prompted' && isWorkedOutFromCore(item, pack))

/** A value that is worked out from core findings is as good as core: "days since" from the date of onset. */
export function isWorkedOutFromCore(item: Item, pack: RegionPack): boolean {
  return (
    item.derive !== undefined &&
    Object.values(item.derive.from).some((path) => pack.items.some((one) => one.depth === 'core' && (one.id === path || path.startsWith(`${one.id}.`))))
  )
}
