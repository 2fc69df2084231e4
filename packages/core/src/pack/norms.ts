import type { Item } from '../model/item.js'
import type { NormSchool } from './pack.js'

/**
 * The usual range that a row shows: of children for a child, else of the school that was chosen, else the range that covers them all.
 * It is for the eye: the other side comes first, and no rule reads it.
 * @param chosen id of a school of `pack.normSchools`; undefined for the range that covers them all
 * @param years age of the patient; undefined when it is not known
 * @returns degrees in words ("140 to 150"); undefined where the item has no usual range
 * @example usualRange({ normText: '140 to 150', norms: { guides: '140' } }, schools, 'guides', 40) // '140'
 */
export function usualRange(
  item: Pick<Item, 'norms' | 'normText'>,
  schools: readonly NormSchool[],
  chosen: string | undefined,
  years: number | undefined,
): string | undefined {
  const young = years === undefined ? undefined : schools.find(({ id, under }) => under !== undefined && years < under && item.norms?.[id] !== undefined)
  return item.norms?.[young?.id ?? chosen ?? ''] ?? item.normText
}

/** What each school says of an item, in the order of the pack; empty where they do not differ or none speaks. */
export const rangesBySchool = (item: Pick<Item, 'norms'>, schools: readonly NormSchool[]): { readonly school: NormSchool; readonly range: string }[] =>
  schools.flatMap((school) => {
    const range = item.norms?.[school.id]
    return range === undefined ? [] : [{ school, range }]
  })
