import type { Comparator } from './rule.js'
import { isInterval, type Interval, type TermValue } from '../model/interval.js'
import { NO, UNKNOWN, YES, type T } from './truth.js'
/** The right-hand side of a comparison. */
export type Target =
  | { readonly kind: 'bare' }
  | { readonly kind: 'numbers'; readonly numbers: readonly number[]; readonly words?: readonly string[] }
  | { readonly kind: 'words'; readonly words: readonly string[]; readonly empty?: string }

/**
 * Compares what was found with what a leaf asks. A range is met when all of it fits and not met when none does.
 * @example compareWorth({ low: 10, high: 20 }, '<=', { kind: 'numbers', numbers: [14] }) // unknown
 */
export function compareValue(worth: Exclude<TermValue, null>, cmp: Comparator, target: Target): T {
  if (typeof worth === 'number') return target.kind === 'numbers' ? yes(compareNumber(worth, cmp, target.numbers)) : yes(target.kind === 'bare' && worth > 0)
  if (typeof worth === 'string') return compareWord(worth, cmp, target)
  if (isInterval(worth)) return target.kind === 'numbers' ? compareInterval(worth, cmp, target.numbers) : UNKNOWN
  return compareWords(worth, cmp, target)
}

const yes = (holds: boolean): T => (holds ? YES : NO)

function compareNumber(value: number, cmp: Comparator, numbers: readonly number[]): boolean {
  const first = numbers[0] ?? Number.NaN
  switch (cmp) {
    case '=':
      return value === first
    case '!=':
      return value !== first
    case '<':
      return value < first
    case '<=':
      return value <= first
    case '>':
      return value > first
    case '>=':
      return value >= first
    case 'in':
    case 'has':
    case 'has-any':
      return numbers.includes(value)
    default:
      return false
  }
}

function compareInterval({ low, high }: Interval, cmp: Comparator, numbers: readonly number[]): T {
  if (cmp === '=' || cmp === '!=' || cmp === 'in') {
    const inside = numbers.some((n) => n >= low && n <= high)
    return inside ? UNKNOWN : yes(cmp === '!=')
  }
  const atLow = compareNumber(low, cmp, numbers)
  const atHigh = compareNumber(high, cmp, numbers)
  return atLow === atHigh ? yes(atLow) : UNKNOWN
}

function compareWord(value: string, cmp: Comparator, target: Target): T {
  if (target.kind === 'bare') return yes(value === 'present' || value === 'true')
  const words = target.kind === 'words' ? target.words : (target.words ?? [])
  if (cmp === '!=') return yes(!words.includes(value))
  return yes(words.includes(value))
}

/** A multi-choice: `!= none` means at least one value other than the empty one. */
function compareWords(values: readonly string[], cmp: Comparator, target: Target): T {
  if (target.kind !== 'words') return NO
  const { words, empty } = target
  switch (cmp) {
    case 'has':
    case 'has-any':
    case 'in':
      return yes(words.some((word) => values.includes(word)))
    case 'has-all':
      return yes(words.every((word) => values.includes(word)))
    case '=':
      return yes(values.length === words.length && words.every((word) => values.includes(word)))
    case '!=':
      return yes(words[0] === empty ? values.some((value) => value !== empty) : !words.every((word) => values.includes(word)))
    default:
      return NO
  }
}
