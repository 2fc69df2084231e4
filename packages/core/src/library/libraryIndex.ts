import type { Item } from '../model/item.js'
import type { Tier } from '../model/tier.js'
import { moreUrgent, mostUrgent } from '../model/tier.js'
import type { AnyPack } from '../pack/pack.js'

export const LIBRARY_KINDS = ['test', 'item', 'score', 'flag', 'condition', 'variant', 'source'] as const
/** `test` is an item with a technique; `score` any calculated value: a rule, a ladder or a sum; `variant` a matter on which good practitioners differ. */
export type LibraryKind = (typeof LIBRARY_KINDS)[number]

/** One line of the library: what is searched and filtered. The rest is read from the pack of one of its regions. */
export interface LibraryEntry {
  readonly kind: LibraryKind
  /** Of the first region, where several have the same thing. */
  readonly id: string
  readonly label: string
  readonly regions: readonly string[]
  /** Other names in common use, parted by `; `. */
  readonly also?: string
  /** What the patient calls it. */
  readonly lay?: string
  /** Further words to be found by: structure, picture, concept, hint. */
  readonly words: string
  readonly stage?: string
  readonly position?: string
  /** Most urgent tier that the flag can have. */
  readonly tier?: Tier
}

/**
 * Everything of a pack that can be looked up. What every joint has under one name (warmth, a wound, a flag with one id) is one entry with
 * its regions, so that a search shows it once.
 * @example libraryIndex(pack).find((entry) => entry.label === 'Lachman')?.kind // 'test'
 */
export function libraryIndex(pack: AnyPack): LibraryEntry[] {
  const regions = pack.regions.map((region) => region.id)
  const whereOf = (item: Item): readonly string[] => {
    if (item.owner !== 'shared') return [item.owner]
    const asked = pack.regions.filter((region) => ['core', 'prompted'].includes(region.items[item.id]?.depth ?? '')).map((region) => region.id)
    return asked.length > 0 ? asked : (item.only ?? regions)
  }
  const items = pack.items.map((item): LibraryEntry => ({
    kind: item.technique.length > 0 ? 'test' : 'item',
    id: item.id,
    label: item.label,
    regions: whereOf(item),
    ...otherNames(item),
    words: [item.structure, item.hint, item.stage, item.positive].filter(Boolean).join(' '),
    stage: item.stage,
    position: item.position,
  }))
  const scores = pack.calcs.map((calc): LibraryEntry => ({
    kind: 'score',
    id: calc.id,
    label: calc.label,
    regions: [calc.region],
    ...otherNames(calc),
    words: [calc.note, calc.source].filter(Boolean).join(' '),
  }))
  const flags = pack.flags.map((flag): LibraryEntry => ({
    kind: 'flag',
    id: flag.id,
    label: flag.title,
    regions: [flag.region],
    ...otherNames(flag),
    words: `${flag.concept.replaceAll('-', ' ')} ${flag.why}`,
    tier: mostUrgent(flag.clauses.map((clause) => clause.tier)),
  }))
  const conditions = pack.conditions.map((one): LibraryEntry => ({
    kind: 'condition',
    id: one.id,
    label: one.name,
    regions: [one.region],
    ...otherNames(one),
    words: one.picture,
  }))
  const variants = pack.practiceVariants.map((one): LibraryEntry => ({
    kind: 'variant',
    id: `${one.region}.variant.${one.topic}`,
    label: one.topic,
    regions: [one.region],
    words: one.choices.join(' '),
  }))
  const sources = [...sourcesOf(pack)].map(([name, where]): LibraryEntry => ({ kind: 'source', id: name, label: name, regions: [...where].sort(), words: '' }))
  return [...merged([...items, ...scores, ...flags, ...conditions, ...variants], regions), ...sources]
}

/** The other names of a thing, as far as it has any. */
const otherNames = ({ also, lay }: { readonly also: readonly string[]; readonly lay?: string | undefined }): Pick<LibraryEntry, 'also' | 'lay'> => ({
  ...(also.length > 0 ? { also: also.join('; ') } : {}),
  ...(lay === undefined ? {} : { lay }),
})

/** What stands under the same name and the same last part of its id in several regions becomes one. */
function merged(entries: readonly LibraryEntry[], regions: readonly string[]): LibraryEntry[] {
  const byKey = new Map<string, LibraryEntry>()
  for (const entry of entries) {
    const bare = regions.reduce((id, region) => (id.startsWith(`${region}.`) ? id.slice(region.length + 1) : id), entry.id)
    const key = entry.kind === 'flag' ? `flag ${entry.id}` : `${entry.kind} ${bare} ${entry.label}`
    const first = byKey.get(key)
    const words = first && first.label !== entry.label && !first.words.includes(entry.label) ? `${first.words} ${entry.label}` : first?.words
    byKey.set(
      key,
      first
        ? {
            ...first,
            words: words ?? '',
            ...otherNames({ also: [...new Set([first.also, entry.also])].filter((names) => names !== undefined), lay: first.lay ?? entry.lay }),
            regions: [...new Set([...first.regions, ...entry.regions])],
            ...(first.tier && entry.tier ? { tier: moreUrgent(first.tier, entry.tier) } : {}),
          }
        : entry,
    )
  }
  return [...byKey.values()]
}

/** Names of papers and guidelines; what is our own judgement has none. */
export const sourceNames = (source: string): string[] =>
  source
    .split(';')
    .map((name) => name.trim())
    .filter((name) => name !== '' && name !== 'expert')

function sourcesOf(pack: AnyPack): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>()
  const note = (source: string, region: string): void => {
    for (const name of sourceNames(source)) found.set(name, (found.get(name) ?? new Set<string>()).add(region))
  }
  for (const item of pack.items) for (const source of [item.source, ...item.accuracy.map((figure) => figure.source)]) note(source, item.owner)
  for (const thing of [...pack.calcs, ...pack.flags]) note(thing.source, thing.region)
  for (const { region, evidence } of pack.conditions) for (const { source } of evidence) note(source, region)
  return new Map([...found].sort(([a], [b]) => (a < b ? -1 : 1)))
}
