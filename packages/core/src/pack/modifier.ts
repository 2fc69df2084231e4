import type { Tier } from '../model/tier.js'
import type { RuleNode } from '../rules/rule.js'

/** Another explanation of what a conclusion stands on, and the finding that separates the two best. */
export interface Rival {
  readonly is: string
  /** The item that separates them. */
  readonly by: string
  /** What it shows where the rival is true. */
  readonly shows: string
}

/** Days after the injury, or after this visit when its time was not told, between which something is done again. */
export interface DaySpan {
  readonly from: number
  readonly to: number
  /** What is done again; the finding that the conclusion stands on when left out. */
  readonly what?: string
}

/** What is done meanwhile, and how it goes on. */
export interface CarePlan {
  readonly plans: string
  readonly support?: string
  /** Back to activity, a stage after the other. */
  readonly returns?: readonly string[]
  readonly review?: DaySpan
}

/** What moves the tier of other flags: by their class, or two findings together by the concept of one of them. */
export interface Modifier {
  readonly id: string
  readonly region: string
  readonly title: string
  readonly classes: readonly string[]
  readonly concepts: readonly string[]
  readonly when: RuleNode
  /**
   * A step or a least tier for the flags it names; or words about what else it changes: where the patient goes, who must know; or what in the
   * record contradicts what; what several findings together mean; what is planned; or what the patient is told, in plain words.
   */
  readonly effect: Effect
  readonly source: string
}

export type Effect =
  | { readonly step: true; readonly onlyFrom?: readonly Tier[] }
  | { readonly atLeast: Tier }
  | { readonly says: string }
  | { readonly contradicts: string }
  | { readonly concludes: string; readonly rivals?: readonly Rival[]; readonly again?: DaySpan }
  | CarePlan
  | { readonly tells: string }
