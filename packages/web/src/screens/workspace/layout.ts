import { itemsById, oncePer, POSITIONS, type Item, type Region, type RegionPack, type Stage, type Stop } from '@kneecap-awl/core'

/** By position the patient is turned once for each; by stage every joint has the same stations in the same order. */
export const ORDERS = ['position', 'stage'] as const
export type Order = (typeof ORDERS)[number]

/** A stop of the route; one of the order by stage has no position of its own. */
export type Station = Omit<Stop, 'position'> & { readonly position?: Stop['position'] }

/** Where the items of a region stand: worked out once for a pack, read on every key. */
export interface Layout {
  readonly stations: readonly Station[]
  /** Items of a stop in its own order, then what no stop lists and is examined in the same stage or place: nothing that can be asked is lost. */
  readonly itemsOf: ReadonlyMap<string, readonly Item[]>
  /** Every item, as the sheet lists them one stop after another. */
  readonly order: readonly string[]
  /** The stop in which an item is shown. */
  readonly stopOf: ReadonlyMap<string, string>
}

/**
 * The route through a region in one of its orders. Provocative tests come last of a stop or position, so that pain spoils nothing that is
 * still to be examined.
 * @param pack the view of one region
 * @example layoutOf(viewOf(pack, 'hand'), 'stage').stations.map(({ title }) => title) // ['History', 'Screen', 'Look', 'Feel', …]
 */
export const layoutOf = (pack: RegionPack, order: Order): Layout => (order === 'stage' ? byStage(pack) : byPosition(pack))

const byPosition = oncePer((pack: RegionPack): Layout => {
  const [region] = pack.regions
  const items = itemsById(pack)
  const places = new Map(region.stops.flatMap((stop) => stop.items.map((id) => [id, stop.id] as const)))
  const home = homes(region)
  const extra = pack.items.filter((item) => !places.has(item.id) && isOnSheet(item))
  const stopOf = new Map(pack.items.map((item) => [item.id, item.stage === 'story' ? 'story' : (places.get(item.id) ?? home(item))]))
  return laidOut(pack, region.stops, stopOf, (stop) => {
    const listed = [...stop.items.flatMap((id) => items.get(id) ?? []), ...extra.filter((item) => stopOf.get(item.id) === stop.id)]
    return [...listed.filter((item) => !isProvocative(item)), ...listed.filter(isProvocative)]
  })
})

const STATIONS: readonly { readonly id: string; readonly title: string; readonly stages: readonly Stage[]; readonly advice: string }[] = [
  { id: 'story', title: 'History', stages: ['story'], advice: 'tap what is true, then confirm that the rest was asked' },
  { id: 'screen', title: 'Screen', stages: ['screen'], advice: 'life, limb and infection before anything else' },
  { id: 'look', title: 'Look', stages: ['look'], advice: 'both sides exposed and in the same position' },
  { id: 'feel', title: 'Feel', stages: ['feel'], advice: 'the unaffected side first · watch the face' },
  { id: 'move', title: 'Move', stages: ['move'], advice: 'active, then passive · pain at end range, block, end feel' },
  { id: 'strength', title: 'Strength', stages: ['strength'], advice: 'full effort against resistance, with pain or without' },
  { id: 'nerve-vessel', title: 'Nerve and vessel', stages: ['neuro', 'vascular'], advice: 'both limbs before judging one' },
  { id: 'test', title: 'Special tests', stages: ['test'], advice: 'provocative tests last' },
  { id: 'function', title: 'Function', stages: ['function'], advice: 'what the joint does in daily life' },
  { id: 'neighbours', title: 'Adjacent regions', stages: ['neighbours'], advice: 'the joint above, the joint below, the spine' },
  { id: 'results', title: 'Results', stages: ['result'], advice: 'enter what exists; nothing here is asked before it is needed' },
]

const byStage = oncePer((pack: RegionPack): Layout => {
  const rank = new Map(byPosition(pack).order.map((id, at) => [id, at]))
  const turns = [...new Set([...pack.regions[0].stops.map(({ position }) => position), ...POSITIONS])]
  const before = (a: Item, b: Item): number =>
    turns.indexOf(a.position) - turns.indexOf(b.position) ||
    Number(isProvocative(a)) - Number(isProvocative(b)) ||
    (rank.get(a.id) ?? 0) - (rank.get(b.id) ?? 0)
  const stationOf = new Map(STATIONS.flatMap(({ id, stages }) => stages.map((stage) => [stage as string, id] as const)))
  const stopOf = new Map(pack.items.map((item) => [item.id, stationOf.get(item.stage) ?? 'story']))
  const stations = STATIONS.map(({ stages, ...station }) => ({ ...station, items: [], stages }))
  return laidOut(pack, stations, stopOf, (station) => pack.items.filter((item) => isOnSheet(item) && stopOf.get(item.id) === station.id).sort(before))
})

/** The history has a card of its own, the patient too; the plan stands on the verdict sheet. */
const OFF_SHEET: ReadonlySet<Stage> = new Set(['story', 'patient', 'plan'])

const isOnSheet = (item: Item): boolean => item.depth !== 'card' && !OFF_SHEET.has(item.stage)

function laidOut<S extends Station>(pack: RegionPack, stations: readonly S[], stopOf: Layout['stopOf'], listed: (station: S) => readonly Item[]): Layout {
  const [region] = pack.regions
  const itemsOf = new Map(stations.map((stop) => [stop.id, stop.id === 'story' ? storyItems(pack, region) : listed(stop)]))
  return { stations, itemsOf, order: [...itemsOf.values()].flatMap((items) => items.map((item) => item.id)), stopOf }
}

const isProvocative = ({ burden }: Item): boolean => burden === 3

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
