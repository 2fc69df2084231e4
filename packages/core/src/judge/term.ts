import type { Item, Term } from '../content/types.js'
import { measureOf } from '../measure/registry.js'
import { isInterval } from './compare.js'
import type { Prepared } from './prepare.js'
import { isWithin, otherSide, sideOf, slotOf, type Context, type Reading, type Worth } from './runtime.js'

export type Read = (context: Context, side: number) => Worth

/** Reads what stands left of a comparison. Null means not known. */
export function termReader(term: Term, prepared: Prepared): Read {
  const index = prepared.index(term.item)
  const item = prepared.item(index)
  const own = itemReader(index, item, term.qualifier, prepared)
  switch (term.fn) {
    case 'value':
      return own
    case 'other':
      return (context, side) => own(context, otherSide(side))
    case 'diff':
      return item.kind === 'laxity' ? laxityDifference(index, own) : difference(own)
    case 'deficit':
      return percentDeficit(own)
    case 'gap':
      return readingsGap(index, item, prepared)
    case 'worst': {
      const all = [own, ...(term.more ?? []).map((id) => itemReader(prepared.index(id), prepared.item(prepared.index(id)), undefined, prepared))]
      return (context, side) => greatest(all.map((read) => read(context, side)))
    }
    case 'change':
      return (context, side) => {
        const earlier = context.previous[slotOf(index, sideOf(item, side))]
        return isWithin(earlier, term.window) ? subtract(own(context, side), worthOf(earlier.reading, item, term.qualifier)) : null
      }
  }
}

/** The worth of one item on one side: what was entered, else what its measure works out from other findings. */
function itemReader(index: number, item: Item, qualifier: string | undefined, prepared: Prepared): Read {
  const entered: Read = (context, side) => {
    const reading = context.slots[slotOf(index, sideOf(item, side))]
    return reading ? worthOf(reading, item, qualifier) : null
  }
  const derive = item.derive
  if (!derive || qualifier !== undefined) return entered
  const measure = measureOf(derive.measure)
  const inputs = Object.entries(derive.from).map(([name, path]) => [name, prepared.reader(path, item)] as const)
  return (context, side) => {
    const known = entered(context, side)
    if (known !== null) return known
    const slot = slotOf(index, sideOf(item, side))
    const held = context.derived.get(slot)
    if (held !== undefined) return held
    const worth = measure(Object.fromEntries(inputs.map(([name, read]) => [name, read(context, side)])), { asOf: context.asOf })
    const encoded = typeof worth === 'string' && item.ordered ? item.options.indexOf(worth) : worth
    context.derived.set(slot, encoded)
    return encoded
  }
}

/** Ordered words come as their rank, so that "reduced" is below "normal"; the rest as it was entered. */
function worthOf(reading: Reading, item: Item, qualifier: string | undefined): Worth {
  if (!reading.examined) return null
  const raw = qualifier === undefined ? reading.value : reading.qualifiers[qualifier]
  if (raw === undefined) return null
  if (typeof raw === 'boolean') return raw ? 1 : 0
  if (typeof raw === 'string' && qualifier === undefined && item.ordered) {
    const rank = item.options.indexOf(raw)
    return rank < 0 ? null : rank
  }
  return raw
}

const difference =
  (own: Read): Read =>
  (context, side) =>
    subtract(own(context, side), own(context, otherSide(side)))

function subtract(a: Worth, b: Worth): Worth {
  if (typeof a === 'number' && typeof b === 'number') return a - b
  if (a === null || b === null) return null
  const left = typeof a === 'number' ? { low: a, high: a } : a
  const right = typeof b === 'number' ? { low: b, high: b } : b
  return isInterval(left) && isInterval(right) ? { low: left.low - right.high, high: left.high - right.low } : null
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

const percentDeficit =
  (own: Read): Read =>
  (context, side) => {
    const here = own(context, side)
    const there = own(context, otherSide(side))
    return typeof here === 'number' && typeof there === 'number' && there > 0 ? (100 * (there - here)) / there : null
  }

/** Last reading minus the first: passive minus active, released minus blocked. */
function readingsGap(index: number, item: Item, prepared: Prepared): Read {
  const first = itemReader(index, item, item.readings[0], prepared)
  const last = itemReader(index, item, item.readings[item.readings.length - 1], prepared)
  return (context, side) => subtract(last(context, side), first(context, side))
}

function greatest(worths: readonly Worth[]): Worth {
  const numbers = worths.filter((worth): worth is number => typeof worth === 'number')
  return numbers.length === 0 ? null : Math.max(...numbers)
}
