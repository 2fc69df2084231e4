import type { TermValue } from './interval.js'

export interface MeasureContext {
  /** Milliseconds since 1970 that "since" is counted to. */
  readonly asOf: number
}

/** A measure works a value out of other findings; null when it cannot be known. For an item of words it gives the rank of the word: the words are the pack's. */
export type Measure = (inputs: Readonly<Record<string, TermValue>>, context: MeasureContext) => TermValue
