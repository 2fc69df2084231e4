import { CORE_SCHEMA, load } from 'js-yaml'
import { checkShape } from './checkShape.js'
import { placeCondition, type ConditionFile } from './conditionFile.js'
import { uniformItem } from './uniformItem.js'
import type { NerveLesions } from './nerves.js'
import type { Pathway } from './pack.js'
import type { Problem } from './problem.js'
import type {
  CalcSource,
  ConditionSource,
  CriterionSource,
  FlagSource,
  FormerlySource,
  PromptSource,
  HoldSource,
  ItemsFile,
  ModifierSource,
  NamesSource,
  PackSource,
  PhraseSource,
  PictureSource,
  PlateSource,
  ProfileSource,
  RegionSource,
  PracticeVariantSource,
  SourceFile,
} from './source.js'
import type { Placed, Sources } from './sources.js'

/** Reads every file of the pack; what is wrong with its shape is a problem, and that file is left out. */
export function readSources(files: readonly SourceFile[], problems: Problem[]): Sources {
  const sources: Sources = {
    regions: [],
    items: [],
    calcs: [],
    flags: [],
    prompts: [],
    holds: [],
    modifiers: [],
    pathways: [],
    conditions: [],
    practiceVariants: [],
    phrases: [],
    plates: [],
    pictures: [],
    criteria: new Map(),
    names: new Map(),
    formerly: new Map(),
    seconds: new Map(),
  }
  for (const file of files) {
    const document = withEvenItems(parseYaml(file, problems))
    if (document === undefined) continue
    const faults = checkShape(file.path, document)
    problems.push(...faults)
    if (faults.length === 0) place(document as Record<string, unknown>, file.path, sources, problems)
  }
  return { ...sources, items: withSeconds(sources, problems) }
}

/** How long an item takes stands apart from what it means: in a list of its folder. */
function withSeconds({ items, seconds }: Sources, problems: Problem[]): Sources['items'] {
  const used = new Set<string>()
  const timed = items.map((item) => {
    const key = secondsKey(item.region, item.source.id)
    const own = seconds.get(key)
    if (own === undefined) return item
    used.add(key)
    return { ...item, seconds: own.seconds }
  })
  for (const [key, { path, id }] of seconds)
    if (!used.has(key)) problems.push({ file: path, id, reason: 'is given seconds and is no item here', cure: 'correct the id, or take the line out' })
  return timed
}

const secondsKey = (region: string, id: string): string => `${region}|${id}`

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
  return { ...document, items: document.items.map((item: unknown) => (isMapping(item) ? uniformItem(item) : item)) }
}

/** A name stands for one rule: two rules of one name would be read as whichever came last. */
function placeCriterion(source: CriterionSource, path: string, { criteria }: Sources, problems: Problem[]): void {
  const before = criteria.get(source.id)
  if (before) problems.push({ file: path, id: source.id, reason: `stands in ${before.path} already`, cure: 'name it otherwise, or use that one' })
  criteria.set(source.id, { path, source, uses: new Set() })
}

function place(document: Record<string, unknown>, path: string, sources: Sources, problems: Problem[]): void {
  const region = /regions\/([a-z-]+)\//.exec(path)?.[1] ?? 'shared'
  const only = document.for as string[] | undefined
  const at = { path, region, only }
  const all = <S>(key: string): Placed<S>[] => ((document[key] as S[] | undefined) ?? []).map((source) => ({ path, region, only, source }))
  if ('tiers' in document) sources.pack = { ...at, source: document as unknown as PackSource }
  if ('profile' in document) sources.profile = { ...at, source: document.profile as ProfileSource }
  if ('nerveLesions' in document) {
    const { nerveLesions: lesions, ...more } = document as unknown as Omit<NerveLesions, 'lesions'> & { readonly nerveLesions: NerveLesions['lesions'] }
    sources.nerveLesions = { ...at, source: { lesions, ...more } }
  }
  if ('region' in document) sources.regions.push({ ...at, source: document.region as RegionSource })
  if ('condition' in document) return placeCondition(document as unknown as ConditionFile, path, sources, problems)
  if ('criteria' in document) for (const source of document.criteria as CriterionSource[]) placeCriterion(source, path, sources, problems)
  if ('names' in document) for (const [id, said] of Object.entries(document.names as Record<string, NamesSource>)) sources.names.set(id, { path, ...said })
  if ('formerly' in document)
    for (const [id, said] of Object.entries(document.formerly as Record<string, FormerlySource>)) sources.formerly.set(id, { path, ...said })
  if ('seconds' in document)
    for (const [id, seconds] of Object.entries(document.seconds as Record<string, number>)) sources.seconds.set(secondsKey(region, id), { path, id, seconds })
  if ('items' in document) {
    const file = document as unknown as ItemsFile
    sources.items.push(...file.items.map((source) => ({ path, region, only, source, stage: file.stage, position: file.position })))
  }
  sources.calcs.push(...all<CalcSource>('calcs'))
  sources.flags.push(...all<FlagSource>('flags'))
  sources.prompts.push(...all<PromptSource>('prompts'))
  sources.holds.push(...all<HoldSource>('holds'))
  sources.modifiers.push(...all<ModifierSource>('modifiers'))
  sources.pathways.push(...all<Pathway>('pathways'))
  sources.conditions.push(...all<ConditionSource>('conditions'))
  sources.practiceVariants.push(...all<PracticeVariantSource>('practiceVariants'))
  sources.phrases.push(...all<PhraseSource>('phrases'))
  sources.plates.push(...all<PlateSource>('plates'))
  sources.pictures.push(...all<PictureSource>('pictures'))
}
