import { fold, type Folded } from '../record/fold.js'
import type { Judgement } from './judgement.js'

/** What stands of a record: the latest of each item and side, and of two devices that do not agree the more urgent. */
export function standingRecord({ examination: { entries }, disagreements }: Pick<Judgement, 'examination' | 'disagreements'>): Folded {
  if (disagreements.length === 0) return fold(entries)
  const passed = new Set(disagreements.map(({ other }) => other.id))
  return fold(entries.filter((entry) => !passed.has(entry.id)))
}
