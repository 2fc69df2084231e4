import { describe, expect, it } from 'vitest'
import {
  clinicalNote,
  hasLetters,
  isReason,
  isSamePerson,
  isolated,
  judgement,
  noteText,
  plainEntry,
  plainText,
  recordHash,
  referralLetter,
} from '../src/index.js'
import { calm, entriesFor, exam, thePack } from './support.js'

describe('text as it is kept', () => {
  it.each([
    ['a line break', 'too sore\nPriority\n  Here', 'too sore Priority Here'],
    ['an unclosed direction mark', 'Odile \u202eMarsh', 'Odile Marsh'],
    ['a zero-width name', '\u200b\u2060', ''],
    ['letters written apart', 'Bre\u0301a', 'Bréa'],
    ['the joiner of a script', 'می\u200cخواهم', 'می\u200cخواهم'],
  ])('loses %s', (_what, text, kept) => expect(plainText(text)).toBe(kept))
  it('has letters or is no name, and words or is no reason', () => {
    expect(['Li', '李', '123', ' . '].map(hasLetters)).toEqual([true, true, false, false])
    expect(['film seen', '– … –', '    ', 'a b c d', undefined].map(isReason)).toEqual([true, false, false, true, false])
  })
  it('gives a note no heading that nobody wrote', () => {
    const sly = entriesFor({ 'knee.test.lachman': { state: 'could-not', reason: 'pain\n\nPriority\n  Here, settled' } })
    const examination = exam(sly)
    const text = noteText(clinicalNote(judgement(thePack(), examination)))
    expect(text.split('\n').filter((line) => line === 'Priority')).toHaveLength(1)
    expect(plainEntry(sly[0] ?? ({} as never)).reason).toBe('pain Priority Here, settled')
  })
  it('keeps the birth date where it stands, whatever way the name is written', () => {
    const examination = exam(calm())
    const about = { patient: { name: 'Odile \u202eMarsh', birthDate: '1980-01-01' }, examiner: 'Dr A', site: 'B' }
    const text = referralLetter(judgement(thePack(), examination), about).paragraphs[0]?.text ?? ''
    expect(text.startsWith(`${isolated('Odile Marsh')}, born 1 January 1980`) || text.startsWith(`${isolated('Odile Marsh')}, born 1 Jan 1980`)).toBe(true)
  })
})

describe('who is who', () => {
  it.each([
    ['Dr Isolde Brannock', 'isolde  BRANNOCK', true],
    ['Brannock', 'Dr Isolde Brannock', true],
    ['Dr Tobias Quill', 'Dr Isolde Brannock', false],
  ])('%s and %s', (a, b, same) => expect(isSamePerson(a, b)).toBe(same))
})

describe('the seal of a record', () => {
  it('is the same however the entries come, and another with one finding more', () => {
    const entries = calm()
    const turned = [...entries].reverse().map((entry) => Object.fromEntries(Object.entries(entry).reverse()) as unknown as (typeof entries)[number])
    expect(recordHash({ entries: turned }, 'p')).toBe(recordHash({ entries }, 'p'))
    expect(recordHash({ entries: entries.slice(1) }, 'p')).not.toBe(recordHash({ entries }, 'p'))
    expect(recordHash({ entries }, 'q')).not.toBe(recordHash({ entries }, 'p'))
  })
})
