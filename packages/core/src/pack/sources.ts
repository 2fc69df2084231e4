import { oncePer } from '../model/oncePer.js'
import type { Item, Stage } from '../model/item.js'
import type { NerveLesions } from './nerves.js'
import type { Pathway } from './pack.js'
import type {
  CalcSource,
  ConditionSource,
  CriterionSource,
  FlagSource,
  FormerlySource,
  PromptSource,
  HoldSource,
  ItemSource,
  ModifierSource,
  NamesSource,
  PackSource,
  PhraseSource,
  PictureSource,
  PlateSource,
  ProfileSource,
  RegionSource,
  PracticeVariantSource,
} from './source.js'

/** One thing of a file with where it stands: the region of its folder, or `shared`, there for all regions or the ones named by `for`. */
export interface Placed<S> {
  readonly path: string
  readonly region: string
  readonly only: readonly string[] | undefined
  readonly source: S
}

export interface Sources {
  pack?: Placed<PackSource>
  nerveLesions?: Placed<NerveLesions>
  profile?: Placed<ProfileSource>
  readonly regions: Placed<RegionSource>[]
  readonly items: (Placed<ItemSource> & {
    readonly stage: Stage
    readonly position: Item['position'] | undefined
    readonly seconds?: number | undefined
    readonly isShared?: boolean
  })[]
  readonly calcs: Placed<CalcSource>[]
  readonly flags: Placed<FlagSource>[]
  readonly prompts: Placed<PromptSource>[]
  readonly holds: Placed<HoldSource>[]
  readonly modifiers: Placed<ModifierSource>[]
  readonly pathways: Placed<Pathway>[]
  readonly conditions: Placed<ConditionSource>[]
  readonly practiceVariants: Placed<PracticeVariantSource>[]
  readonly phrases: Placed<PhraseSource>[]
  readonly plates: Placed<PlateSource>[]
  readonly pictures: Placed<PictureSource>[]
  /** Tests that several conditions use, by name. */
  readonly criteria: Map<string, { readonly path: string; readonly source: CriterionSource; readonly uses: Set<string> }>
  /** How long items take, in seconds, by folder and id. */
  readonly seconds: Map<string, { readonly path: string; readonly id: string; readonly seconds: number }>
  /** Other names of a thing, by id, with the file that gives them. */
  readonly names: Map<string, { readonly path: string } & NamesSource>
  /** What a thing was called before, by the id of today. */
  readonly formerly: Map<string, { readonly path: string } & FormerlySource>
}

/** Whether a thing stands in a region: its own, or a shared one that is meant for it. */
export const standsIn = (placed: Pick<Placed<unknown>, 'region' | 'only'>, region: string): boolean =>
  placed.region === region || (placed.region === 'shared' && (placed.only?.includes(region) ?? true))

/** The ids of the regions in which a thing stands. */
export const regionsOf = (placed: Pick<Placed<unknown>, 'region' | 'only'>, { regions }: Pick<Sources, 'regions'>): string[] =>
  regions.map(({ source }) => source.id).filter((region) => standsIn(placed, region))

/** A shared thing as one region means it: `{region}` in its texts and rules stands for the region's id. */
export function inRegion<S extends object>(shared: S, region: string): S {
  const text = textNaming(shared)
  return text === undefined ? shared : (JSON.parse(text.replaceAll('{region}', region)) as S)
}

/** The text of a shared thing that speaks of its region; undefined when it reads the same everywhere. */
const textNaming = oncePer((shared: object): string | undefined => {
  const text = JSON.stringify(shared)
  return text.includes('{region}') ? text : undefined
})
