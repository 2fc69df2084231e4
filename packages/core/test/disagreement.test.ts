import { describe, expect, it } from 'vitest'
import { clinicalNote, judgeAlong, judgement, openPairs, referralLetter, recordOf, type EntryOf, type FindingEntry } from '../src/index.js'
import { AS_OF, calm, entriesFor, exam, thePack } from './support.js'

const minutes = (count: number): string => new Date(Date.parse(AS_OF) + count * 60_000).toISOString()
const PULSE = 'vascular.pulse-dorsalis-pedis'
const found = (value: string, device: string | undefined, at: number, more: Partial<EntryOf<'examined'>> = {}): FindingEntry => ({
  ...(entriesFor({ [PULSE]: value })[0] as EntryOf<'examined'>),
  by: device === 'two' ? 'Dr Quill' : 'Dr Brannock',
  at: minutes(at),
  ...(device ? { device } : {}),
  ...more,
})
const record = (...entries: FindingEntry[]): FindingEntry[] => [
  ...calm().filter(({ item }) => item !== PULSE),
  ...entriesFor({ 'story.trauma': 'present' }),
  ...entries,
]
const judgedOf = (...entries: FindingEntry[]) => judgement(thePack(), exam(record(...entries)))

describe('what two devices found within minutes of each other', () => {
  const absent = found('absent', 'one', 10)
  const normal = found('normal', 'two', 12)

  it.each([
    ['the danger first', [found('absent', 'one', 10), found('normal', 'two', 12)]],
    ['the danger last', [found('normal', 'one', 10), found('absent', 'two', 12)]],
  ])('is never silently a correction: the more urgent stands, %s', (_what, entries) => {
    expect(judgedOf(...entries).verdict.floor).toBe('now')
    expect(judgedOf(...[...entries].reverse()).verdict.floor).toBe('now')
    expect(judgedOf(...entries).disagreements).toHaveLength(1)
  })
  it('is shown whole in note and letter', () => {
    const examination = exam(record(absent, normal))
    const judged = judgement(thePack(), examination)
    const line =
      clinicalNote(judged)
        .find(({ heading }) => heading === 'Two devices do not agree')
        ?.lines.join() ?? ''
    expect(line).toMatch(/absent \(Dr Brannock.*normal \(Dr Quill.*until a clinician decides/)
    const letter = referralLetter(judged, { patient: { name: 'A B', birthDate: '1980-01-01' }, examiner: 'C', site: 'D' })
    expect(letter.paragraphs.find(({ heading }) => heading === 'Not agreed')?.text).toContain('absent')
    expect(judged.record.finding(PULSE, 'right')?.value).toBe('absent')
  })
  it('is decided by a clinician who says which', () => {
    const decided = found('normal', 'two', 14, { settles: [absent.id, normal.id] })
    const judged = judgedOf(absent, normal, decided)
    expect([judged.verdict.floor, judged.disagreements]).toEqual(['here', []])
  })
  it('is no disagreement on one device, when both say the same, or five minutes apart', () => {
    expect(openPairs(recordOf([found('absent', 'one', 10), found('normal', 'one', 12)]))).toEqual([])
    expect(openPairs(recordOf([found('absent', 'one', 10), found('absent', 'two', 12)]))).toEqual([])
    expect(openPairs(recordOf([found('absent', 'one', 10), found('normal', 'two', 15)]))).toEqual([])
    expect(openPairs(recordOf([found('absent', undefined, 10), found('normal', undefined, 12)]))).toEqual([])
  })
  it('does not speak of what was undone', () => {
    const undone = found('normal', 'one', 11, { undoes: [absent.id] })
    expect(openPairs(recordOf([absent, undone, found('reduced', 'two', 12)])).map(({ earlier }) => earlier.id)).toEqual([undone.id])
  })
  it('is decided pair by pair where they differ in much, and the danger stands whichever device found it', () => {
    const words = thePack()
      .items.filter(({ id, kind, options, sided }) => sided && kind === 'choice' && id.startsWith('knee.') && options.length > 1)
      .slice(0, 30)
    expect(words.length).toBe(30)
    const differing = words.flatMap(({ id, options }) => [found(options[0] ?? '', 'one', 10, { item: id }), found(options[1] ?? '', 'two', 11, { item: id })])
    for (const [first, second] of [
      ['absent', 'normal'],
      ['normal', 'absent'],
    ] as const) {
      const judged = judgedOf(...differing, found(first, 'one', 10), found(second, 'two', 12))
      expect(judged.verdict.flags.map(({ id }) => id)).toContain('any.flag.arterial-hard')
      expect(judged.record.finding(PULSE, 'right')?.value).toBe('absent')
      expect(judged.disagreements).toHaveLength(31)
    }
  })
  it('is judged along a growing record as it is judged anew', () => {
    const along = judgeAlong(thePack(), { complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF })
    const base = record()
    along(base)
    along([...base, absent])
    const grown = [...base, absent, normal]
    expect(along(grown).verdict).toEqual(judgement(thePack(), exam(grown)).verdict)
    const more = [...grown, ...entriesFor({ 'knee.feel.calf': '2' }, 'right', minutes(13))]
    expect(along(more).verdict).toEqual(judgement(thePack(), exam(more)).verdict)
  })
})
