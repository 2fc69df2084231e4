import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  checkEntries,
  clinicalNote,
  counterfactuals,
  earlierFlags,
  findingsOf,
  judge,
  judgeAlong,
  judgement,
  noteText,
  openItems,
  publicVerdict,
  referralLetter,
  slotKey,
  type Entry,
  type EntryOf,
  type FindingEntry,
  type Examination,
  type FlagVerdict,
  type Side,
} from '../src/index.js'
import { atTheCouch, entryOf } from './randomEntries.js'
import { AS_OF, calm, calmRecord, entriesFor, newId, theKnee, thePack, type Findings } from './support.js'

const pack = thePack()
const minutes = (count: number): string => new Date(Date.parse(AS_OF) + count * 60_000).toISOString()
const at = (count: number, findings: Findings): FindingEntry[] => entriesFor(findings, 'right', minutes(count))
const knee = (entries: readonly Entry[]): Examination => ({ complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF, entries })
const lift = (flag: string, count: number, side: Side = 'right'): EntryOf<'lifted'> => ({
  id: newId(),
  state: 'lifted',
  flag,
  side,
  reason: 'pulses alike on both sides',
  by: 'Dr Test',
  at: minutes(count),
})
const withdraw = (flag: string, count: number, side: Side = 'right'): EntryOf<'withdrawn'> => ({
  id: newId(),
  state: 'withdrawn',
  decision: 'lifted',
  of: flag,
  side,
  by: 'Dr Test',
  at: minutes(count),
})

const ARTERY = 'any.flag.arterial-hard'
const foot = (pulse: string, colour: string): Findings => ({ 'vascular.pulse-dorsalis-pedis right': pulse, 'vascular.colour-foot right': colour })
const gone = [...calm(), ...at(6, { 'story.trauma': 'present', ...foot('absent', 'pale') })]
const back = at(40, foot('normal', 'normal'))
const takenBack = (count: number): FindingEntry[] => gone.slice(-2).map((entry) => ({ ...entry, id: newId(), state: 'not-examined', at: minutes(count) }))
const liftedAll = (entries: readonly Entry[], count: number): Entry[] =>
  judge(pack, knee(entries)).flags.flatMap((flag) => (flag.retained ? [lift(flag.id, count, flag.side)] : []))
const arteryOf = (entries: readonly Entry[]): FlagVerdict | undefined => judge(pack, knee(entries)).flags.find(({ id }) => id === ARTERY)

describe('a flag of tier Now whose finding is found otherwise', () => {
  it('stays Now, with what met it then and until when', () => {
    const held = arteryOf([...gone, ...back])
    expect(held).toMatchObject({ tier: 'now', truth: 'met', side: 'right', retained: { until: minutes(40) } })
    expect(held?.proof && findingsOf(held.proof)).toContainEqual(expect.objectContaining({ item: 'vascular.pulse-dorsalis-pedis', value: 'absent' }))
    const { floor, ceiling } = judge(pack, knee([...gone, ...back]))
    expect([floor, ceiling]).toEqual(['now', 'now'])
  })
  it('is told as it was before the first of several findings that were rechecked in one go', () => {
    const one = [...gone, ...at(40, { 'vascular.pulse-dorsalis-pedis right': 'normal' }), ...at(42, { 'vascular.colour-foot right': 'normal' })]
    expect(arteryOf(one)?.retained).toEqual({ from: minutes(40), until: minutes(42) })
    expect(arteryOf(one)?.proof).toEqual(arteryOf([...gone, ...back])?.proof)
  })
  it('stays so when what met it is taken back, for "not examined" is not "normal"', () =>
    expect(arteryOf([...gone, ...takenBack(40)])).toMatchObject({ tier: 'now', retained: { until: minutes(40) } }))
  it.each<[string, readonly Entry[]]>([
    ['nothing was checked anew', gone],
    ['the same was found again', [...gone, ...at(40, foot('absent', 'pale'))]],
    ['something else was found', [...gone, ...at(40, { 'knee.feel.medial-joint-line right': '0' })]],
  ])('is plainly met, not held, when %s', (_why, entries) => {
    expect(arteryOf(entries)?.tier).toBe('now')
    expect(arteryOf(entries)?.retained).toBeUndefined()
  })
  it('goes with a correction within five minutes', () => expect(arteryOf([...gone, ...at(10, foot('normal', 'normal'))])).toBeUndefined())
  it('keeps the hold that it sets', () => {
    const stops = (entries: readonly Entry[]): string[] => judge(pack, knee(entries)).holds.map((hold) => hold.id)
    expect(stops([...gone, ...back])).toContain('any.hold.artery-watch')
    expect(stops([...gone, ...back, ...liftedAll([...gone, ...back], 50)])).not.toContain('any.hold.artery-watch')
  })
  it('is no longer looked for: it asks for nothing, and no finding would lower it', () => {
    const judged = judgement(pack, knee([...gone, ...takenBack(40)]))
    expect(judged.verdict.openFlags.map(({ id }) => id)).not.toContain(ARTERY)
    expect(counterfactuals(judged).lower).toEqual([])
  })
  it('is held on a side of its own, and leaves the other alone', () => {
    const left = [...calm(), ...at(6, { 'story.trauma': 'present', 'vascular.pulse-dorsalis-pedis left': 'absent', 'vascular.colour-foot left': 'pale' })]
    const both: Examination = { ...knee([...left, ...at(40, { 'vascular.pulse-dorsalis-pedis left': 'normal', 'vascular.colour-foot left': 'normal' })]) }
    const { flags } = judge(pack, { ...both, complaint: { region: 'knee', sides: ['right', 'left'] } })
    expect(flags.filter(({ id }) => id === ARTERY).map(({ side, retained }) => [side, retained?.until])).toEqual([['left', minutes(40)]])
  })
  it('is held once in a joint without a side, and lifted once', () => {
    const told = (findings: Findings, count: number): FindingEntry[] => entriesFor(findings, 'right', minutes(count), 'back')
    const spine = (entries: readonly Entry[]): Examination => ({ complaint: { region: 'back', sides: ['none'] }, asOf: AS_OF, entries })
    const bladder = (words: string): Findings => ({ 'patient.age-years': 50, 'back.history.bladder': [words], 'back.history.saddle': ['bilateral loss'] })
    const entries = [...told(bladder('urinary retention'), 0), ...told({ 'back.history.bladder': ['none'], 'back.history.saddle': ['none'] }, 30)]
    const held = judge(pack, spine(entries)).flags.filter((flag) => flag.retained)
    expect(held.map(({ id }) => id)).toContain('back.flag.cauda-equina')
    expect(new Set(held.map(({ id }) => id)).size).toBe(held.length)
    const lifted = judge(pack, spine([...entries, ...held.map((flag) => lift(flag.id, 40, flag.side))]))
    expect(lifted.flags.filter((flag) => flag.retained)).toEqual([])
  })
})

describe('lifting it', () => {
  const record = [...gone, ...back]
  it('ends it, by name and with a reason', () => {
    const lifted = [...record, ...liftedAll(record, 50)]
    expect(arteryOf(lifted)).toBeUndefined()
    expect(judge(pack, knee(lifted)).floor).not.toBe('now')
  })
  it('is undone by taking the lifting back', () => expect(arteryOf([...record, lift(ARTERY, 50), withdraw(ARTERY, 51)])).toMatchObject({ tier: 'now' }))
  it('does nothing while the findings still meet it, and nothing beforehand', () => {
    expect(arteryOf([...gone, lift(ARTERY, 20)])).toMatchObject({ tier: 'now' })
    expect(arteryOf([...gone, lift(ARTERY, 20), ...back])?.retained).toEqual({ from: minutes(40), until: minutes(40) })
  })
  it('of the other side does nothing', () => expect(arteryOf([...record, lift(ARTERY, 50, 'left')])?.retained).toBeTruthy())
  it('does not outlast the pulse going again', () => {
    const again = [...record, ...liftedAll(record, 50), ...at(60, foot('absent', 'pale'))]
    expect(arteryOf(again)).toMatchObject({ tier: 'now' })
    expect(arteryOf(again)?.retained).toBeUndefined()
    expect(arteryOf([...again, ...at(80, foot('normal', 'normal'))])?.retained).toEqual({ from: minutes(80), until: minutes(80) })
  })
  it('needs a flag that there is, and a reason', () => {
    expect(checkEntries(pack, [lift(ARTERY, 50), withdraw(ARTERY, 51)])).toEqual([])
    const faults = checkEntries(pack, [lift('any.flag.none-such', 50), { ...lift(ARTERY, 50), reason: ' no ' }])
    expect(faults.map(({ path }) => path)).toEqual(['/entries/0/flag', '/entries/1/reason'])
  })
})

describe('what was urgent earlier', () => {
  const record = [...gone, ...back]
  const lifted = [...record, ...liftedAll(record, 50)]
  const texts = (entries: readonly Entry[]): { note: string; letter: string; open: object } => {
    const exam = knee(entries)
    const judged = judgement(pack, exam)
    const letter = referralLetter(judged, { patient: { name: 'Wren Holloway', birthDate: '1986-05-05' }, examiner: 'Dr Test', site: 'Here' })
    return {
      note: noteText(clinicalNote(judged)),
      letter: letter.paragraphs.map(({ heading, text }) => `${heading}: ${text}`).join('\n'),
      open: publicVerdict(judged),
    }
  }
  const UNTIL = 'Arterial injury, hard signs right: Now until Tue 10 Mar 2026, 09:40 UTC \\(.*Dorsalis pedis pulse \\(DP\\): absent on the right.*\\)'
  it('stands in note and letter, held or lifted and by whom', () => {
    expect(texts(record).note).toMatch(new RegExp(`${UNTIL}\\. Found otherwise since, and not lifted: stays Now`))
    for (const text of [texts(lifted).note, texts(lifted).letter])
      expect(text).toMatch(new RegExp(`${UNTIL}\\. Lifted Tue 10 Mar 2026, 09:50 UTC by Dr Test: pulses alike on both sides`))
  })
  it('says beside the priority that it is held', () => {
    expect(texts(record).note).toMatch(/Arterial injury, hard signs, right: Now, held until it is lifted/)
    expect(texts(record).letter).toMatch(
      /Arterial injury, hard signs \(.*Dorsalis pedis pulse \(DP\): absent on the right.*; found otherwise since Tue 10 Mar 2026, 09:40 UTC, not lifted\)/,
    )
  })
  it('never shows a lifting as a finding', () => {
    for (const text of [texts(lifted).note, texts(lifted).letter]) expect(text).not.toContain(ARTERY)
  })
  it('is told to other programs', () => {
    expect(texts(record).open).toMatchObject({
      earlier: expect.arrayContaining([expect.objectContaining({ id: ARTERY, isHeld: true, lifted: null })]) as unknown,
    })
    expect(texts(lifted).open).toMatchObject({
      earlier: expect.arrayContaining([
        expect.objectContaining({ id: ARTERY, isHeld: false, lifted: { by: 'Dr Test', at: minutes(50), reason: 'pulses alike on both sides' } }),
      ]) as unknown,
    })
  })
  it('of tier Today moves no priority, and is told when it was found otherwise, not when it was taken back', () => {
    const hot: Findings = { 'knee.feel.warmth right': 'hot', 'knee.feel.effusion right': 'large' }
    const told = at(6, hot)
    const today = judge(pack, knee([...calm(), ...told])).flags.find(({ tier }) => tier === 'today')
    expect(today?.id).toBe('any.flag.septic-joint')
    const cooled = told.map((entry): FindingEntry => ({
      ...entry,
      id: newId(),
      value: calm().find((one) => slotKey(one.item, one.side) === slotKey(entry.item, entry.side))?.value ?? 'none',
      at: minutes(40),
    }))
    const retracted = told.map((entry): FindingEntry => ({ ...entry, id: newId(), state: 'not-examined', at: minutes(40) }))
    const earlier = (entries: readonly Entry[]): string[] =>
      earlierFlags(judgement(pack, knee(entries))).map(({ flag, isRetained }) => `${flag.id} ${isRetained}`)
    expect(earlier([...calm(), ...told, ...cooled])).toContain(`${today?.id ?? ''} false`)
    expect(earlier([...calm(), ...told, ...retracted])).toEqual([])
  })
})

describe('the law of held flags', () => {
  const view = theKnee()
  const record = fc.array(entryOf(atTheCouch(view)), { minLength: 1, maxLength: 25 })
  const after = <E extends Entry>(entry: E, count: number): E => ({ ...entry, id: newId(), at: minutes(count) })
  const nowFlags = (entries: readonly Entry[]): string[] =>
    judge(view, knee(entries)).flags.flatMap(({ id, side, tier }) => (tier === 'now' ? [slotKey(id, side)] : []))

  it('no check done anew ends a Now, and lifting ends every one that findings no longer meet', () =>
    fc.assert(
      fc.property(record, record, (first, more) => {
        const known = new Set(first.map((entry) => slotKey(entry.item, entry.side)))
        const anew = more.filter((entry) => known.has(slotKey(entry.item, entry.side))).map((entry) => after(entry, 60))
        const retracted = first.slice(0, 3).map((entry): FindingEntry => ({ ...after(entry, 60), state: 'not-examined' }))
        const entries = [...first, ...anew, ...retracted]
        expect(nowFlags(entries)).toEqual(expect.arrayContaining(nowFlags(first)))
        const lifts = judge(view, knee(entries)).flags.flatMap((flag) => (flag.retained ? [lift(flag.id, 90, flag.side)] : []))
        const bare = judge(view, knee([...entries, ...lifts]))
        expect(bare.flags.filter((flag) => flag.retained)).toEqual([])
      }),
      { numRuns: 60 },
    ))
  it('judging along is judging anew, through rechecks, liftings and late arrivals', () =>
    fc.assert(
      fc.property(record, fc.array(fc.integer({ min: 0, max: 90 }), { minLength: 12, maxLength: 12 }), (some, times) => {
        const { complaint, asOf } = knee([])
        const along = judgeAlong(view, { complaint, asOf })
        const dangers = [...gone.slice(-3), ...back, lift(ARTERY, 50), ...at(60, foot('absent', 'pale'))].map((entry, index) => after(entry, times[index] ?? 0))
        const grown: Entry[] = [...calmRecord(view, 40)]
        for (const entry of dangers.flatMap((danger, index) => [danger, ...some.slice(index, index + 1)])) {
          grown.push(entry)
          const judged = along([...grown])
          const anew = judgement(view, knee(grown))
          expect(JSON.stringify([judged.verdict, judged.past, judged.rechecks])).toBe(JSON.stringify([anew.verdict, anew.past, anew.rechecks]))
          expect(openItems(judged)).toEqual(openItems(anew))
        }
      }),
      { numRuns: 25 },
    ))
})
