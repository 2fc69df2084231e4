import { describe, expect, it } from 'vitest'
import {
  checkEntries,
  clinicalNote,
  judgeAlong,
  judgement,
  noteText,
  PRIORITY,
  priorityOf,
  RANGE,
  rangeToAccept,
  publicVerdict,
  referralLetter,
  shownVerdict,
  type Entry,
  type Tier,
} from '../src/index.js'
import { AS_OF, calm, entriesFor, exam, newId, thePack, type Findings } from './support.js'

const pack = thePack()
const minutes = (count: number): string => new Date(Date.parse(AS_OF) + count * 60_000).toISOString()
const set = (tier: Tier, from: Tier, more: Partial<Entry> = {}, count = 30): Entry => ({
  id: newId(),
  item: PRIORITY,
  side: 'none',
  state: 'chosen',
  value: tier,
  by: 'Dr Test',
  at: minutes(count),
  ...more,
  qualifiers: { from, ...more.qualifiers },
})
const agreed = { reason: 'fluid was clear', qualifiers: { senior: 'Dr Quill, consultant', 'senior-at': minutes(28) } }
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
    [
      'set and taken back',
      [...today, set('days', 'today', agreed, 20), { ...set('days', 'today', {}, 25), state: 'not-examined' }],
      'today',
      'today',
      undefined,
    ],
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
    ['taking it back', { ...set('days', 'today'), state: 'not-examined' }, []],
    ['lowering with no reason', set('routine', 'weeks'), ['/entries/0/reason']],
    ['lowering from Today alone', set('days', 'today', { reason: 'looks well to me' }), ['/entries/0/qualifiers/senior', '/entries/0/qualifiers/senior-at']],
    [
      'a senior who is oneself',
      set('days', 'now', { reason: 'seen', qualifiers: { senior: 'dr  test', 'senior-at': minutes(28) } }),
      ['/entries/0/qualifiers/senior'],
    ],
    [
      'a senior who agreed at no time',
      set('days', 'now', { reason: 'seen', qualifiers: { senior: 'Dr Quill', 'senior-at': 'just now' } }),
      ['/entries/0/qualifiers/senior-at'],
    ],
    ['a tier that is none', set('soon' as Tier, 'weeks'), ['/entries/0/value']],
    ['no word of what the findings gave', set('now', 'never' as Tier), ['/entries/0/qualifiers/from']],
    ['a side', set('now', 'weeks', { side: 'left' }), ['/entries/0/side']],
    ['another item', set('now', 'weeks', { item: 'story.trauma' }), ['/entries/0/item']],
    ['a word more', set('now', 'weeks', { qualifiers: { mood: 'bad' } }), ['/entries/0/qualifiers/mood']],
  ])('%s', (_what, entry, paths) => expect(checkEntries(pack, [entry]).map(({ path }) => path)).toEqual(paths))
})

describe('a range that could still be Now or Today', () => {
  const accept = (ceiling: string, count = 20, more: Partial<Entry> = {}): Entry => ({
    id: newId(),
    item: RANGE,
    side: 'none',
    state: 'accepted',
    reason: 'would not lie down',
    by: 'Dr Test',
    at: minutes(count),
    qualifiers: { plan: 'again at noon', ceiling },
    ...more,
  })
  const toAccept = (entries: readonly Entry[]): string | undefined => rangeToAccept(judgement(pack, exam(entries)))
  it.each<[string, readonly Entry[], string | undefined]>([
    ['nothing examined', [], 'now'],
    ['nothing examined, and accepted', [accept('now')], undefined],
    ['accepted for less', [accept('today')], 'now'],
    ['accepted, and taken back', [accept('now'), accept('now', 25, { state: 'not-examined' })], 'now'],
    ['settled', calm(), undefined],
    ['raised to the ceiling', [set('now', 'here')], undefined],
    ['raised, but not so far', [set('days', 'here')], 'now'],
  ])('%s: %s', (_what, entries, ceiling) => expect(toAccept(entries)).toBe(ceiling))
  it('is accepted with a reason, a plan and a tier', () => {
    expect(checkEntries(pack, [accept('now')])).toEqual([])
    const wrong = [
      accept('soon'),
      accept('now', 20, { reason: '' }),
      accept('now', 20, { qualifiers: { ceiling: 'now' } }),
      accept('now', 20, { item: 'story.trauma' }),
    ]
    expect(checkEntries(pack, wrong).map(({ path }) => path)).toEqual([
      '/entries/0/qualifiers/ceiling',
      '/entries/1/reason',
      '/entries/2/qualifiers/plan',
      '/entries/3/item',
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
    expect(note).not.toContain(`${PRIORITY}:`)
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
