import { describe, expect, it } from 'vitest'
import { clinicalNote, judgement, planOf, referralLetter, REVIEW_ITEM, viewOf, type FindingEntry } from '../src/index.js'
import { AS_OF, calmRecord, daysAgo, entriesFor, thePack, type Findings } from './support.js'

const judgedOf = (region: string, findings: Findings, base: readonly FindingEntry[] = []) => {
  const told = entriesFor(findings, 'right', AS_OF, region)
  const kept = base.filter((entry) => !told.some(({ item, side }) => item === entry.item && side === entry.side))
  return judgement(thePack(), { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries: [...kept, ...told] })
}
const plan = (region: string, findings: Findings, base?: readonly FindingEntry[]) => planOf(judgedOf(region, findings, base))
const days = ({ from, to }: { readonly from: string; readonly to: string }): string[] => [from.slice(0, 10), to.slice(0, 10)]
const calm = (region: string): FindingEntry[] => calmRecord(viewOf(thePack(), region), 40)
const about = { patient: { name: 'Ottilie Penhale', birthDate: '1986-03-01' }, examiner: 'Dr Brannock', site: 'Saltgate House' }
const letterOf = (judged: ReturnType<typeof judgedOf>, heading: string): string =>
  referralLetter(judged, about).paragraphs.find((one) => one.heading === heading)?.text ?? ''

describe('what is examined again', () => {
  it('of a knee two days old that guards: between day 5 and 7 of the injury', () => {
    const { again, review } = plan('knee', { 'story.onset-at': daysAgo(2), 'knee.test.mcmurray': { state: 'could-not', reason: 'guarding' } })
    expect(again.map(({ what }) => what)).toEqual(['McMurray test, right'])
    expect(again.map(days)).toEqual([['2026-03-13', '2026-03-15']])
    expect(review).toMatchObject({ isSet: false, because: 'McMurray test, right' })
  })
  it('of an ankle drawer that was firm too early: on day 4 to 7, by its own conclusion', () => {
    const { again } = plan('ankle', { 'story.onset-at': daysAgo(1), 'ankle.test.anterior-drawer': 4, 'ankle.test.anterior-drawer left': 4 })
    expect(again.map(days)).toEqual([['2026-03-13', '2026-03-16']])
  })
  it('is never yesterday: a date that has passed is tomorrow', () => {
    const { again } = plan('knee', { 'story.onset-at': daysAgo(6.9), 'knee.test.mcmurray': { state: 'not-valid', reason: 'guarding' } })
    expect(again.map(days)).toEqual([['2026-03-11', '2026-03-11']])
  })
  it('of somebody intoxicated: the whole, tomorrow, whatever the date of the injury', () => {
    for (const region of ['shoulder', 'ankle']) {
      const { again } = plan(region, { 'story.onset-at': daysAgo(3), 'patient.intoxicated': 'present' })
      expect(again).toMatchObject([{ what: 'the whole examination, when sober' }])
      expect(again.map(days)).toEqual([['2026-03-11', '2026-03-11']])
    }
  })
  it('is no date for a complaint of weeks, for the other side, or where the onset was not told', () => {
    const guarded: Findings = { 'knee.test.mcmurray': { state: 'could-not', reason: 'guarding' } }
    expect(plan('knee', { 'story.onset-at': daysAgo(30), ...guarded }).again).toEqual([])
    expect(plan('knee', guarded).again).toEqual([])
    expect(plan('knee', { 'story.onset-at': daysAgo(2), 'knee.test.mcmurray left': { state: 'could-not', reason: 'guarding' } }).again).toEqual([])
  })
})

describe('the review', () => {
  const set: Findings = { [REVIEW_ITEM]: { value: '2026-03-20T12:00:00.000Z', qualifiers: { precision: 'day' } } }
  it('is the day that a clinician set, in note and letter, and no finding of the examination', () => {
    const judged = judgedOf('knee', { ...set, 'story.onset-at': daysAgo(2), 'knee.test.mcmurray': { state: 'could-not', reason: 'guarding' } })
    expect(planOf(judged).review).toMatchObject({ on: '2026-03-20T12:00:00.000Z', isSet: true })
    expect(clinicalNote(judged).find(({ heading }) => heading === 'Plan')?.lines[0]).toBe('Review on 20 Mar 2026 (set by test)')
    expect(letterOf(judged, 'Plan')).toContain('Review on 20 Mar 2026')
    expect(letterOf(judged, 'Examination')).not.toContain('Review')
    expect(judged.verdict.flags).toEqual(
      judgedOf('knee', { 'story.onset-at': daysAgo(2), 'knee.test.mcmurray': { state: 'could-not', reason: 'guarding' } }).verdict.flags,
    )
  })
  it('is not invented where nothing asks for one', () => expect(plan('knee', { 'story.onset-at': daysAgo(2) }).review).toBeUndefined())
})

describe('interim care', () => {
  const sprain: Findings = {
    'story.trauma': 'present',
    'story.energy': 'low',
    'story.onset-at': daysAgo(2),
    'ankle.history.mechanism': 'inversion',
    'ankle.feel.atfl': '2',
  }
  it('of a sprain tells support, stages of return and the source, and proposes the review', () => {
    const { care } = plan('ankle', sprain, calm('ankle'))
    expect(care.map(({ id }) => id)).toEqual(['ankle.plan.sprain'])
    expect(care[0]).toMatchObject({ source: 'Vuurberg 2018', support: expect.stringContaining('brace') as string })
    expect(care[0]?.returns).toHaveLength(4)
    expect(letterOf(judgedOf('ankle', sprain, calm('ankle')), 'Plan')).toContain('Return to activity: walking without a limp, then')
  })
  it('is none where the patient is sent on the same day', () => {
    const deformed = { ...sprain, 'vascular.pulse-dorsalis-pedis': 'absent' } as Findings
    expect(['now', 'today']).toContain(judgedOf('ankle', deformed, calm('ankle')).verdict.floor)
    expect(plan('ankle', deformed, calm('ankle')).care).toEqual([])
  })
  it('names no support that nobody gave', () => {
    for (const { effect } of thePack().modifiers)
      if ('plans' in effect) expect(`${effect.plans} ${(effect.returns ?? []).join(' ')}`).not.toMatch(/keep the (splint|sling|brace)/i)
  })
})

describe('what the patient is told', () => {
  it('of a nerve that was stretched: that it may flare, and what to come back for', () => {
    const { told } = plan('back', { 'story.irritability': 'low', 'back.test.slump': 60 })
    expect(told).toHaveLength(1)
    expect(told[0]).toMatch(/day or two.*pass water/s)
    expect(clinicalNote(judgedOf('neck', { 'neck.test.ulnt1': 90 })).some(({ heading }) => heading === 'Told to the patient')).toBe(true)
  })
  it('is nothing where no nerve was stretched', () => expect(plan('back', { 'story.irritability': 'high' }).told).toEqual([]))
})
