/** Kleene's strong three-valued logic (Kleene 1938), ordered so that "and" is the least and "or" the greatest. */
export type Truth = 'met' | 'not-met' | 'unknown'

/** The same truth as a number, for the inner loops: 0 not met, 1 unknown, 2 met. */
export type T = 0 | 1 | 2
export const NO = 0
export const UNKNOWN = 1
export const YES = 2

const WORDS = ['not-met', 'unknown', 'met'] as const
export const truthOf = (t: T): Truth => WORDS[t]

/**
 * Three-valued "and": not met wins, then unknown.
 * @example all(['met', 'unknown']) // 'unknown'
 */
export const all = (truths: readonly Truth[]): Truth => (truths.includes('not-met') ? 'not-met' : truths.includes('unknown') ? 'unknown' : 'met')

/**
 * Three-valued "or": met wins, then unknown.
 * @example any(['not-met', 'unknown']) // 'unknown'
 */
export const any = (truths: readonly Truth[]): Truth => (truths.includes('met') ? 'met' : truths.includes('unknown') ? 'unknown' : 'not-met')

/** Three-valued "not": unknown stays unknown. */
export const not = (truth: Truth): Truth => (truth === 'met' ? 'not-met' : truth === 'not-met' ? 'met' : 'unknown')

/**
 * Met when enough are met, not met when even the unknown ones could not make it enough.
 * @example atLeast(2, ['met', 'unknown', 'not-met']) // 'unknown'
 */
export function atLeast(n: number, truths: readonly Truth[]): Truth {
  const met = truths.filter((t) => t === 'met').length
  const open = truths.filter((t) => t === 'unknown').length
  return met >= n ? 'met' : met + open < n ? 'not-met' : 'unknown'
}

/**
 * Exactly n are met and none is unknown.
 * @example exactly(1, ['met', 'unknown']) // 'unknown'
 */
export const exactly = (n: number, truths: readonly Truth[]): Truth => all([atLeast(n, truths), not(atLeast(n + 1, truths))])
