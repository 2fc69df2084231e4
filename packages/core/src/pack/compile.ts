import { NOTHING_RENAMED, withFormerly } from './formerly.js'
import { withNames } from './names.js'
import { fingerprint } from './fingerprint.js'
import { buildItems } from './buildItem.js'
import { goByProfile, localWindows } from './profile.js'
import { PackError, type Problem } from './problem.js'
import { readSources } from './readSources.js'
import { regionsOf, type Sources } from './sources.js'
import { buildRegion } from './buildRegion.js'
import type { PackSource, SourceFile } from './source.js'
import { NO_LESIONS } from './upgradePack.js'
import type { Item } from '../model/item.js'
import type { Pack } from './pack.js'
import type { NerveLesions } from './nerves.js'
import type { Picture, Plate } from './plate.js'
import { isSiteOfPain } from '../model/siteOfPain.js'

/**
 * Compiles the YAML of a content pack into one plain object that the engine judges with.
 * @param hash of the files, where it is known already: see `fingerprint`
 * @throws PackError with one problem for each fault: file, id, what is wrong and how to mend it
 */
export function compilePack(files: readonly SourceFile[], hash?: string): Pack {
  const problems: Problem[] = []
  const sources = readSources(files, problems)
  if (!sources.pack)
    throw new PackError([
      ...problems,
      { file: 'pack.yaml', id: 'pack', reason: 'the pack has no pack.yaml', cure: 'add one with id, version, tiers and destinations' },
    ])
  if (problems.length > 0) throw new PackError(problems)
  const pack = withFormerly(withNames(build(sources, sources.pack.source, hash ?? fingerprint(files), problems), sources, problems), sources, problems)
  if (sources.regions.length > 1) problems.push(...unusedCriteria(sources))
  if (problems.length > 0) throw new PackError(problems)
  return pack
}

/** A criterion that nothing names is a rule that nobody reads. */
const unusedCriteria = ({ criteria }: Sources): Problem[] =>
  [...criteria].flatMap(([id, { path, uses }]) => (uses.size === 0 ? [{ file: path, id, reason: 'is named by no rule', cure: 'use it, or take it out' }] : []))

function build(sources: Sources, pack: PackSource, hash: string, problems: Problem[]): Pack {
  const practiceVariants = goByProfile(sources, problems)
  const scales = pack.scales.map((scale) => ({ ...scale, grades: scale.grades.map(String), calm: scale.calm.map(String) }))
  const items = buildItems(sources, scales, pack.unverified, problems)
  const ids = new Map(items.map((item) => [item.id, item]))
  const sets = setsOf(sources, pack, items)
  const parts = sources.regions.map((region) => buildRegion(region, { sources, items, ids, sets }, problems))
  return {
    id: pack.id,
    version: pack.version,
    hash,
    tiers: localWindows(pack.tiers, sources, problems),
    destinations: pack.destinations.map((d) => ({ ...d, letter: d.letter.map((wish) => (typeof wish === 'string' ? { says: wish, items: [] } : wish)) })),
    actions: pack.actions,
    scales,
    regions: parts.map((part) => part.region),
    items,
    calcs: parts.flatMap((part) => part.calcs),
    flags: parts.flatMap((part) => part.flags),
    prompts: parts.flatMap((part) => part.prompts),
    holds: parts.flatMap((part) => part.holds),
    modifiers: parts.flatMap((part) => part.modifiers),
    pathways: sources.pathways.map(({ source }) => source),
    conditions: parts.flatMap((part) => part.conditions),
    practiceVariants,
    phrases: parts.flatMap((part) => part.phrases),
    plates: platesOf(sources, items, problems),
    pictures: picturesOf(sources, items, problems),
    nerveLesions: lesionsOf(sources, items, problems),
    sets,
    cautions: pack.cautions,
    stopRules: pack.stopRules ?? [],
    referenceRanges: pack.referenceRanges ?? [],
    journeyHours: sources.profile?.source.journeyHours ?? 0,
    everyLetter: pack.everyLetter ?? [],
    leadOrder: pack.leadOrder,
    burdenCost: pack.burdenCost,
    mayBePregnant: pack.mayBePregnant,
    spoilsOnTheWay: pack.spoilsOnTheWay,
    formerly: NOTHING_RENAMED,
    abbreviations: pack.abbreviations ?? {},
  }
}

/** The drawings of each joint; every item and word that is placed on one must exist. */
function platesOf(sources: Sources, items: readonly Item[], problems: Problem[]): Plate[] {
  const known = new Map(items.map((item) => [item.id, item]))
  const words = new Map(items.flatMap(({ id, owner, options }) => (isSiteOfPain(id) ? [[owner, options] as const] : [])))
  return sources.plates.flatMap((placed) => {
    const { source, path } = placed
    const fault = (reason: string, cure: string): void => void problems.push({ file: path, id: source.id, reason, cure })
    for (const { item } of source.landmarks) if (!known.has(item)) fault(`places ${item}, which does not exist`, 'correct the item')
    return regionsOf(placed, sources).map((region) => {
      const sites = words.get(region) ?? []
      for (const { word } of source.sites ?? [])
        if (!sites.includes(word)) fault(`places "${word}", where this joint is never asked to hurt`, `write one of: ${sites.join(', ')}`)
      const isHere = (id: string): boolean => known.has(id) && (known.get(id)?.only?.includes(region) ?? true)
      return { ...source, region, landmarks: source.landmarks.filter(({ item }) => isHere(item)) }
    })
  })
}

/** How items are done or measured, drawn; every item must exist in the joint, and only an angle turns a limb. */
function picturesOf(sources: Sources, items: readonly Item[], problems: Problem[]): Picture[] {
  const known = new Map(items.map((item) => [item.id, item]))
  return sources.pictures.flatMap((placed) => {
    const { source, path } = placed
    const fault = (reason: string, cure: string): void => void problems.push({ file: path, id: source.item, reason, cure })
    const item = known.get(source.item)
    if (!item) fault('has a picture, and does not exist', 'correct the item')
    if ((source.arc === undefined) === (source.lines === undefined)) fault('has a picture with neither an arc nor lines, or with both', 'give one of them')
    if (source.arc && item && item.kind !== 'angle') fault('turns a limb in its picture, and is no angle', 'draw lines instead')
    return regionsOf(placed, sources).map((region) => ({ ...source, region }))
  })
}

/** Where nerves may be hurt; every item and place that is named must exist. */
function lesionsOf({ nerveLesions }: Sources, items: readonly Item[], problems: Problem[]): NerveLesions {
  if (!nerveLesions) return NO_LESIONS
  const { source, path } = nerveLesions
  const known = new Set(items.map((item) => item.id))
  const places = new Set([...source.lesions.map((one) => one.id), ...source.neighbouringRoots.map((pair) => pair.join('+'))])
  const miss = (id: string, what: string, cure: string): void => void problems.push({ file: path, id, reason: `names ${what}, which does not exist`, cure })
  for (const one of source.lesions)
    for (const item of [...one.expected, ...one.shared]) if (!known.has(item)) miss(one.id, item, 'correct the item, or define it')
  for (const tie of source.ties) {
    for (const place of tie.between) if (!places.has(place)) miss(tie.between.join(' / '), place, 'correct the place')
    for (const item of tie.next) if (!known.has(item)) miss(tie.between.join(' / '), item, 'correct the item, or define it')
  }
  for (const one of source.readAs) for (const item of [one.item, one.as]) if (!known.has(item)) miss('readAs', item, 'correct the item, or define it')
  for (const { item, to } of source.pointers) {
    if (item !== undefined && !known.has(item)) miss('pointers', item, 'correct the item, or define it')
    for (const place of to) if (!places.has(place)) miss('pointers', place, 'correct the place')
  }
  return source
}

/** Named sets of items: of items that say they belong to one, of the pack, and of each region. */
function setsOf(sources: Sources, pack: PackSource, items: readonly Item[]): Record<string, readonly string[]> {
  const ids = new Set(items.map((item) => item.id))
  const resolve = (id: string, region: string): string => (ids.has(id) ? id : `${region}.${id}`)
  const sets: Record<string, string[]> = {}
  for (const item of items) for (const set of item.sets) (sets[set] ??= []).push(item.id)
  for (const [name, members] of Object.entries(pack.sets ?? {})) sets[name] = [...members]
  for (const { source } of sources.regions) {
    for (const [name, members] of Object.entries(source.sets ?? {})) sets[name] = members.map((id) => resolve(id, source.id))
    const own = items.filter((item) => item.owner === source.id)
    sets[`$${source.id}.prone`] = own.filter((item) => item.position === 'prone').map((item) => item.id)
    sets[`$${source.id}.forceful`] = own.filter((item) => item.stage === 'test' && item.burden > 1).map((item) => item.id)
    sets[`$${source.id}.minimum`] = source.minimum.map((id) => resolve(id, source.id))
    sets[`$${source.id}.core`] = source.core.map((c) => resolve(c.item, source.id))
  }
  return sets
}
