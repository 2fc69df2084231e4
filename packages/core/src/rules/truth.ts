/** Kleene's strong three-valued logic (Kleene 1938), ordered so that "and" is the least and "or" the greatest. */
export type Truth = 'met' | 'not-met' | 'unknown'

/** The same truth as a number, for the inner loops: 0 not met, 1 unknown, 2 met. */
export type T = 0 | 1 | 2
export const NO = 0
export const UNKNOWN = 1
export const YES = 2

const WORDS = ['not-met', 'unknown', 'met'] as const
export const truthOf = (t: T): Truth => WORDS[t]
