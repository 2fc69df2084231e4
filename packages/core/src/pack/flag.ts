import type { Tier } from '../model/tier.js'
import type { RuleNode } from '../rules/rule.js'

/** Who read something against the literature, when (YYYY-MM-DD), and what of it. */
export interface Reviewed {
  readonly by: string
  readonly on: string
  readonly of: string
}

export interface Clause {
  readonly tier: Tier
  readonly when: RuleNode
  readonly note?: string
  /** Where this clause sends, when not where the flag does. */
  readonly to?: readonly string[]
  /** Why the clause waits for an exclusion or a date (`lintDanger`). */
  readonly because?: string
}

export interface RepairClock {
  /** The fact that the clock runs from: a moment item. */
  readonly from: string
  readonly windowDays: number
  readonly leadDays: number
}

export interface Flag {
  readonly id: string
  readonly region: string
  readonly concept: string
  readonly title: string
  readonly classes: readonly string[]
  readonly to: readonly string[]
  readonly inPlay: RuleNode
  readonly clauses: readonly Clause[]
  readonly asks: readonly { readonly group?: string; readonly item?: string; readonly conditional: boolean }[]
  readonly why: string
  readonly doNow: readonly string[]
  readonly avoid: readonly string[]
  readonly excludedBy: string
  readonly clock?: RepairClock
  /** Why this joint says more of it, or otherwise, than all joints do. */
  readonly because?: string
  readonly reviewed?: Reviewed
  readonly source: string
  /** Other names, to be found by. */
  readonly also: readonly string[]
  /** What the patient calls it. */
  readonly lay?: string | undefined
}
