import { describe, expect, it } from 'vitest'
import {
  checkEntries,
  clinicalNote,
  judgeAlong,
  judgement,
  noteText,
  priorityOf,
  rangeToAccept,
  publicVerdict,
  referralLetter,
  shownVerdict,
  type Entry,
  type EntryOf,
  type Tier,
} from '../src/index.js'
import { AS_OF, calm, entriesFor, exam, newId, thePack, type Findings } from './support.js'

const pack = thePack()
const minutes = (count: number): string => new Date(Date.parse(AS_OF) + count * 60_000).toISOString()
const set = (tier: Tier, from: Tier, more: Partial<EntryOf<'chosen'>> = {}, count = 30): EntryOf<'chosen'> => ({
  id: newId(),
  state: 'chosen',
  tier,
  from,
  by: 'Dr Test',
  at: minutes(count),
  ...more,
})
const withdraw = (decision: EntryOf<'withdrawn'>['decision'], count: number): EntryOf<'withdrawn'> => ({
  id: newId(),
  state: 'withdrawn',
  decision,
  by: 'Dr Test',
  at: minutes(count),
})
const agreed = { reason: 'fluid was clear', senior: 'Dr Quill, consultant', seniorAt: minutes(28) }
const hot: Findings = { 'knee.feel.warmth right': 'hot', 'knee.feel.effusion right': 'moderate', 'vitals.temperature': 37 }
const gone: Findings = { 'story.trauma': 'present', 'vascular.pulse-dorsalis-pedis right': 'absent', 'vascular.colour-foot right': 'pale' }
const today = [...calm(), ...entriesFor(hot)]
const counts = (entries: readonly Entry[]) => priorityOf(judgement(pack, exam(entries)))

describe('the priority that counts', () => {
  it('is what the findings give, while nobody sets another', () => expect(counts(today)).toEqual({ tier: 'today', computed: 'today' }))
  it.each<[string, readonly Entry[], Tier, Tier, boolean | undefined]>([
    ['lowered from Today', [...today, set('days', 'today', agreed)], 'days', 'today', false],
    ['raised from Here', [...calm(), set('days', 'here')], 'days', 'here', false],
    ['raised, and then found more urgent still', [...calm(), set('days', 'here'), ...entriesFor(hot, 'right', minutes(40))], 'today', 'today', true],
    ['lowered, and then found more urgent', [...today, set('days', 'today', agreed), ...entriesFor(gone, 'right', minutes(40))], 'now', 'now', true],
    [
      'lowered, and then found less urgent',
      [...today, set('days', 'today', agreed), ...entriesFor({ 'knee.feel.warmth right': 'none', 'knee.feel.effusion right': 'none' }, 'right', minutes(33))],
      'days',
      'here',
      false,
    ],
    ['set twice: the later', [...today, set('weeks', 'today', agreed, 20), set('days', 'today', agreed, 25)], 'days', 'today', false],
    ['set and taken back', [...today, set('days', 'today', agreed, 20), withdraw('chosen', 25)], 'today', 'today', undefined],
  ])('%s', (_what, entries, tier, computed, hasLapsed) => {
    const priority = counts(entries)
    expect([priority.tier, priority.computed, priority.set?.hasLapsed]).toEqual([tier, computed, hasLapsed])
    expect(counts([...entries].reverse())).toEqual(priority)
  })
  it('moves no range, no flag and no rule', () => {
    const plain = judgement(pack, exam(today)).verdict
    expect(judgement(pack, exam([...today, set('days', 'today', agreed)])).verdict).toEqual(plain)
  })
  it('is followed along a growing record', () => {
    const { entries: _none, ...about } = exam([])
    const along = judgeAlong(pack, about)
    const record: Entry[] = [...today]
    for (const entry of [set('days', 'today', agreed), ...entriesFor(gone, 'right', minutes(40)), set('now', 'now', {}, 45)]) {
      record.push(entry)
      expect(priorityOf(along([...record]))).toEqual(counts(record))
    }
  })
})

describe('setting it', () => {
  it.each<[string, Entry, readonly string[]]>([
    ['raising, with no reason', set('now', 'weeks'), []],
    ['lowering from Weeks, with a reason', set('routine', 'weeks', { reason: 'patient cannot come sooner' }), []],
    ['lowering from Today with a senior', set('days', 'today', agreed), []],
    ['taking it back', withdraw('chosen', 30), []],
    ['lowering with no reason', set('routine', 'weeks'), ['/entries/0/reason']],
    ['lowering from Today alone', set('days', 'today', { reason: 'looks well to me' }), ['/entries/0/senior', '/entries/0/seniorAt']],
    ['a senior who is oneself', set('days', 'now', { reason: 'seen', senior: 'dr  test', seniorAt: minutes(28) }), ['/entries/0/senior']],
    ['a senior who agreed at no time', set('days', 'now', { reason: 'seen', senior: 'Dr Quill', seniorAt: 'just now' }), ['/entries/0/seniorAt']],
  ])('%s', (_what, entry, paths) => expect(checkEntries(pack, [entry]).map(({ path }) => path)).toEqual(paths))
})

describe('a range that could still be Now or Today', () => {
  const accept = (ceiling: Tier, count = 20, more: Partial<EntryOf<'accepted'>> = {}): EntryOf<'accepted'> => ({
    id: newId(),
    state: 'accepted',
    ceiling,
    reason: 'would not lie down',
    plan: 'again at noon',
    by: 'Dr Test',
    at: minutes(count),
    ...more,
  })
  const toAccept = (entries: readonly Entry[]): string | undefined => rangeToAccept(judgement(pack, exam(entries)))
  it.each<[string, readonly Entry[], string | undefined]>([
    ['nothing examined', [], 'now'],
    ['nothing examined, and accepted', [accept('now')], undefined],
    ['accepted for less', [accept('today')], 'now'],
    ['accepted, and taken back', [accept('now'), withdraw('accepted', 25)], 'now'],
    ['settled', calm(), undefined],
    ['raised to the ceiling', [set('now', 'here')], undefined],
    ['raised, but not so far', [set('days', 'here')], 'now'],
  ])('%s: %s', (_what, entries, ceiling) => expect(toAccept(entries)).toBe(ceiling))
  it('is accepted with a reason, a plan and a tier', () => {
    expect(checkEntries(pack, [accept('now')])).toEqual([])
    expect(checkEntries(pack, [accept('now', 20, { reason: '' }), accept('now', 20, { plan: ' - ' })]).map(({ path }) => path)).toEqual([
      '/entries/0/reason',
      '/entries/1/plan',
    ])
  })
  it('stands in note and letter for as long as something is open', () => {
    const told = (entries: readonly Entry[]): string[] => {
      const judged = judgement(pack, exam(entries))
      const letter = referralLetter(judged, {
        patient: { name: 'Wren Holloway', birthDate: '1986-05-05' },
        examiner: 'Dr Test',
        site: 'Here',
      })
      return [noteText(clinicalNote(judged)), letter.paragraphs.map((one) => one.text).join()]
    }
    for (const text of told([accept('now')]))
      expect(text).toContain('Left open up to Now by Dr Test, Tue 10 Mar 2026, 09:20 UTC: would not lie down. Plan: again at noon')
    for (const text of told([...calm(), accept('now')])) expect(text).not.toContain('Left open')
  })
})

describe('a priority that was set', () => {
  const lowered = judgement(pack, exam([...today, set('days', 'today', agreed)]))
  const texts = (entries: readonly Entry[]) => {
    const judged = judgement(pack, exam(entries))
    const letter = referralLetter(judged, {
      patient: { name: 'Wren Holloway', birthDate: '1986-05-05' },
      examiner: 'Dr Test',
      site: 'Here',
    })
    return { note: noteText(clinicalNote(judged)), letter, text: letter.paragraphs.map((one) => `${one.heading}: ${one.text}`).join('\n') }
  }
  it('stands in note and letter beside what was computed, and both are due by it', () => {
    const { note, text } = texts([...today, set('days', 'today', agreed)])
    const words = 'Computed Today, set to Days by Dr Test, Tue 10 Mar 2026, 09:30 UTC: fluid was clear. Dr Quill, consultant agreed Tue 10 Mar 2026, 09:28 UTC'
    expect(note).toContain(`Days; due by Tue 17 Mar 2026, 09:00 UTC\n  ${words}`)
    expect(text).toContain(`Priority: Days (${words.replace('Computed', 'computed')}), due by Tue 17 Mar 2026, 09:00 UTC`)
    expect(note).not.toContain('priority:')
  })
  it('says that it has lapsed', () =>
    expect(texts([...today, set('days', 'today', agreed), ...entriesFor(gone, 'right', minutes(40))]).note).toMatch(
      /Was set to Days by Dr Test.*That has lapsed: the findings now give Now/,
    ))
  it('goes where that tier is seen when it was raised', () => {
    expect([texts(calm()).letter.destination, texts([...calm(), set('today', 'here')]).letter.destination]).toEqual(['dest.own-clinic', 'dest.ortho-oncall'])
    expect(texts([...calm(), set('now', 'here')]).letter.destination).toBe('dest.ed-resus')
  })
  it('is told to other programs, and is part of what is compared at signing', () => {
    expect(publicVerdict(lowered)).toMatchObject({
      floor: 'today',
      priority: { tier: 'days', computed: 'today', set: { by: 'Dr Test', senior: 'Dr Quill, consultant' } },
    })
    expect([shownVerdict(lowered).priority, shownVerdict(judgement(pack, exam(today))).priority]).toEqual(['days', 'today'])
  })
})
