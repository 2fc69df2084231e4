import { CORE_SCHEMA, load } from 'js-yaml'
import type { SourceFile } from '../pack/source.js'
import type { Problem } from '../pack/problem.js'

/** Where a word may stand: what names a thing, what explains it to the physician, what a patient reads. */
type Place = 'names' | 'texts' | 'lay'

interface Entry {
  /** The forms of the word. */
  readonly words: readonly string[]
  /** What stands instead. */
  readonly write: string
  /** Names and texts of the physician when left out. */
  readonly in?: Place
  readonly except?: readonly { readonly text: string; readonly reason: string }[]
}

interface Rule extends Entry {
  readonly forbidden: RegExp
  readonly exceptions: readonly RegExp[]
}

const NAMES = new Set(['label', 'title', 'name', 'options', 'says', 'print', 'letter', 'topic', 'choices', 'group'])
const TEXTS = new Set(
  'positive trap technique hint why excludedBy because avoid advice picture reason allowed text lost structure note tierNote finding first then pregnant review'.split(
    ' ',
  ),
)
const LAY = new Set(['lay', 'safetyNet', 'safetyNetChild'])
const LEXICON = 'lexicon.yaml'
/** Names in other words, and names of before, are there to be found by. */
const UNREAD = new Set(['also', 'formerly', 'source', 'tells'])

/**
 * Finds everyday words in what a physician reads, and physicians' words in what a patient reads, by the lists of `lexicon.yaml`.
 * @param files the whole content, the lexicon among it
 * @returns one problem for each text with such a word, with what to write instead; and one for each exception that excuses nothing
 * @example lexiconProblems([{ path: 'lexicon.yaml', text: 'lexicon: [{ words: [kneecap], write: patella }]' }, { path: 'a.yaml', text: 'label: Kneecap' }])
 *   // [{ file: 'a.yaml', id: 'Kneecap', reason: '"Kneecap" stands in a label', cure: 'write patella' }]
 */
export function lexiconProblems(files: readonly SourceFile[]): Problem[] {
  const list = files.find(({ path }) => path === LEXICON)
  if (!list) return [{ file: LEXICON, id: 'lexicon', reason: 'there is none', cure: 'list the words that may not stand in a field' }]
  const rules = (load(list.text, { schema: CORE_SCHEMA }) as { readonly lexicon: readonly Entry[] }).lexicon.map(compiled)
  const excused = new Set<RegExp>()
  const problems: Problem[] = []
  for (const { path, text } of files) {
    if (path === LEXICON || path.startsWith('formerly')) continue
    walk(load(text, { schema: CORE_SCHEMA }), '', '', (said, key, id) => {
      const place = placeOf(key)
      if (place)
        problems.push(
          ...faultsOf(said, place, rules, excused).map(({ found, write }) => ({
            file: path,
            id,
            reason: `"${found}" stands in "${said}" (${key})`,
            cure: `write ${write}`,
          })),
        )
    })
  }
  const unused = rules.flatMap((rule) => rule.exceptions.filter((one) => !excused.has(one)).map((one) => [rule.words[0] ?? '', one.source] as const))
  return [...problems, ...unused.map(([words, text]) => ({ file: LEXICON, id: words, reason: `nothing needs the exception "${text}"`, cure: 'take it out' }))]
}

const compiled = (entry: Entry): Rule => ({
  ...entry,
  forbidden: new RegExp(`(?<![\\p{L}-])(?:${entry.words.join('|').replaceAll(' ', '\\s+')})(?![\\p{L}-])`, 'iu'),
  exceptions: (entry.except ?? []).map(({ text }) => new RegExp(text, 'giu')),
})

const placeOf = (key: string): Place | undefined => (LAY.has(key) ? 'lay' : NAMES.has(key) ? 'names' : TEXTS.has(key) ? 'texts' : undefined)

/** Every text with the key that it stands under and the id of what it is said of. */
function walk(node: unknown, key: string, id: string, visit: (said: string, key: string, id: string) => void): void {
  if (typeof node === 'string') visit(node, key, id === '' ? node : id)
  else if (Array.isArray(node)) node.forEach((one) => walk(one, key, id, visit))
  else if (typeof node === 'object' && node !== null) {
    const own = 'id' in node && typeof node.id === 'string' ? node.id : id
    for (const [name, value] of Object.entries(node)) if (!UNREAD.has(name)) walk(value, name, name === 'lay' ? id : name.includes('.') ? name : own, visit)
  }
}

/** @param excused gets the exceptions that were needed */
function faultsOf(said: string, place: Place, rules: readonly Rule[], excused: Set<RegExp>): { readonly found: string; readonly write: string }[] {
  return rules.flatMap((rule) => {
    const isMeant = rule.in === undefined ? place !== 'lay' : rule.in === place
    if (!isMeant || !rule.forbidden.test(said)) return []
    const rest = rule.exceptions.reduce((text, exception) => {
      const without = text.replace(exception, '')
      if (without !== text) excused.add(exception)
      return without
    }, said)
    const found = rule.forbidden.exec(rest)?.[0]
    return found === undefined ? [] : [{ found, write: rule.write }]
  })
}
