import { itemsOfLeaf, leavesOf } from '../rules/leaves.js'
import { rulesOf } from '../pack/rulesOf.js'
import { localChoices } from '../pack/profile.js'
import type { Certainty, Item } from '../model/item.js'
import type { Pack, RegionPack } from '../pack/pack.js'
import { viewOf } from '../pack/view.js'
import { judge } from '../judge/judge.js'
import type { SourceFile } from '../pack/source.js'
import { calmRecord, examinationOf } from './calmRecord.js'
import { leastTiers, type LeastTier, type LeastTiers } from './least.js'

/** What a reviewer wants to know of one region before reading it. */
export interface RegionReport {
  readonly region: string
  readonly depths: Readonly<Record<Item['depth'], number>>
  /** Core items by stage. */
  readonly coreByStage: Readonly<Record<string, number>>
  readonly coreSeconds: number
  readonly flags: number
  /** Flags that are neither met nor open once the whole core is normal. */
  readonly excludedByCore: number
  readonly openAfterCore: readonly string[]
  readonly figures: Readonly<Record<Certainty, number>>
  readonly unchecked: number
  readonly unverified: number
  readonly unsourced: readonly string[]
  /** Matters on which practice differs, those that a local choice can switch in the rules, and what is chosen here. */
  readonly practiceVariants: { readonly all: number; readonly switching: number; readonly local: readonly string[] }
  /** Abnormal values that deserve a tier by themselves, those that deserve none, and of how many an item, a set or a stage says so. */
  readonly values: { readonly deserving: number; readonly none: number } & Readonly<Record<LeastTier['saidOf'], number>>
  /** Clauses that say why they wait for an exclusion or a date. */
  readonly clausesWithBecause: number
  /** Items of the region that no rule, prompt or derivation names. */
  readonly unused: readonly string[]
}

/** @param files the whole content, for what its values are said to deserve */
export const packReport = (pack: Pack, files: readonly SourceFile[]): RegionReport[] =>
  pack.regions.map((region) => regionReport(viewOf(pack, region.id), region.id, files))

function regionReport(view: RegionPack, id: string, files: readonly SourceFile[]): RegionReport {
  const own = view.items.filter((item) => item.owner === id || item.depth === 'core' || item.depth === 'prompted')
  const core = view.items.filter((item) => item.depth === 'core')
  const figures = own.flatMap((item) => item.accuracy)
  const open = openAfterCore(view)
  const named = namesIn(view)
  return {
    region: id,
    depths: { core: 0, prompted: 0, 'on-demand': 0, card: 0, ...countBy(own, (item) => item.depth) },
    coreByStage: countBy(core, (item) => item.stage),
    coreSeconds: core.reduce((sum, item) => sum + item.seconds, 0),
    flags: view.flags.length,
    excludedByCore: view.flags.length - open.length,
    openAfterCore: open,
    figures: { review: 0, study: 0, expert: 0, ...countBy(figures, (figure) => figure.certainty) },
    unchecked: figures.filter((figure) => !figure.checked).length,
    unverified: figures.filter((figure) => figure.unverified).length,
    unsourced: own.filter((item) => item.accuracy.some((figure) => figure.source.trim() === '')).map((item) => item.id),
    practiceVariants: {
      all: view.practiceVariants.length,
      switching: view.practiceVariants.filter((one) => one.switches.length > 0).length,
      local: localChoices(view.practiceVariants, id).map((one) => `${one.topic}: ${one.chosen}`),
    },
    values: valuesOf(leastTiers(files, view)),
    clausesWithBecause: view.flags.reduce((sum, { clauses }) => sum + clauses.filter(({ because }) => because !== undefined).length, 0),
    unused: own.filter((item) => item.depth === 'on-demand' && item.derive === undefined && !named.has(item.id)).map((item) => item.id),
  }
}

function valuesOf(least: LeastTiers): RegionReport['values'] {
  const said = [...least.values()].flatMap((words) => [...words.values()].flatMap((list) => list[0] ?? []))
  const deserving = said.filter(({ tier }) => tier !== 'none').length
  return { deserving, none: said.length - deserving, item: 0, set: 0, stage: 0, ...countBy(said, ({ saidOf }) => saidOf) }
}

function openAfterCore(view: RegionPack): string[] {
  const verdict = judge(view, examinationOf(view, calmRecord(view)))
  return [...verdict.openFlags, ...verdict.flags.filter((flag) => flag.tier !== 'here')].map((flag) => flag.id)
}

/** Ids that rules, prompts, stops of holds and derivations name. */
function namesIn(view: RegionPack): ReadonlySet<string> {
  const leaves = rulesOf(view).flatMap(([, rule]) => leavesOf(rule))
  const names = new Set(leaves.flatMap((leaf) => (leaf.type === 'all-examined' ? leaf.items : itemsOfLeaf(leaf))))
  for (const group of view.prompts) group.ask.forEach((id) => names.add(id))
  for (const hold of view.holds) hold.stops.forEach((id) => names.add(id))
  for (const item of view.items) for (const path of Object.values(item.derive?.from ?? {})) names.add(path.replace(/^other\((.*)\)$/, '$1'))
  return names
}

function countBy<S>(things: readonly S[], key: (thing: S) => string): Record<string, number> {
  const counts: Record<string, number> = {}
  for (const thing of things) counts[key(thing)] = (counts[key(thing)] ?? 0) + 1
  return counts
}
