import { judgedSides } from '../judge/judgedSides.js'
import type { RegionPack } from '../pack/pack.js'
import type { Examination, FindingEntry } from '../record/entry.js'
import { examinedNormal } from '../record/examinedNormal.js'

export const AT = '2026-01-15T09:00:00.000Z'
const EARLIER = '2026-01-15T08:59:00.000Z'
export const DAY = 86_400_000

/** Ids in order: the core has no randomness of its own. */
export function idsFrom(start: number): () => string {
  let made = start
  return () => `01920000-0000-7000-8000-${String(++made).padStart(12, '0')}`
}

/** What is told of the person or the episode, without a side. */
export const toldOf = (facts: Readonly<Record<string, FindingEntry['value']>>, newId: () => string, at = EARLIER): FindingEntry[] =>
  Object.entries(facts).map(([item, value]) => ({
    id: newId(),
    item,
    side: 'none',
    state: 'examined',
    by: 'report',
    at,
    ...(value === undefined ? {} : { value }),
  }))

/** Card and core of an ordinary patient of a region, examined and normal, begun three weeks ago. */
export function calmRecord(view: RegionPack): FindingEntry[] {
  const newId = idsFrom(0)
  const normal = examinedNormal(view, ['card', 'core'], { by: 'report', at: AT, newId })
  return [...normal, ...toldOf({ 'patient.bmi': 25, ...view.regions[0].ordinary, 'story.onset-at': '2025-12-24T09:00:00.000Z' }, newId)]
}

/** A record as an examination of the first side of a region. */
export function examinationOf(view: RegionPack, entries: readonly FindingEntry[]): Examination {
  const { id } = view.regions[0]
  const [side = 'right'] = judgedSides(view, { region: id, sides: ['right'] })
  return { complaint: { region: id, sides: [side] }, asOf: AT, entries }
}
