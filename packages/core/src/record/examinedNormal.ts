import type { Item, Pack, Side } from '../content/types.js'
import type { Entry } from './entry.js'

/** Who, when, and where new ids come from: the core has no clock and no randomness of its own. */
export interface Recorder {
  readonly by: string
  readonly at: string
  readonly newId: () => string
}

/** The sides on which an item is recorded: of the given ones where it has a side, else none. */
export const sidesOf = (item: Item, sides: readonly Side[] = ['left', 'right']): readonly Side[] => (item.sided ? sides : ['none'])

/**
 * The entry that "examined and normal" stands for; undefined where nothing is normal by itself (an age, a date).
 * @example normalEntry(lachman, 'right', recorder) // end point firm, equal to the other side
 */
export function normalEntry(item: Item, side: Side, recorder: Recorder): Entry | undefined {
  if (!item.normal) return undefined
  const { value, qualifiers } = item.normal
  return {
    id: recorder.newId(),
    item: item.id,
    side,
    state: 'examined',
    ...(value === undefined ? {} : { value }),
    ...(qualifiers ? { qualifiers } : {}),
    by: recorder.by,
    at: recorder.at,
  }
}

/** Every item of one depth examined and normal, on both sides. For demonstrations and tests; the workspace never does this at once. */
export function examinedNormal(pack: Pack, depths: readonly Item['depth'][], recorder: Recorder): Entry[] {
  return pack.items.filter((item) => depths.includes(item.depth)).flatMap((item) => sidesOf(item).flatMap((side) => normalEntry(item, side, recorder) ?? []))
}

/**
 * Whether an item has one plain word for normal, so that "normal" says all there is to say of it: not a number, a place or a speed, nor a
 * choice of which every word is as good as another.
 */
export const hasPlainNormal = (item: Item): boolean =>
  item.normal !== undefined &&
  !item.mustBeTold &&
  (item.kind === 'laxity' || (item.options.length > 0 && !item.options.every((word) => item.calm.includes(word))))

/**
 * Whether a finding is that plain word and nothing besides: "sore but even" is nothing to worry about, but it is not "even"; and a measured
 * laxity is worth its number however firm its end.
 */
export function isPlainNormal(item: Item, { value, qualifiers = {} }: Pick<Entry, 'value' | 'qualifiers'>): boolean {
  const { normal } = item
  if (!normal || !hasPlainNormal(item) || String(value) !== String(normal.value)) return false
  const usual = normal.qualifiers ?? {}
  return Object.keys({ ...usual, ...qualifiers }).every((name) => String(usual[name]) === String(qualifiers[name]))
}
