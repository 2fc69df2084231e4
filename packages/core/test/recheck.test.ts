import { describe, expect, it } from 'vitest'
import { tellingLines, findingsOf, judge, judgeAlong, judgement, type FindingEntry, type Examination } from '../src/index.js'
import { earlierOf } from '../src/record/recheck.js'
import { AS_OF, calm, daysAgo, entriesFor, newId, thePack, type Findings } from './support.js'

const pack = thePack()
const minutes = (count: number): string => new Date(Date.parse(AS_OF) + count * 60_000).toISOString()
const at = (count: number, findings: Findings): FindingEntry[] => entriesFor(findings, 'right', minutes(count))
const knee = (entries: readonly FindingEntry[], previous?: readonly FindingEntry[]): Examination => ({
  complaint: { region: 'knee', sides: ['right'] },
  asOf: AS_OF,
  entries,
  ...(previous ? { previous } : {}),
})
const met = (entries: readonly FindingEntry[], previous?: readonly FindingEntry[]): string[] =>
  judge(pack, knee(entries, previous)).flags.map((flag) => flag.id)
const PULSE = 'vascular.pulse-dorsalis-pedis right'

describe('what a finding is compared with', () => {
  const [normal] = at(0, { [PULSE]: 'normal' })
  const [reduced] = at(30, { [PULSE]: 'reduced' })
  if (!normal || !reduced) throw new Error('no entries')
  const takenBack = (count: number): FindingEntry => ({ ...normal, id: newId(), state: 'not-examined', at: minutes(count) })

  it('is the check before it', () => expect(earlierOf(reduced, [normal])).toBe(normal))
  it('is the latest of several', () => {
    const [between] = at(10, { [PULSE]: 'reduced' })
    expect(earlierOf(reduced, [normal, ...(between ? [between] : [])])).toBe(between)
  })
  it('is nothing when the first was written less than five minutes before: that is a correction', () => {
    expect(earlierOf({ ...reduced, at: minutes(4) }, [normal])).toBeUndefined()
    expect(earlierOf({ ...reduced, at: minutes(5) }, [normal])).toBe(normal)
  })
  it('is nothing that was taken back', () => expect(earlierOf(reduced, [normal, takenBack(2)])).toBeUndefined())
  it('is nothing that could not be done, and nothing later', () => {
    expect(earlierOf(reduced, [{ ...normal, state: 'could-not', reason: 'pain' }])).toBeUndefined()
    expect(earlierOf(reduced, [{ ...normal, at: minutes(40) }])).toBeUndefined()
  })
  it('is nothing while nothing stands', () => expect(earlierOf(takenBack(30), [normal])).toBeUndefined())
})

describe('flow worse at a recheck', () => {
  it.each<[string, Findings, Findings]>([
    ['a pulse that is less', { [PULSE]: 'normal' }, { [PULSE]: 'reduced' }],
    ['a pulse that was less and is gone', { [PULSE]: 'reduced' }, { [PULSE]: 'absent' }],
    ['a refill that is two seconds slower', { 'vascular.refill-foot right': 1.5 }, { 'vascular.refill-foot right': 3.5 }],
    ['feeling that is lost', { 'screen.feels-digits-foot right': 'same' }, { 'screen.feels-digits-foot right': 'none' }],
  ])('is met by %s', (_, before, after) => {
    expect(met([...calm(), ...at(0, before)])).not.toContain('any.flag.pulse-change')
    expect(met([...calm(), ...at(0, before), ...at(20, after)])).toContain('any.flag.pulse-change')
  })
  it.each<[string, Findings, Findings]>([
    ['a bounding pulse that is normal again', { [PULSE]: 'bounding' }, { [PULSE]: 'normal' }],
    ['a pulse that is back', { [PULSE]: 'absent' }, { [PULSE]: 'normal' }],
    ['the same again', { [PULSE]: 'reduced' }, { [PULSE]: 'reduced' }],
    ['a refill one second slower', { 'vascular.refill-foot right': 1.5 }, { 'vascular.refill-foot right': 2.5 }],
  ])('is not met by %s', (_, before, after) => {
    expect(met([...calm(), ...at(0, before), ...at(20, after)])).not.toContain('any.flag.pulse-change')
  })
  it('is not met by a correction within five minutes', () => {
    const fresh = calm().filter((entry) => !entry.item.startsWith('vascular.pulse'))
    expect(met([...fresh, ...at(0, { [PULSE]: 'normal' }), ...at(3, { [PULSE]: 'reduced' })])).not.toContain('any.flag.pulse-change')
  })
  it('looks back two days into an earlier examination, and no further', () => {
    const now = [...calm().filter((entry) => !entry.item.startsWith('vascular.pulse')), ...at(0, { [PULSE]: 'reduced' })]
    expect(met(now, at(-47 * 60, { [PULSE]: 'normal' }))).toContain('any.flag.pulse-change')
    expect(met(now, at(-49 * 60, { [PULSE]: 'normal' }))).not.toContain('any.flag.pulse-change')
  })
  it('holds nothing open while there was one check only', () => {
    const { openFlags, ceiling } = judge(pack, knee(calm()))
    expect([ceiling, openFlags.map((flag) => flag.id)]).toEqual(['here', []])
  })
  it('shows in its proof what was found before, and when', () => {
    const judged = judgement(pack, knee([...calm(), ...at(0, { [PULSE]: 'normal' }), ...at(90, { [PULSE]: 'absent' })]))
    const proof = judged.verdict.flags.find((flag) => flag.id === 'any.flag.pulse-change')?.proof
    const finding = proof && findingsOf(proof).find((one) => one.item === 'vascular.pulse-dorsalis-pedis' && one.before)
    expect(finding).toMatchObject({ value: 'absent', before: { value: 'normal', hours: 1.5 } })
    const flag = judged.verdict.flags.find(({ id }) => id === 'any.flag.pulse-change')
    expect(flag && tellingLines(judged.pack, flag)).toContain('Dorsalis pedis pulse (DP): absent on the right (normal 1.5 h before)')
  })
  it('is judged along as it is judged anew, in whatever order the checks arrive', () => {
    const checks = [
      ...at(0, { [PULSE]: 'normal' }),
      ...at(3, { [PULSE]: 'reduced' }),
      ...at(6, { [PULSE]: 'reduced' }),
      ...at(20, { [PULSE]: 'absent' }),
      ...at(40, { [PULSE]: 'normal' }),
    ]
    for (const order of [checks, [...checks].reverse(), [2, 0, 4, 1, 3].map((index) => checks[index])] as FindingEntry[][]) {
      const { complaint, asOf } = knee([])
      const along = judgeAlong(pack, { complaint, asOf })
      const record = [...calm()]
      for (const check of order) {
        record.push(check)
        expect(along([...record]).verdict).toEqual(judge(pack, knee(record)))
      }
    }
  })
})

describe('a gap of the knees that widens between two visits', () => {
  const child: Findings = { 'patient.age-years': 5, 'knee.look.alignment right': 'valgus', 'knee.look.alignment left': 'valgus' }
  const gap = (mm: number): Findings => ({ 'knee.look.intercondylar-distance': mm })
  const isRaised = (now: number, then: number | undefined): boolean =>
    met([...at(0, { ...child, ...gap(now) })], then === undefined ? undefined : at(-180 * 24 * 60, gap(then))).includes('knee.flag.deformity')

  it('sends the child', () => expect(isRaised(60, 40)).toBe(true))
  it('does not when it stays or closes', () => expect([isRaised(40, 40), isRaised(30, 40)]).toEqual([false, false]))
  it('is not known without an earlier visit', () => expect(isRaised(60, undefined)).toBe(false))
})

describe('power that falls', () => {
  const TOE = 'neuro.strength.great-toe-extension right'
  const falls = (then: string, now: string, days = 3): boolean => {
    const exam = {
      complaint: { region: 'back', sides: ['none'] as const },
      asOf: AS_OF,
      entries: entriesFor({ [TOE]: now, 'story.onset-at': daysAgo(100) }, 'right', AS_OF, 'back'),
      previous: entriesFor({ [TOE]: then }, 'right', minutes(-days * 24 * 60), 'back'),
    }
    return judge(pack, exam).flags.some((flag) => flag.id === 'neuro.flag.motor-loss')
  }
  it.each([
    ['5', '4', true],
    ['4', '3', true],
    ['4-', '3', true],
    ['3', '2', true],
    ['4+', '4', false],
    ['5', '4+', false],
    ['4', '4', false],
    ['3', '4', false],
  ])('from %s to %s within a week: %s', (then, now, expected) => expect(falls(then, now)).toBe(expected))
  it('is not looked for beyond a week', () => expect(falls('5', '4', 8)).toBe(false))
})
