export interface Interval {
  readonly low: number
  readonly high: number
}

/** What a term is worth: a number, a range, words, or null when it is not known. */
export type TermValue = number | Interval | string | readonly string[] | null

export const isInterval = (worth: unknown): worth is Interval => typeof worth === 'object' && worth !== null && 'low' in worth
