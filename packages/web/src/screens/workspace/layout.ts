import { itemsById, oncePer, type Item, type RegionPack, type Region } from '@kneecap-awl/core'

type Stop = Region['stops'][number]

/** Where the items of a region stand: worked out once for a pack, read on every key. */
export interface Layout {
  /** Items of a stop in its own order, then what no stop lists and is examined in the same stage or place: nothing that can be asked is lost. */
  readonly itemsOf: ReadonlyMap<string, readonly Item[]>
  /** Every item, as the sheet lists them one stop after another. */
  readonly order: readonly string[]
  /** The stop in which an item is shown. */
  readonly stopOf: ReadonlyMap<string, string>
}

/** @param pack the view of one region */
export const layoutOf = oncePer((pack: RegionPack): Layout => {
  const [region] = pack.regions
  const items = itemsById(pack)
  const places = new Map(region.stops.flatMap((stop) => stop.items.map((id) => [id, stop.id] as const)))
  const home = homes(region)
  const stopOf = new Map(pack.items.map((item) => [item.id, item.stage === 'story' ? 'story' : (places.get(item.id) ?? home(item))]))
  const extra = pack.items.filter((item) => !places.has(item.id) && item.depth !== 'card' && item.stage !== 'story')
  const itemsOf = new Map(
    region.stops.map((stop) => [
      stop.id,
      stop.id === 'story'
        ? storyItems(pack, region)
        : [...stop.items.flatMap((id) => items.get(id) ?? []), ...extra.filter((item) => stopOf.get(item.id) === stop.id)],
    ]),
  )
  return { itemsOf, order: [...itemsOf.values()].flatMap((listed) => listed.map((item) => item.id)), stopOf }
})

/** The stop that holds most of an item's stage, else the first in the same position. */
function homes(region: Region): (item: Item) => string {
  const byStage = new Map<string, string | undefined>()
  const alike = (stop: Stop, stage: string): number => stop.items.filter((id) => id.split('.').includes(stage)).length
  const nearest = (stage: string): string | undefined => {
    const [first] = [...region.stops].sort((a, b) => alike(b, stage) - alike(a, stage))
    return first && alike(first, stage) > 0 ? first.id : undefined
  }
  return (item) => {
    if (!byStage.has(item.stage)) byStage.set(item.stage, nearest(item.stage))
    return (
      byStage.get(item.stage) ??
      region.stops.find((stop) => stop.position === item.position && stop.id !== 'story')?.id ??
      region.stops.find((stop) => stop.id !== 'story')?.id ??
      'story'
    )
  }
}

/** Story facts: the core in its own order, then what is prompted. */
function storyItems(pack: RegionPack, region: Region): Item[] {
  const rank = new Map(region.core.map((id, at) => [id, at]))
  const of = (item: Item): number => rank.get(item.id) ?? region.core.length
  return pack.items.filter((item) => item.stage === 'story' && item.derive === undefined).sort((a, b) => of(a) - of(b))
}
