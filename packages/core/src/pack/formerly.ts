import type { Entry } from '../record/entry.js'
import type { Item, Qualifier } from '../model/item.js'
import { isFinding } from '../record/decisions.js'
import type { Problem } from './problem.js'
import type { FormerWordsSource } from './source.js'
import type { Sources } from './sources.js'
import type { Pack } from './pack.js'
import type { FormerItem, Formerly, Words } from './renamed.js'

export const NOTHING_RENAMED: Formerly = { ids: {}, items: {} }

/** What every item has, whichever it is, stands under this name. */
const EVERY_ITEM = 'every-item'

/**
 * Notes in the pack what the `formerly` files say of earlier names. What several regions share under one id was renamed in each.
 * @param problems gets one for each name that would read two ways, or stands for nothing; a pack of one region has not all of them
 */
export function withFormerly(pack: Pack, { formerly }: Sources, problems: Problem[]): Pack {
  const regions = pack.regions.map((region) => region.id)
  const items = new Map(pack.items.map((item) => [item.id, item]))
  const known = new Set(
    [...pack.items, ...pack.calcs, ...pack.flags, ...pack.conditions, ...pack.holds, ...pack.prompts, ...pack.modifiers, ...pack.pathways].map((one) => one.id),
  )
  const ids: Record<string, string> = {}
  const renamed: Record<string, FormerItem> = {}
  for (const [of, { path, id, words = {}, qualifiers = {} }] of formerly) {
    if (of === EVERY_ITEM) continue
    const places = known.has(of) ? [''] : regions.map((region) => `${region}.`).filter((prefix) => known.has(prefix + of) && !formerly.has(prefix + of))
    if (places.length === 0 && regions.length > 1)
      problems.push({ file: path, id: of, reason: 'had another name and does not exist', cure: 'correct the id, or take it out' })
    for (const prefix of places) {
      const today = prefix + of
      for (const former of id === undefined ? [] : [id].flat()) {
        const before = prefix + former
        if (known.has(before))
          problems.push({ file: path, id: of, reason: `was called "${before}", which something else is called today`, cure: 'call it otherwise' })
        ids[before] = today
      }
      const item = items.get(today)
      if (!item) continue
      problems.push(
        ...twoWays(item, words, path),
        ...Object.entries(qualifiers).flatMap(([name, said]) => twoWays(item.qualifiers[name], said.words ?? {}, path, today)),
      )
      renamed[today] = { words, qualifiers: byFormerName(qualifiers) }
    }
  }
  const ofEvery = formerly.get(EVERY_ITEM)?.qualifiers ?? {}
  for (const item of pack.items) {
    const shared = Object.entries(ofEvery).filter(([name]) => name in item.qualifiers)
    if (shared.length === 0) continue
    const own = renamed[item.id]
    renamed[item.id] = { words: own?.words ?? {}, qualifiers: { ...byFormerName(Object.fromEntries(shared)), ...own?.qualifiers } }
  }
  return { ...pack, formerly: { ids, items: renamed } }
}

/** As much of it as concerns some things: a joint carries the earlier names of its own. */
export const formerlyOf = ({ ids, items }: Formerly, things: ReadonlySet<string>): Formerly => ({
  ids: Object.fromEntries(Object.entries(ids).filter(([, today]) => things.has(today))),
  items: Object.fromEntries(Object.entries(items).filter(([id]) => things.has(id))),
})

const byFormerName = (qualifiers: Readonly<Record<string, FormerWordsSource>>): FormerItem['qualifiers'] =>
  Object.fromEntries(Object.entries(qualifiers).map(([name, { id = name, words = {} }]) => [id, { name, words }]))

/** An earlier word must not be a word of today, which would then mean two things; and today's must be one. */
function twoWays(of: Item | Qualifier | undefined, words: Words, file: string, owner?: string): Problem[] {
  const options = of?.options ?? []
  const id = owner ?? (of && 'id' in of ? of.id : '')
  return Object.entries(words).flatMap(([before, today]) => [
    ...(options.includes(before) ? [{ file, id, reason: `"${before}" was renamed and is an option still`, cure: 'take one of the two out' }] : []),
    ...(options.includes(today)
      ? []
      : [{ file, id, reason: `"${before}" became "${today}", which is no option`, cure: `write one of: ${options.join(', ')}` }]),
  ])
}

/**
 * Entries that were written in earlier names, in the names of this pack. What it does not know by any name is left as it is: whoever
 * checks them says what is wrong. A signed record is judged with its own pack and never renamed.
 * @example inTodaysNames(pack, [{ item: 'foot.feel.navicular-inner', … }]) // [{ item: 'foot.feel.navicular-tuberosity', … }]
 */
export const inTodaysNames = ({ formerly }: Pick<Pack, 'formerly'>, entries: readonly Entry[]): Entry[] => entries.map((entry) => renamedEntry(entry, formerly))

function renamedEntry(entry: Entry, { ids, items }: Formerly): Entry {
  const today = (id: string): string => ids[id] ?? id
  if (isFinding(entry)) {
    const item = today(entry.item)
    if (entry.state !== 'examined') return { ...entry, item }
    const { words = {}, qualifiers = {} } = items[item] ?? {}
    return {
      ...entry,
      item,
      ...(entry.value === undefined ? {} : { value: inWords(entry.value, words) }),
      ...(entry.qualifiers === undefined
        ? {}
        : {
            qualifiers: Object.fromEntries(
              Object.entries(entry.qualifiers).map(([name, said]) => [qualifiers[name]?.name ?? name, inWords(said, qualifiers[name]?.words ?? {})]),
            ),
          }),
    }
  }
  if (entry.state === 'lifted') return { ...entry, flag: today(entry.flag) }
  if (entry.state === 'released') return { ...entry, hold: today(entry.hold) }
  return entry.state === 'withdrawn' && 'of' in entry ? { ...entry, of: today(entry.of) } : entry
}

function inWords<V>(value: V, words: Words): V
function inWords(value: unknown, words: Words): unknown {
  const today = (word: unknown): unknown => (typeof word === 'string' ? (words[word] ?? word) : word)
  return Array.isArray(value) ? value.map(today) : today(value)
}
