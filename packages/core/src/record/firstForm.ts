import { PRIORITY, RANGE, subjectOf } from './decisions.js'
import type { Entry, EntryOf } from './entry.js'

/**
 * Entries as they were written at first, in files of version 1 and in records of before: a decision stood under `item` as a finding does,
 * with the priority under the item "priority", an open range under "range", and its plan among qualifiers. Seals are taken over that form still, so that they are of one kind.
 */
export interface FirstForm {
  readonly id: string
  readonly state: string
  readonly item?: string
  readonly side?: string
  readonly value?: unknown
  readonly qualifiers?: Readonly<Record<string, unknown>>
  readonly [more: string]: unknown
}

/** An entry as seals read it. @example firstForm(accepted) // { item: 'range', side: 'none', qualifiers: { ceiling: 'now', plan: … }, … } */
export function firstForm(entry: Entry): FirstForm {
  const { about: item, side } = subjectOf(entry)
  switch (entry.state) {
    case 'lifted': {
      const { flag: _, ...rest } = entry
      return { ...rest, item }
    }
    case 'released': {
      const { hold: _, ...rest } = entry
      return { ...rest, item }
    }
    case 'chosen': {
      const { tier, from, senior, seniorAt, ...rest } = entry
      const agreed = { ...(senior === undefined ? {} : { senior }), ...(seniorAt === undefined ? {} : { 'senior-at': seniorAt }) }
      return { ...rest, item, side, value: tier, qualifiers: { from, ...agreed } }
    }
    case 'accepted': {
      const { ceiling, plan, ...rest } = entry
      return { ...rest, item, side, qualifiers: { ceiling, plan } }
    }
    case 'withdrawn': {
      const { decision: _, of: __, ...rest } = entry
      return { ...rest, state: 'not-examined', item, side }
    }
    default:
      return entry
  }
}

/**
 * Entries of either form, in the form of today. What cannot be read so is left as it is: whoever checks it says what is wrong.
 * @example entriesOfToday([{ state: 'chosen', item: 'priority', value: 'days', qualifiers: { from: 'today' }, … }]) // [{ state: 'chosen', tier: 'days', from: 'today', … }]
 */
export function entriesOfToday(entries: readonly unknown[]): Entry[] {
  const decided = new Map<string, 'lifted' | 'released'>()
  for (const entry of entries) if (isFirstForm(entry) && (entry.state === 'lifted' || entry.state === 'released')) decided.set(entry.item, entry.state)
  return entries.map((entry) => (isFirstForm(entry) ? ofToday(entry, decided) : entry) as Entry)
}

const isFirstForm = (entry: unknown): entry is FirstForm & { readonly item: string } =>
  typeof entry === 'object' && entry !== null && 'item' in entry && typeof entry.item === 'string' && 'state' in entry

function ofToday(entry: FirstForm & { readonly item: string }, decided: ReadonlyMap<string, 'lifted' | 'released'>): object {
  const { item, side, value, qualifiers = {}, ...rest } = entry
  switch (entry.state) {
    case 'lifted':
      return { ...rest, flag: item, side, ...(value === undefined ? {} : { value }) }
    case 'released':
      return { ...rest, hold: item, side, ...(value === undefined ? {} : { value }) }
    case 'chosen': {
      const { 'senior-at': seniorAt, ...said } = qualifiers
      return { ...rest, ...(item === PRIORITY.about ? {} : { item }), tier: value, ...said, ...(seniorAt === undefined ? {} : { seniorAt }) }
    }
    case 'accepted':
      return { ...rest, ...(item === RANGE.about ? {} : { item }), ...qualifiers }
    case 'not-examined':
      return takenBack(entry, decided)
    default:
      return entry
  }
}

/** What took a decision back looked like what takes a finding back. */
function takenBack(entry: FirstForm & { readonly item: string }, decided: ReadonlyMap<string, 'lifted' | 'released'>): object {
  const { item, side, ...rest } = entry
  const decision = item === PRIORITY.about ? 'chosen' : item === RANGE.about ? 'accepted' : decided.get(item)
  if (decision === undefined) return entry
  const of = decision === 'lifted' || decision === 'released' ? { of: item, side } : {}
  return { ...rest, state: 'withdrawn' satisfies EntryOf<'withdrawn'>['state'], decision, ...of }
}
