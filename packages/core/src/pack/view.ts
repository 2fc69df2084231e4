import { oncePer } from '../model/oncePer.js'
import type { AnyPack, Pack, RegionPack } from './pack.js'
import type { Item } from '../model/item.js'
import { formerlyOf } from './formerly.js'

const views = oncePer<Pack, Map<string, RegionPack>>(() => new Map())

/**
 * The pack as one region sees it: its own and the shared items with the depth, key and label they have there, and its own flags, calculated
 * values, prompts, holds, modifiers and conditions. Made once and kept for as long as the pack lives.
 * @throws Error when the pack has no such region, or is the view of another one
 * @example viewOf(pack, 'knee').flags.every((flag) => flag.region === 'knee') // true
 */
export function viewOf(pack: AnyPack, region: string): RegionPack {
  if (pack.isView) {
    if (pack.regions[0].id !== region) throw new Error(`this is the pack as the ${pack.regions[0].id} sees it, not the ${region}`)
    return pack
  }
  const made = views(pack)
  const kept = made.get(region)
  if (kept) return kept
  const view = makeView(pack, region)
  made.set(region, view)
  return view
}

/** Whether the joint of a view has a right and a left of its own: a neck, a back and a jaw have not. */
export const hasSides = ({ regions: [region] }: Pick<RegionPack, 'regions'>): boolean => region.side

function makeView({ isView: _, ...pack }: Pack, id: string): RegionPack {
  const region = pack.regions.find((one) => one.id === id)
  if (!region) throw new Error(`the pack has no region "${id}"`)
  const here = <S extends { readonly region: string }>(things: readonly S[]): S[] => things.filter((thing) => thing.region === id)
  const asSeen = (item: Item): Item => {
    const regional = region.items[item.id]
    return regional ? { ...item, ...regional } : item
  }
  const items = pack.items.filter((item) => item.owner === id || (item.owner === 'shared' && (item.only?.includes(id) ?? true)) || region.items[item.id])
  const [flags, holds] = [here(pack.flags), here(pack.holds)]
  return {
    ...pack,
    isView: true,
    regions: [region],
    items: items.map(asSeen),
    calcs: here(pack.calcs),
    flags,
    prompts: here(pack.prompts),
    holds,
    formerly: formerlyOf(pack.formerly, new Set([...items, ...flags, ...holds].map((one) => one.id))),
    modifiers: here(pack.modifiers),
    conditions: here(pack.conditions),
    practiceVariants: here(pack.practiceVariants),
    phrases: here(pack.phrases),
    plates: here(pack.plates),
    pictures: here(pack.pictures),
  }
}
