import { CORE_SCHEMA, load } from 'js-yaml'
import { checkShape } from './checkShape.js'
import { evenItem } from './evenItem.js'
import { oncePer } from '../model/oncePer.js'
import type { Problem } from './problem.js'
import type {
  CalcSource,
  ConditionSource,
  FlagSource,
  GroupSource,
  HoldSource,
  ItemsFile,
  ItemSource,
  ModifierSource,
  PackSource,
  PhraseSource,
  ProfileSource,
  RegionSource,
  SchoolSource,
  SourceFile,
} from './source.js'
import type { Item, Stage } from '../model/item.js'
import type { Pathway } from './pack.js'
import type { Lesions } from './nerves.js'

/** One thing of a file with where it stands: the region of its folder, or `shared`, there for all regions or the ones named by `for`. */
export interface Placed<S> {
  readonly path: string
  readonly region: string
  readonly only: readonly string[] | undefined
  readonly source: S
}

export interface Sources {
  pack?: Placed<PackSource>
  lesions?: Placed<Lesions>
  profile?: Placed<ProfileSource>
  readonly regions: Placed<RegionSource>[]
  readonly items: (Placed<ItemSource> & { readonly stage: Stage; readonly position: Item['position'] | undefined; readonly isShared?: boolean })[]
  readonly calcs: Placed<CalcSource>[]
  readonly flags: Placed<FlagSource>[]
  readonly groups: Placed<GroupSource>[]
  readonly holds: Placed<HoldSource>[]
  readonly modifiers: Placed<ModifierSource>[]
  readonly pathways: Placed<Pathway>[]
  readonly conditions: Placed<ConditionSource>[]
  readonly schools: Placed<SchoolSource>[]
  readonly phrases: Placed<PhraseSource>[]
  /** Other names of a thing, one text for each id, with the file that gives them. */
  readonly names: Map<string, { readonly path: string; readonly text: string }>
}

/** Whether a thing stands in a region: its own, or a shared one that is meant for it. */
export const standsIn = (placed: Pick<Placed<unknown>, 'region' | 'only'>, region: string): boolean =>
  placed.region === region || (placed.region === 'shared' && (placed.only?.includes(region) ?? true))

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

/** Reads every file of the pack; what is wrong with its shape is a problem, and that file is left out. */
export function readSources(files: readonly SourceFile[], problems: Problem[]): Sources {
  const sources: Sources = {
    regions: [],
    items: [],
    calcs: [],
    flags: [],
    groups: [],
    holds: [],
    modifiers: [],
    pathways: [],
    conditions: [],
    schools: [],
    phrases: [],
    names: new Map(),
  }
  for (const file of files) {
    const document = withEvenItems(parseYaml(file, problems))
    if (document === undefined) continue
    const faults = checkShape(file.path, document)
    problems.push(...faults)
    if (faults.length === 0) place(document as Record<string, unknown>, file.path, sources)
  }
  return sources
}

function parseYaml(file: SourceFile, problems: Problem[]): unknown {
  try {
    return load(file.text, { schema: CORE_SCHEMA })
  } catch (error) {
    problems.push({ file: file.path, id: '-', reason: `not valid YAML: ${(error as Error).message.split('\n')[0] ?? ''}`, cure: 'correct the line named' })
    return undefined
  }
}

const isMapping = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)

function withEvenItems(document: unknown): unknown {
  if (!isMapping(document) || !Array.isArray(document.items)) return document
  return { ...document, items: document.items.map((item: unknown) => (isMapping(item) ? evenItem(item) : item)) }
}

function place(document: Record<string, unknown>, path: string, sources: Sources): void {
  const region = /regions\/([a-z-]+)\//.exec(path)?.[1] ?? 'shared'
  const only = document.for as string[] | undefined
  const at = { path, region, only }
  const all = <S>(key: string): Placed<S>[] => ((document[key] as S[] | undefined) ?? []).map((source) => ({ path, region, only, source }))
  if ('tiers' in document) sources.pack = { ...at, source: document as unknown as PackSource }
  if ('profile' in document) sources.profile = { ...at, source: document.profile as ProfileSource }
  if ('lesions' in document) sources.lesions = { ...at, source: document as unknown as Lesions }
  if ('region' in document) sources.regions.push({ ...at, source: document.region as RegionSource })
  if ('names' in document) for (const [id, text] of Object.entries(document.names as Record<string, string>)) sources.names.set(id, { path, text })
  if ('items' in document) {
    const file = document as unknown as ItemsFile
    sources.items.push(...file.items.map((source) => ({ path, region, only, source, stage: file.stage, position: file.position })))
  }
  sources.calcs.push(...all<CalcSource>('calcs'))
  sources.flags.push(...all<FlagSource>('flags'))
  sources.groups.push(...all<GroupSource>('groups'))
  sources.holds.push(...all<HoldSource>('holds'))
  sources.modifiers.push(...all<ModifierSource>('modifiers'))
  sources.pathways.push(...all<Pathway>('pathways'))
  sources.conditions.push(...all<ConditionSource>('conditions'))
  sources.schools.push(...all<SchoolSource>('schools'))
  sources.phrases.push(...all<PhraseSource>('phrases'))
}
