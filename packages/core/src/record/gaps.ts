import type { Item, Value } from '../model/item.js'
import type { FindingEntry } from './entry.js'

/** Whether a value says that nothing was found out. @example isGapValue(film, ['not done']) // true */
export const isGapValue = ({ gaps }: Pick<Item, 'gaps'>, value: Value | undefined): boolean =>
  gaps.length > 0 &&
  value !== undefined &&
  (Array.isArray(value) ? value.length > 0 && value.every((word) => gaps.includes(String(word))) : gaps.includes(String(value)))

/** Whether an entry says that something was not done or is not known: recorded, and neither normal nor abnormal. */
export const isGapEntry = (item: Pick<Item, 'gaps'> | undefined, entry: Pick<FindingEntry, 'state' | 'value'>): boolean =>
  item !== undefined && entry.state === 'examined' && isGapValue(item, entry.value)
