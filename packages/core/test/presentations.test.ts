import { describe, expect, it } from 'vitest'
import { conditionRanges, judgement, likelyOf } from '../src/index.js'
import { AS_OF, entriesFor, theKnee, thePack, type Findings } from './support.js'

const judged = (findings: Findings, region = 'knee') =>
  judgement(thePack(), { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) })
const soft: Findings = { 'test.lachman': { value: 8, qualifiers: { 'end-point': 'soft' } }, 'test.lachman left': 1 }
const haemarthrosis: Findings = { 'story.trauma': 'present', 'story.swelling-hours': 'within 2 h' }
const acl = (findings: Findings) => conditionRanges(judged(findings)).find(({ id }) => id === 'knee.cond.acl-rupture')

describe('what a condition starts from', () => {
  it('is the presentation where it is proven: a haemarthrosis of an adult is an ACL rupture before it is examined', () => {
    const [plain, told] = [acl(soft), acl({ ...soft, ...haemarthrosis, 'patient.age-years': 24 })]
    expect(plain?.presentation).toBeUndefined()
    expect(told?.presentation).toMatchObject({ source: 'Noyes 1980; DeHaven 1980' })
    expect(told?.estimate.prior).toEqual([0.45, 0.75])
    expect(told?.low).toBeGreaterThan(0.7)
    expect(plain?.high).toBeLessThan(0.5)
  })
  it('is lower in a child, and the setting alone once a fracture was seen or nobody said how old', () => {
    expect(acl({ ...soft, ...haemarthrosis, 'patient.age-years': 12 })?.estimate.prior).toEqual([0.15, 0.3])
    expect(acl({ ...soft, ...haemarthrosis, 'patient.age-years': 24, 'imaging.film': ['fracture'] })?.presentation).toBeUndefined()
    expect(acl({ ...soft, ...haemarthrosis })?.presentation).toBeUndefined()
  })
  it('is a share with a source in every presentation', () => {
    const all = thePack().conditions.flatMap(({ presentations }) => presentations)
    expect(all.length).toBeGreaterThan(5)
    expect(all.filter(({ prior: [low, high], source }) => low >= high || source === '')).toEqual([])
  })
})

describe('the differential diagnosis that is shown', () => {
  it('says first what meets its own criteria, whatever its figure', () => {
    const [first] = likelyOf(judged(soft))
    expect(first).toMatchObject({ id: 'knee.cond.acl-rupture', met: 'weeks' })
    expect(theKnee().conditions.find(({ id }) => id === first?.id)?.flag).toBe('knee.flag.acl')
  })
  it('leaves out what could not be one in twenty', () => {
    for (const findings of [soft, { 'test.thessaly': 'present' }, { 'feel.medial-joint-line': '2' }, { 'story.fever': 'present' }])
      for (const { high, met } of likelyOf(judged(findings))) expect(met !== undefined || high >= 0.05).toBe(true)
    const calm = judged({ 'shoulder.test.painful-arc': '60° to 120°' }, 'shoulder')
    expect(likelyOf(calm).length).toBeLessThanOrEqual(conditionRanges(calm).length)
  })
})
