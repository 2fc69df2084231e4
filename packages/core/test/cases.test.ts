import { load } from 'js-yaml'
import { describe, expect, it } from 'vitest'
import { judge, viewOf, type FindingEntry, type Tier } from '../src/index.js'
import { tierRank } from '../src/model/tier.js'
import { AS_OF, calmRecord, caseFiles, daysAgo, entriesFor, thePack, type Findings } from './support.js'

interface Case {
  readonly id: string
  readonly tells: string
  readonly age: number
  readonly findings: Findings
  /** Core items that nobody examined. */
  readonly unexamined?: readonly string[]
  readonly floor?: Tier
  readonly ceiling?: Tier
  /** The range must still be open. */
  readonly unsettled?: boolean
  readonly fires?: readonly string[]
  readonly silent?: readonly string[]
  readonly because?: string
}

const days = (value: Findings[string]): Findings[string] => {
  const ago = typeof value === 'object' && 'daysAgo' in value ? (value as { daysAgo: number }).daysAgo : undefined
  return ago === undefined ? value : daysAgo(ago)
}

/** What a case tells, over a calm record; sparse: over nothing at all. */
function recordOf(region: string, one: Case, sparse: boolean): FindingEntry[] {
  const view = viewOf(thePack(), region)
  const base = sparse
    ? []
    : calmRecord(view, { ...view.regions[0].ordinary, 'patient.age-years': one.age }).filter(({ item }) => !one.unexamined?.includes(item))
  const told = Object.fromEntries(Object.entries({ 'patient.age-years': one.age, ...one.findings }).map(([item, value]) => [item, days(value)]))
  const entries = entriesFor(told, 'right', AS_OF, region)
  const kinds = new Map(thePack().items.map((item) => [item.id, item.kind]))
  return [
    ...base,
    ...entries.map((entry) => (kinds.get(entry.item) === 'grade' && typeof entry.value === 'number' ? { ...entry, value: String(entry.value) } : entry)),
  ]
}

for (const text of caseFiles()) {
  const { region, sparse = false, cases } = load(text) as { region: string; sparse?: boolean; cases: Case[] }
  describe(`${sparse ? 'sparse cases' : 'cases'} of the ${region}`, () => {
    it.each(cases.map((one) => [one.id, one.because ?? one.tells, one] as const))('%s: %s', (_id, _because, one) => {
      const verdict = judge(viewOf(thePack(), region), { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries: recordOf(region, one, sparse) })
      const fired = verdict.flags.filter((flag) => flag.side !== 'left').map((flag) => flag.id)
      for (const id of one.fires ?? []) expect(fired).toContain(id)
      for (const id of one.silent ?? []) expect(fired).not.toContain(id)
      if (one.floor) expect([verdict.floor, fired]).toEqual([one.floor, fired])
      if (one.ceiling) expect([verdict.ceiling, fired]).toEqual([one.ceiling, fired])
      if (one.unsettled) expect(tierRank(verdict.ceiling)).toBeLessThan(tierRank(verdict.floor))
    })
  })
}
