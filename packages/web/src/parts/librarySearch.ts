import MiniSearch, { type SearchResult } from 'minisearch'
import { oncePer, TIERS, type LibraryEntry } from '@kneecap-awl/core'

export interface LibraryFilter {
  readonly search: string
  readonly kind: string
  readonly region: string
  readonly stage: string
  readonly position: string
  readonly tier: string
}

/** Words, without accents and without the "s" of a person's name: "Lasègue's" is "lasegue". */
const wordsOf = (text: string): string[] =>
  text
    .normalize('NFD')
    .replaceAll(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll(/['’]s\b/g, '')
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** The rarest misspelling still finds it: a letter in four may be wrong, and the beginning of a word is enough. */
export function searchIndex(entries: readonly LibraryEntry[]): MiniSearch<LibraryEntry & { readonly key: number }> {
  const index = new MiniSearch<LibraryEntry & { key: number }>({
    idField: 'key',
    fields: ['label', 'also', 'lay', 'words', 'id'],
    tokenize: wordsOf,
    searchOptions: {
      boost: { label: 4, also: 5, lay: 3, id: 2 },
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

/** What was found, and whether it took more than a letter in five. */
type Match = SearchResult & { readonly isLoose: boolean }

/** How sure, and of which kind a thing is: its bare name goes without. */
const CERTAINTY = new Set(['suspected', 'possible', 'probable', 'acute'])
const KIND_WORDS = new Set([
  ...CERTAINTY,
  ...'test sign syndrome rupture fracture lesion injury tenderness disease score scores criteria cluster rule rules pulse the of'.split(' '),
])
const ARTICLES = new Set(['a', 'an', 'the', 'perhaps'])
const without = (dropped: ReadonlySet<string>, words: readonly string[]): string[] => words.filter((word) => !dropped.has(word))

const isAbbreviation = (said: string): boolean => /^[A-Z0-9-]+$/.test(said)

interface Name {
  readonly words: readonly string[]
  /** Below 1 for what it is called, the more of that the lower; then other names and parts of it; 3 for the patient's words. */
  readonly rank: number
}

/** @example namesOf({ label: 'Ankle–brachial index (ABI)', also: 'ABPI', … }) // 'ankle brachial index', 'abi', 'abpi', each with its rank */
const namesOf = oncePer(({ kind, label, also = '', lay = '' }: LibraryEntry): readonly Name[] => {
  const plain = label.replaceAll(/\([^)]*\)/g, ' ')
  const inBrackets = [...label.matchAll(/\(([^)]*)\)/g)].map(([, said = '']) => said)
  const forms = (said: string): string[][] => [wordsOf(said), without(CERTAINTY, wordsOf(said)), without(KIND_WORDS, wordsOf(said))]
  // Another name of a disease is its name; another name of a finding may be what it is looked for in.
  const another = { test: 1.6, item: 1.9 }[kind as string] ?? 1
  const isFinding = kind === 'test' || kind === 'item'
  const names = [
    ...forms(label).map((words) => ({ words, rank: 0 })),
    ...forms(plain).map((words) => ({ words, rank: 0.5 })),
    ...forms(plain.split(/,| at \d/)[0] ?? '').map((words) => ({ words, rank: 0.75 })),
    ...plain.split(/,| or |\//).flatMap((part) => forms(part).map((words) => ({ words, rank: 1.5 }))),
    ...also.split(';').flatMap((said) => forms(said).map((words) => ({ words, rank: isFinding || !isAbbreviation(said.trim()) ? another : 0.85 }))),
    ...inBrackets.map((said) => ({ words: wordsOf(said), rank: isAbbreviation(said) ? 0.8 : 1.5 })),
    ...lay.split(';').map((said) => ({ words: without(ARTICLES, wordsOf(said)), rank: 3 })),
  ]
  return names.filter(({ words }) => words.length > 0)
})

/** What the beginning of its name alone says of a thing. */
const BEGUN: Readonly<Record<string, number>> = { flag: 0.9, condition: 0.9, score: 1.65, test: 1.75, item: 1.75 }

/** @example isInitials(['ces'], ['cauda', 'equina', 'syndrome']) // true */
const isInitials = ([first = '', ...rest]: readonly string[], label: readonly string[]): boolean =>
  rest.length === 0 &&
  first.length > 2 &&
  label
    .map((word) => word.charAt(0))
    .join('')
    .startsWith(first)

/**
 * How far a name lies from what is sought: below 10 when it is that, below 20 when it is that misspelt; 20 when all that is sought stands in what it is
 * called; below 30 when another name is that misspelt by more than a letter in five; else 30.
 */
function closeness(entry: LibraryEntry, sought: readonly string[], { terms, isLoose }: Match): number {
  const bare = without(KIND_WORDS, sought)
  const isSame = (words: readonly string[], to: readonly string[]): boolean => words.length === to.length && words.every((word, at) => word === to[at])
  const isNear = (words: readonly string[]): boolean => words.length === sought.length && words.every((word) => terms.includes(word))
  const label = without(CERTAINTY, wordsOf(entry.label))
  const isBegun = sought.every((word, at) => word === label[at])
  const begun = Math.min(
    isBegun ? (BEGUN[entry.kind] ?? 30) : 30,
    (entry.kind === 'flag' || entry.kind === 'condition') && isInitials(sought, label) ? 0.6 : 30,
  )
  const named = namesOf(entry).reduce(
    (best, { words, rank }) =>
      Math.min(best, isSame(words, sought) ? rank : isSame(words, bare) ? rank + 0.1 : isNear(words) ? (!isLoose ? 10 : rank < 1 ? 15 : 25) + rank : 30),
    begun,
  )
  const inLabel = label.filter((word) => terms.includes(word)).length
  return Math.min(named, inLabel >= sought.length ? 20 : 30)
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
    return entries.filter(fits).sort((a, b) => byKind(a, b) || a.label.localeCompare(b.label))
  }
  const sought = wordsOf(filter.search)
  return matches(index, sought.join(' '))
    .flatMap((result) => {
      const entry = entries[result.id as number]
      return entry && fits(entry) ? [{ entry, close: closeness(entry, sought, result) }] : []
    })
    .sort((a, b) => a.close - b.close || (a.close < 20 ? byKind(a.entry, b.entry) : 0))
    .map(({ entry }) => entry)
}

/** A letter in five wrong comes before a letter in three; then a name written apart ("bow string"); any of the words last. */
function matches(index: MiniSearch<LibraryEntry & { readonly key: number }>, search: string): Match[] {
  const loosely = (found: readonly SearchResult[]): Match[] => found.map((one) => ({ ...one, isLoose: true }))
  const near = index.search(search, { fuzzy: (term) => (term.length > 3 ? 0.2 : false) }).map((one) => ({ ...one, isLoose: false }))
  const known = new Set(near.map(({ id }) => id as number))
  const all = [...near, ...loosely(index.search(search).filter(({ id }) => !known.has(id as number)))]
  if (all.length > 0) return all
  const joined = index.search(search.replaceAll(/\s+/g, ''))
  return loosely(joined.length > 0 ? joined : index.search(search, { combineWith: 'OR' }))
}

/** Of two of one name: a test before what it is for, the more urgent before the less. */
const byKind = (a: LibraryEntry, b: LibraryEntry): number => (KIND_FIRST[a.kind] ?? 9) - (KIND_FIRST[b.kind] ?? 9) || tierRank(a) - tierRank(b)

const tierRank = ({ tier }: LibraryEntry): number => (tier ? TIERS.indexOf(tier) : TIERS.length)
