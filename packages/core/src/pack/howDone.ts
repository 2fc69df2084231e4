import type { Qualifier } from '../model/item.js'
import type { ItemSource } from './source.js'

const PAIN_STAGES: ReadonlySet<string> = new Set(['test', 'move'])
const PAIN_KINDS: ReadonlySet<string> = new Set(['sign', 'choice', 'angle'])
const LONGEST_HOLD = 600
const POWER = 'power'
/** The qualifier that every power has that has none of its own for pain. */
export const RESISTED = 'resisted'

/** Words for pain that do not say where it is. */
const ANYWHERE: ReadonlySet<string> = new Set(['pain', 'no pain', 'pain only', 'pain and click', 'painful', 'painless', 'familiar pain'])

/** Whether an option says itself where it hurts. @example isPlace('groin pain') // true */
const isPlace = (option: string): boolean => option.includes('pain') && !ANYWHERE.has(option)

/**
 * What an examination can be qualified by without its file saying so: the technique where there are others, the seconds that it was held where
 * the time decides, and for every test and range where the familiar pain was, and for an angle from where on.
 * @param sites words for where it hurts in this joint; none where the joint has no such list
 * @example howDone(faber, 'test', ['groin', 'buttock']) // { site: { label: 'familiar pain in', kind: 'choice', options: ['groin', 'buttock'] } }
 */
export function howDone(
  { qualifiers = {}, alternatives, holdSeconds, kind, derive, options, scale }: ItemSource,
  stage: string,
  sites: readonly string[],
): Record<string, Qualifier> {
  const ways = (alternatives ?? []).flatMap(({ name, item }) => (item === undefined ? [name] : []))
  const isPlaced = 'site' in qualifiers || (options ?? []).some((option) => isPlace(option))
  const isPainful = sites.length > 0 && derive === undefined && PAIN_STAGES.has(stage) && PAIN_KINDS.has(kind)
  const isPower = scale === POWER && !('pain' in qualifiers)
  return {
    ...(isPower ? { [RESISTED]: { label: 'pain on resistance', kind: 'choice' as const, options: ['none', 'mild', 'marked', 'gives way'] } } : {}),
    ...(ways.length === 0 ? {} : { technique: { label: 'technique', kind: 'choice' as const, options: ways } }),
    ...(holdSeconds === undefined ? {} : { held: { label: 'held', kind: 'number' as const, unit: 's', min: 0, max: LONGEST_HOLD } }),
    ...(isPainful && !isPlaced ? { site: { label: 'familiar pain in', kind: 'choice' as const, options: [...sites] } } : {}),
    ...(isPainful && kind === 'angle' && !('pain-from' in qualifiers)
      ? { 'pain-from': { label: 'familiar pain from', kind: 'number' as const, unit: '°', min: 0, max: 180 } }
      : {}),
  }
}
