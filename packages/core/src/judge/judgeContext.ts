import type { Context } from '../rules/runtime.js'
import type { PastFlag } from './verdict.js'

/** A judgement in progress, with all that is known of the flags that are retained from before. */
export interface JudgeContext extends Context {
  readonly retained: ReadonlyMap<number, PastFlag>
}
