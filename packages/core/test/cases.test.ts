import { describe, expect, it } from 'vitest'
import { judge, viewOf } from '../src/index.js'
import { tierRank } from '../src/model/tier.js'
import { CASE_TIME, caseRecord, casesReport, readCases } from '../src/review/index.js'
import { caseFiles, thePack } from './support.js'

for (const text of caseFiles()) {
  const { region, sparse = false, cases } = readCases(text)
  describe(`${sparse ? 'sparse cases' : 'cases'} of the ${region}`, () => {
    it.each(cases.map((one) => [one.id, one.because ?? one.tells, one] as const))('%s: %s', (_id, _because, one) => {
      const view = viewOf(thePack(), region)
      const verdict = judge(view, { complaint: { region, sides: ['right'] }, asOf: CASE_TIME, entries: caseRecord(view, one, sparse) })
      const fired = verdict.flags.filter((flag) => flag.side !== 'left').map((flag) => flag.id)
      for (const id of one.fires ?? []) expect(fired).toContain(id)
      for (const id of one.silent ?? []) expect(fired).not.toContain(id)
      if (one.floor) expect([verdict.floor, fired]).toEqual([one.floor, fired])
      if (one.ceiling) expect([verdict.ceiling, fired]).toEqual([one.ceiling, fired])
      if (one.unsettled) expect(tierRank(verdict.ceiling)).toBeLessThan(tierRank(verdict.floor))
    })
  })
}

describe('the cases together', () => {
  it('are judged none too slow and none too fast, and most of them tell little', () => {
    const { all, sparse, children, calm, contradictory, slow, fast } = casesReport(thePack(), caseFiles())
    expect([slow, fast]).toEqual([[], []])
    expect(sparse).toBeGreaterThan(all / 2)
    expect([children >= 60, calm >= 150, contradictory >= 40]).toEqual([true, true, true])
  })
  it('say which is too slow and which too fast', () => {
    const told = 'region: knee\nsparse: true\ncases:\n  - { id: a, tells: slow, age: 40, findings: {}, floor: now }\n'
    const more = '  - { id: b, tells: fast, age: 40, findings: { imaging.film: [dislocation] }, floor: here }\n'
    const { slow, fast } = casesReport(thePack(), [told + more])
    expect([slow, fast]).toEqual([['knee: slow'], ['knee: fast']])
  })
})
