import MiniSearch, { type SearchResult } from 'minisearch'
import { TIERS, type LibraryEntry } from '@kneecap-awl/core'

export interface LibraryFilter {
  readonly search: string
  readonly kind: string
  readonly region: string
  readonly stage: string
  readonly position: string
  readonly tier: string
}

/** The rarest misspelling still finds it: a letter in four may be wrong, and the beginning of a word is enough. */
export function searchIndex(entries: readonly LibraryEntry[]): MiniSearch<LibraryEntry & { readonly key: number }> {
  const index = new MiniSearch<LibraryEntry & { key: number }>({
    idField: 'key',
    fields: ['label', 'also', 'words', 'id'],
    tokenize: (text) =>
      text
        .toLowerCase()
        .split(/[^\p{L}\p{N}]+/u)
        .filter(Boolean),
    searchOptions: {
      boost: { label: 4, also: 5, id: 2 },
      weights: { fuzzy: 0.3, prefix: 0.4 },
      boostDocument: (key) => weightOf(entries[key as number]),
      prefix: true,
      fuzzy: (term) => (term.length > 3 ? 0.34 : false),
      combineWith: 'AND',
      maxFuzzy: 3,
    },
  })
  index.addAll(entries.map((entry, key) => ({ ...entry, key })))
  return index
}

/** Who types a name wants the test of that name, and only then what practitioners differ about in it. */
const WEIGHTS: Readonly<Record<string, number>> = { test: 1.4, variant: 0.3 }

/** A bare name comes before the same name with more to it. */
const weightOf = (entry: LibraryEntry | undefined): number => (entry === undefined ? 1 : (WEIGHTS[entry.kind] ?? 1) * (1 + 0.5 / entry.label.split(' ').length))

const KIND_FIRST: Readonly<Record<string, number>> = { test: 0, flag: 1, item: 2, score: 3, condition: 4, variant: 5, source: 6 }

/** @returns what fits the filter, the best match first; without a search, tests first and by name */
export function findEntries(
  entries: readonly LibraryEntry[],
  index: MiniSearch<LibraryEntry & { readonly key: number }>,
  filter: LibraryFilter,
): LibraryEntry[] {
  const fits = (entry: LibraryEntry): boolean =>
    (filter.kind === '' || entry.kind === filter.kind) &&
    (filter.region === '' || entry.regions.includes(filter.region)) &&
    (filter.stage === '' || entry.stage === filter.stage) &&
    (filter.position === '' || entry.position === filter.position) &&
    (filter.tier === '' || entry.tier === filter.tier)
  if (filter.search.trim() === '') {
    return entries
      .filter(fits)
      .sort((a, b) => (KIND_FIRST[a.kind] ?? 9) - (KIND_FIRST[b.kind] ?? 9) || tierRank(a) - tierRank(b) || a.label.localeCompare(b.label))
  }
  return matches(index, filter.search)
    .flatMap(({ id }) => entries[id as number] ?? [])
    .filter(fits)
}

/** A letter in five wrong comes before a letter in three; then a name written apart ("bow string"); any of the words last. */
function matches(index: MiniSearch<LibraryEntry & { readonly key: number }>, search: string): SearchResult[] {
  const near = index.search(search, { fuzzy: (term) => (term.length > 3 ? 0.2 : false) })
  const known = new Set(near.map(({ id }) => id as number))
  const all = [...near, ...index.search(search).filter(({ id }) => !known.has(id as number))]
  if (all.length > 0) return all
  const joined = index.search(search.replaceAll(/\s+/g, ''))
  return joined.length > 0 ? joined : index.search(search, { combineWith: 'OR' })
}

const tierRank = ({ tier }: LibraryEntry): number => (tier ? TIERS.indexOf(tier) : TIERS.length)
