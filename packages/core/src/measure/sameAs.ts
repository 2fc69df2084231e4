import type { TermValue } from '../model/interval.js'

/** A finding that another item already answers: the heel lifted in the screen is the straight-leg raise until it is done by itself. */
export const sameAsMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue => inputs.source ?? null
