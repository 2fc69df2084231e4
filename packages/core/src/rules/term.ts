import { isInterval, type Interval, type TermValue } from '../model/interval.js'
import { NORMAL, type Item, type NormalSpan } from '../model/item.js'
import { otherSide, type SideIndex } from '../model/side.js'
import { type Term } from './rule.js'
import type { Read, RuleSet } from './ruleSet.js'
import { isWithin, sideOf, slotOf, type Context, type Reading } from './runtime.js'

/** Reads what stands left of a comparison. Null means not known. */
export function termReader(term: Term, rules: RuleSet): Read {
  const index = rules.index(term.item)
  const item = rules.item(index)
  const own = itemReader(index, item, term.qualifier, rules)
  switch (term.fn) {
    case 'value':
      return own
    case 'other':
      return (context, side) => own(context, otherSide(side))
    case 'diff':
      return item.kind === 'laxity' ? laxityDifference(index, own) : difference(index, item, own)
    case 'deficit':
      return percentDeficit(index, item, own)
    case 'gap':
      return readingsGap(index, item, rules)
    case 'worst': {
      const all = [own, ...(term.more ?? []).map((id) => itemReader(rules.index(id), rules.item(rules.index(id)), undefined, rules))]
      return (context, side) => greatest(all.map((read) => read(context, side)))
    }
    case 'change':
      return (context, side) => {
        const slot = slotOf(index, sideOf(item, side))
        const earlier = context.previous[slot]
        if (isWithin(earlier, term.window) && isNormal(earlier.reading) && isNormal(context.slots[slot])) return 0
        return isWithin(earlier, term.window) ? subtract(own(context, side), worthOf(earlier.reading, item, term.qualifier)) : null
      }
  }
}

/** The worth of one item on one side: what was entered, else what its measure works out from other findings. */
function itemReader(index: number, item: Item, qualifier: string | undefined, rules: RuleSet): Read {
  const entered: Read = (context, side) => {
    const reading = context.slots[slotOf(index, sideOf(item, side))]
    return reading ? worthOf(reading, item, qualifier) : null
  }
  const derive = item.derive
  if (!derive || qualifier !== undefined) return entered
  const measure = rules.measure(derive.measure)
  const inputs = Object.entries(derive.from).map(([name, path]) => [name, rules.reader(path, item)] as const)
  return (context, side) => {
    const known = entered(context, side)
    if (known !== null) return known
    const slot = slotOf(index, sideOf(item, side))
    const kept = context.derived.get(slot)
    if (kept !== undefined) return kept
    const worth = measure(Object.fromEntries(inputs.map(([name, read]) => [name, read(context, side)])), { asOf: context.asOf })
    const encoded = asOption(worth, item)
    context.derived.set(slot, encoded)
    return encoded
  }
}

/** What a measure works out for an item of words: ordered words come as their rank, the others as the word that stands at the rank. */
function asOption(worth: TermValue, { options, ordered }: Item): TermValue {
  if (ordered) return typeof worth === 'string' ? options.indexOf(worth) : worth
  return typeof worth === 'number' && options.length > 0 ? (options[worth] ?? null) : worth
}

/** Ordered words come as their rank, so that "reduced" is below "normal"; the rest as it was entered. */
function worthOf(reading: Reading, item: Item, qualifier: string | undefined): TermValue {
  if (!reading.examined) return null
  const raw = qualifier === undefined ? reading.value : (reading.qualifiers[qualifier] ?? readingOfNormal(reading, item, qualifier))
  if (raw === undefined) return null
  if (raw === NORMAL && item.normalSpan) return spanValue(item.normalSpan)
  if (qualifier !== undefined && item.qualifiers[qualifier]?.gaps?.includes(String(raw))) return null
  if (typeof raw === 'boolean') return raw ? 1 : 0
  if (typeof raw === 'string' && qualifier === undefined && item.ordered) {
    const rank = item.options.indexOf(raw)
    return rank < 0 ? null : rank
  }
  return raw
}

/** A range that was found normal without a number is so in each of its readings. */
const readingOfNormal = (reading: Reading, item: Item, qualifier: string): string | undefined =>
  reading.value === NORMAL && item.readings.includes(qualifier) ? NORMAL : undefined

/** What rules read "normal" as. @example spanWorth({ says: 'full', low: 120, high: 160 }) // { low: 120, high: 160 } */
export const spanValue = ({ low, high }: Pick<NormalSpan, 'low' | 'high'>): number | Interval => (low === high ? low : { low, high })

/** Full on both sides is full and equal: no difference, though nobody knows the degrees. */
const bothNormal =
  (index: number, item: Item) =>
  (context: Context, side: SideIndex): boolean =>
    [side, otherSide(side)].every((one) => isNormal(context.slots[slotOf(index, sideOf(item, one))]))

const isNormal = (reading: Reading | undefined): boolean => reading?.examined === true && reading.value === NORMAL

const difference = (index: number, item: Item, own: Read): Read => {
  const isEqual = bothNormal(index, item)
  return (context, side) => (isEqual(context, side) ? 0 : subtract(own(context, side), own(context, otherSide(side))))
}

function subtract(a: TermValue, b: TermValue): TermValue {
  if (typeof a === 'number' && typeof b === 'number') return a - b
  const left = asInterval(a)
  const right = asInterval(b)
  return left && right ? { low: left.low - right.high, high: left.high - right.low } : null
}

/** Millimetres of this side minus the other; "equal to the other side" by hand counts as nought. */
const laxityDifference =
  (index: number, own: Read): Read =>
  (context, side) => {
    const here = context.slots[slotOf(index, side)]
    const there = context.slots[slotOf(index, otherSide(side))]
    const measured = subtract(own(context, side), own(context, otherSide(side)))
    if (measured !== null) return measured
    return here?.examined && there?.examined && (here.qualifiers.equal === true || there.qualifiers.equal === true) ? 0 : null
  }

/** Percent that this side falls short of the other; a span where either was only found normal. */
const percentDeficit = (index: number, item: Item, own: Read): Read => {
  const isEqual = bothNormal(index, item)
  return (context, side) => {
    if (isEqual(context, side)) return 0
    const here = asInterval(own(context, side))
    const there = asInterval(own(context, otherSide(side)))
    if (!here || !there || there.low <= 0) return null
    const low = (100 * (there.low - here.high)) / there.low
    const high = (100 * (there.high - here.low)) / there.high
    return spanValue({ low, high })
  }
}

const asInterval = (worth: TermValue): Interval | undefined => (typeof worth === 'number' ? { low: worth, high: worth } : isInterval(worth) ? worth : undefined)

/** Last reading minus the first: passive minus active, released minus blocked. */
function readingsGap(index: number, item: Item, rules: RuleSet): Read {
  const first = itemReader(index, item, item.readings[0], rules)
  const last = itemReader(index, item, item.readings[item.readings.length - 1], rules)
  return (context, side) => (isNormal(context.slots[slotOf(index, sideOf(item, side))]) ? 0 : subtract(last(context, side), first(context, side)))
}

function greatest(worths: readonly TermValue[]): TermValue {
  const spans = worths.flatMap((worth) => asInterval(worth) ?? [])
  return spans.length === 0 ? null : spanValue({ low: Math.max(...spans.map(({ low }) => low)), high: Math.max(...spans.map(({ high }) => high)) })
}
