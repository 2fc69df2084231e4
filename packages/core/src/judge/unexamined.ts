import type { Item } from '../model/item.js'
import type { Side } from '../model/side.js'
import { SIDE_INDEX, SIDES } from '../model/side.js'
import { itemsById } from '../pack/itemsById.js'
import { sidesOf } from '../record/examinedNormal.js'
import { slotOf } from '../rules/runtime.js'
import type { Judgement } from './judgement.js'

/** What of the core nobody examined at one stop of the route. */
export interface UnexaminedStop {
  readonly stop: string
  readonly title: string
  readonly items: readonly { readonly id: string; readonly label: string; readonly sides: readonly Side[] }[]
}

/**
 * Every core item that has no entry on a side on which it is asked, stop by stop in the order of the route. What could not be done, is not
 * valid or was recorded as not done has an entry, and stands elsewhere as such. Facts of the story are asked of the judged sides.
 * @returns stops with something missing only
 * @example unexaminedCore(judgement(pack, nothingExamined))[0]?.title // 'Story'
 */
export function unexaminedCore({ compiled, standing, sides }: Pick<Judgement, 'compiled' | 'standing' | 'sides'>): readonly UnexaminedStop[] {
  const [region] = compiled.pack.regions
  const items = itemsById(compiled.pack)
  const judgedSides = sides.map((side) => SIDES[side])
  const missingSides = (item: Item): readonly Side[] =>
    sidesOf(item, item.stage === 'story' ? judgedSides : undefined).filter((side) => {
      const state = standing[slotOf(compiled.index(item.id), SIDE_INDEX[side])]?.state
      return state === undefined || state === 'not-examined'
    })
  const placed = new Map(region.stops.flatMap((stop) => stop.items.map((id) => [id, stop.id] as const)))
  const core = region.core.flatMap((id) => items.get(id) ?? [])
  return region.stops.flatMap((stop, at) => {
    const here = core.filter((item) => (item.stage === 'story' ? at === 0 : placed.get(item.id) === stop.id))
    const missing = here.flatMap((item) => {
      const open = missingSides(item)
      return open.length > 0 ? [{ id: item.id, label: item.label, sides: open }] : []
    })
    return missing.length > 0 ? [{ stop: stop.id, title: stop.title, items: missing }] : []
  })
}
