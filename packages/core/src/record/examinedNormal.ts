import type { Finding, Item } from '../model/item.js'
import type { Side } from '../model/side.js'
import type { FindingEntry } from './entry.js'
import { isGapValue } from './gaps.js'

/** Who, when, and where new ids come from: the core has no clock and no randomness of its own. */
export interface Recorder {
  readonly by: string
  readonly at: string
  readonly newId: () => string
}

/** The sides on which an item is recorded: of the given ones where it has a side, else none. */
export const sidesOf = (item: Item, sides: readonly Side[] = ['left', 'right']): readonly Side[] => (item.sided ? sides : ['none'])

/**
 * What the key for "examined and normal" records of an item; undefined where nothing is normal by itself (an age, a date), and where only an
 * instrument, a report, the laboratory or the patient can tell.
 * @example normalByKey(kneeFlexion) // { value: 'normal' }
 * @example normalByKey(ankleIndex) // undefined: it needs a reading
 */
export const normalByKey = ({ normal, needs }: Item): Finding | undefined => (needs === undefined ? normal : undefined)

/** The entry of an item that was examined and is normal; what needs a reading has the usual one. Undefined where nothing is normal by itself. */
function normalEntry(item: Item, side: Side, recorder: Recorder): FindingEntry | undefined {
  if (!item.normal) return undefined
  return { id: recorder.newId(), item: item.id, side, state: 'examined', ...item.normal, by: recorder.by, at: recorder.at }
}

/**
 * Every item of some depths examined, read and normal, on both sides. For demonstrations and tests; the workspace never does this at once.
 * @param keep leaves items out
 */
export function examinedNormal(
  { items }: { readonly items: readonly Item[] },
  depths: readonly Item['depth'][],
  recorder: Recorder,
  keep: (item: Item) => boolean = () => true,
): FindingEntry[] {
  return items
    .filter((item) => depths.includes(item.depth) && keep(item))
    .flatMap((item) => sidesOf(item).flatMap((side) => normalEntry(item, side, recorder) ?? []))
}

/**
 * Whether an item has one plain word for normal, so that "normal" says all there is to say of it: not a place or a speed, nor a choice of
 * which every word is as good as another.
 */
export const hasPlainNormal = (item: Item): boolean =>
  item.normal !== undefined &&
  !item.mustBeTold &&
  (item.kind === 'laxity' || item.normalSpan !== undefined || (item.options.length > 0 && !item.options.every((word) => item.calm.includes(word))))

/**
 * Whether a finding is that plain word and nothing besides: "sore but even" is nothing to worry about, but it is not "even"; and a measured
 * laxity or range is worth its number. "Not done" is never normal.
 */
export function isPlainNormal(item: Item, { value, qualifiers = {} }: Pick<FindingEntry, 'value' | 'qualifiers'>): boolean {
  const { normal } = item
  if (!normal || isGapValue(item, value) || !hasPlainNormal(item) || String(value) !== String(normal.value)) return false
  const usual = normal.qualifiers ?? {}
  return Object.keys({ ...usual, ...qualifiers }).every((name) => String(usual[name]) === String(qualifiers[name]))
}
