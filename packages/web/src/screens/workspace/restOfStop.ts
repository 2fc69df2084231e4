import { normalByKey, sidesOf, type FindingEntry, type Item, type Needs, type Side } from '@kneecap-awl/core'
import type { FindingDraft } from '../../record/useRecord'

/**
 * What a digit says of an item: the grade itself where it is graded, else the nth choice.
 * @returns undefined for what is read, or a list of several
 * @example wordOfDigit(jointLine, '2') // '2'
 */
export const wordOfDigit = ({ kind, scale, options }: Item, digit: string): string | undefined =>
  kind === 'multi' ? undefined : scale && options.includes(digit) ? digit : options[Number(digit) - 1]

/** Why the key for normal leaves an item alone. */
export interface Left {
  readonly item: Item
  readonly why: string
}

/** What the keys for normal need to know of the sheet. */
export interface SheetState {
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly isBlocked: (item: Item) => boolean
  readonly overrideOf: (item: Item) => FindingEntry['override']
  /** The sides in hand; both when left out. */
  readonly sides?: readonly Side[]
}

const NEEDS_WORDS: Readonly<Record<Needs, string>> = {
  instrument: 'needs a reading',
  report: 'needs a report',
  laboratory: 'needs a laboratory result',
  telling: 'has to be told',
}

/** Why "examined and normal" cannot be said of an item by a key; undefined when it can. */
export function whyNotNormal(item: Item, { isBlocked }: Pick<SheetState, 'isBlocked'>): string | undefined {
  if (isBlocked(item)) return 'on hold'
  if (item.needs) return NEEDS_WORDS[item.needs]
  return normalByKey(item) ? undefined : 'has to be told'
}

/** Examined and normal, for the sides in hand that have no entry yet: what was found is never written over. */
export function normalDrafts(item: Item, { entryOf, overrideOf, sides }: SheetState): readonly FindingDraft[] {
  const normal = normalByKey(item)
  const override = overrideOf(item)
  if (!normal) return []
  return sidesOf(item, sides)
    .filter((side) => entryOf(item.id, side) === undefined)
    .map((side) => ({ item: item.id, side, state: 'examined' as const, ...normal, ...(override ? { override } : {}) }))
}

/**
 * The rest of a stop as normal: what can be recorded, of which items, and what is left and why. What could exclude a flag of Now or Today is
 * answered one by one.
 */
export function restOfStop(
  rows: readonly Item[],
  state: SheetState,
): { readonly drafts: readonly FindingDraft[]; readonly recorded: readonly Item[]; readonly left: readonly Left[] } {
  const open = rows.filter((item) => sidesOf(item, state.sides).some((side) => state.entryOf(item.id, side) === undefined))
  const judged = open.map((item) => ({
    item,
    why: whyNotNormal(item, state) ?? (item.answeredAlone ? 'could exclude a Now or Today, answer each by itself' : undefined),
  }))
  const recorded = judged.filter(({ why }) => why === undefined).map(({ item }) => item)
  return {
    recorded,
    drafts: recorded.flatMap((item) => normalDrafts(item, state)),
    left: judged.flatMap(({ item, why }) => (why === undefined ? [] : [{ item, why }])),
  }
}
