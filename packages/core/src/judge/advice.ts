import type { Judgement } from './judgement.js'
import { isMet } from './metBy.js'

/** What a fact of the patient or the visit calls for besides its tier: where the patient goes, who must know, what to think of again. */
export interface Advice {
  readonly id: string
  /** The fact that calls for it. */
  readonly title: string
  readonly says: string
}

/**
 * What this record calls for besides its priority; only what is known to be so.
 * @example adviceOf(judgement(pack, livesAlone)).map((one) => one.id) // ['mod.unsafe-home']
 */
export const adviceOf = (judged: Judgement): readonly Advice[] =>
  judged.compiled.sayings.advice.filter(({ rule }) => isMet(rule, judged)).map(({ id, title, says }) => ({ id, title, says }))
