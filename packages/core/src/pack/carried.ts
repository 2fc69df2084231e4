import { oncePer } from '../model/oncePer.js'
import type { Item } from '../model/item.js'
import type { Pack, RegionPack } from './pack.js'
import { viewOf } from './view.js'
import type { Examination, FindingEntry } from '../record/entry.js'
import { isFinding } from '../record/decisions.js'
import { recordOf } from '../record/record.js'

/**
 * What another joint of the same visit need not be asked again: the standing entries about the person, about named arteries, muscles and skin
 * and, where both began with the same event, the story. What was found at the joint itself is never carried to another: that one was not
 * examined. The other side of the same joint reads every item of it, for both sides were recorded.
 * @param from the joint that was examined first
 * @param region the joint that is added
 * @param isSameEvent whether the story (injury, onset) holds for the added joint as well
 * @example carriedEntries(pack, { complaint: rightKnee, entries: [temperature38, kneeWarm, fell] }, 'hip', false) // [temperature38]
 */
export function carriedEntries(pack: Pack, from: Pick<Examination, 'complaint' | 'entries'>, region: string, isSameEvent: boolean): readonly FindingEntry[] {
  const asked = itemsAskedOf(viewOf(pack, region))
  const isSameJoint = from.complaint.region === region
  const goes = ({ carried, owner, scope }: Item): boolean => (scope === 'episode' && !carried ? isSameEvent && owner === 'shared' : carried || isSameJoint)
  const standing = recordOf(from.entries)
    .slots.map(({ standing: entry }) => entry)
    .filter(isFinding)
  return standing.filter((entry) => {
    const item = asked.get(entry.item)
    return item !== undefined && goes(item)
  })
}

/** A view holds every shared item; these are the ones that the region asks for, places in a stop, or shares with its neighbours by name. */
const itemsAskedOf = oncePer((view: RegionPack): ReadonlyMap<string, Item> => {
  const placed = new Set(view.regions.flatMap((region) => region.stops.flatMap((stop) => stop.items)))
  return new Map(
    view.items
      .filter((item) => item.depth !== 'on-demand' || item.stage === 'story' || item.only !== undefined || placed.has(item.id))
      .map((item) => [item.id, item]),
  )
})
