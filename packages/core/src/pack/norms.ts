import type { Item } from '../model/item.js'
import type { ReferenceRange } from './pack.js'

/**
 * The usual range that a row shows: of children for a child, else of the reference that was chosen, else the range that covers them all.
 * It is for the eye: the other side comes first, and no rule reads it.
 * @param chosen id of a reference of `pack.referenceRanges`; undefined for the range that covers them all
 * @param years age of the patient; undefined when it is not known
 * @returns degrees in words ("140 to 150"); undefined where the item has no usual range
 * @example usualRange({ normText: '140 to 150', norms: { guides: '140' } }, references, 'guides', 40) // '140'
 */
export function usualRange(
  item: Pick<Item, 'norms' | 'normText'>,
  references: readonly ReferenceRange[],
  chosen: string | undefined,
  years: number | undefined,
): string | undefined {
  const young = years === undefined ? undefined : references.find(({ id, under }) => under !== undefined && years < under && item.norms?.[id] !== undefined)
  return item.norms?.[young?.id ?? chosen ?? ''] ?? item.normText
}

/** What each reference says of an item, in the order of the pack; empty where they do not differ or none speaks. */
export const rangesByReference = (
  item: Pick<Item, 'norms'>,
  references: readonly ReferenceRange[],
): { readonly reference: ReferenceRange; readonly range: string }[] =>
  references.flatMap((reference) => {
    const range = item.norms?.[reference.id]
    return range === undefined ? [] : [{ reference, range }]
  })
