import { NORMAL, type Finding, type Item, type Needs, type NormalSpan } from '../model/item.js'

/** Words of an option that say that nothing was found out. What a patient is unsure of is an answer, and stands elsewhere. */
const GAP = /^(not done|not known|not yet examined)$/

/** @example gapsOf(['not done', 'normal', 'fracture']) // ['not done'] */
export const gapsOf = (options: readonly string[]): readonly string[] => options.filter((word) => GAP.test(word))

type Source = Pick<Item, 'id' | 'stage' | 'kind' | 'unit' | 'options' | 'readings' | 'normal' | 'min' | 'max'>
type Declared = { readonly needs?: Needs | undefined; readonly normalSpan?: Partial<NormalSpan> | undefined }

/**
 * What "examined and normal" means for an item. Words stay as they are. A number is never written by a key: either it needs a reading, or
 * normal is a value of its own, which rules read as a span from the usual value onwards and which note and letter say in words.
 * @param declared what the content says itself; the rest follows from kind and stage
 * @example normalMeaning({ kind: 'angle', stage: 'move', normal: { value: 120 }, max: 160, ... }, {})
 *   // { normal: { value: 'normal' }, normalSpan: { says: 'full', low: 120, high: 160 }, needs: undefined }
 */
export function normalMeaning(item: Source, declared: Declared): Pick<Item, 'normal' | 'normalSpan' | 'needs'> {
  const needs = declared.needs ?? (declared.normalSpan === undefined ? needsOf(item) : undefined)
  const { normal } = item
  if (needs !== undefined || !normal || !isMeasured(item)) return { normal: normal && withoutNumbers(item, normal, needs), normalSpan: undefined, needs }
  const usual = numbersOf(item, normal)
  const low = declared.normalSpan?.low ?? Math.min(...usual)
  const high = declared.normalSpan?.high ?? (low === 0 ? 0 : (item.max ?? low))
  const says = declared.normalSpan?.says ?? (low === 0 && high === 0 && item.kind !== 'angle' ? 'none' : item.kind === 'angle' ? 'full' : 'normal')
  return { normal: withoutNumbers(item, { ...normal, value: NORMAL }, undefined), normalSpan: { says, low, high }, needs: undefined }
}

const isMeasured = ({ kind, options }: Source): boolean => options.length === 0 && kind !== 'moment' && kind !== 'laxity'

function needsOf(item: Source): Needs | undefined {
  const { id, stage, kind, unit, normal } = item
  if (stage === 'result') return id.split('.').includes('lab') ? 'laboratory' : 'report'
  if (!isMeasured(item) || !normal || kind === 'angle') return undefined
  const isNought = numbersOf(item, normal).every((number) => number === 0)
  if (stage === 'story' || stage === 'patient') return isNought ? undefined : 'telling'
  return kind === 'ratio' || kind === 'pressure' || kind === 'time' || stage === 'function' || unit === 'kg' || !isNought ? 'instrument' : undefined
}

/** The numbers that the content calls normal: the value, or each reading. */
const numbersOf = ({ readings }: Source, { value, qualifiers = {} }: Finding): readonly number[] =>
  [value, ...readings.map((name) => qualifiers[name])].filter((one) => typeof one === 'number')

/** Nobody measured it, so it has no method; a number beside a word was not taken either. */
function withoutNumbers(item: Source, normal: Finding, needs: Needs | undefined): Finding {
  const kept = Object.entries(normal.qualifiers ?? {}).filter(
    ([name, value]) => needs !== undefined || (typeof value !== 'number' && (name !== 'method' || !isMeasured(item))),
  )
  return { ...(normal.value === undefined ? {} : { value: normal.value }), ...(kept.length > 0 ? { qualifiers: Object.fromEntries(kept) } : {}) }
}
