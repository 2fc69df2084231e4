import { describe, expect, it } from 'vitest'
import {
  clinicalNote,
  errorSource,
  itemsById,
  judgement,
  readingStatements,
  recordOf,
  serialStatements,
  viewOf,
  type Finding,
  type FindingEntry,
} from '../src/index.js'
import { AS_OF, newId, thePack } from './support.js'

const said = (region: string, id: string, right: Finding | undefined, left: Finding | undefined, first: 'right' | 'left' = 'right'): readonly string[] => {
  const item = itemsById(viewOf(thePack(), region)).get(id)
  if (!item) throw new Error(`${region} has no ${id}`)
  const told = (finding: Finding | undefined) => finding && { state: 'examined' as const, ...finding }
  return readingStatements(item, { right: told(right), left: told(left) }, first)
}
const range = (active: number, passive: number, method?: string): Finding => ({ qualifiers: { active, passive, ...(method ? { method } : {}) } })

describe('what readings say beside each other', () => {
  it('is how much one side differs, against the error of measuring', () => {
    expect(said('shoulder', 'shoulder.move.abduction', range(90, 92), range(170, 172))).toEqual([
      'passive right 80° less than left (measurement error 8°)',
      'right active 90°, passive 92°: restriction of the joint',
    ])
    expect(said('shoulder', 'shoulder.move.abduction', range(165, 166), range(170, 172))).toEqual(['sides alike within measurement error (8°)'])
    expect(said('shoulder', 'shoulder.move.abduction', range(90, 92), range(170, 172), 'left')[0]).toBe(
      'passive left 80° more than right (measurement error 8°)',
    )
  })
  it('allows more for an estimate by eye', () => {
    expect(said('shoulder', 'shoulder.move.abduction', range(155, 157, 'visual estimate'), range(170, 172, 'visual estimate'))).toEqual([
      'sides alike within measurement error (17°)',
    ])
    expect(said('shoulder', 'shoulder.move.abduction', range(155, 157), range(170, 172))[0]).toBe('passive right 15° less than left (measurement error 8°)')
  })
  it.each([
    ['joint', range(20, 22), 'right active 20°, passive 22°: restriction of the joint'],
    ['muscle, tendon or nerve', range(40, 165), 'right active 40°, passive 165°: muscle, tendon or nerve, not the joint'],
    ['both', range(40, 90), 'right active 40°, passive 90°: restriction of the joint, and the active range lags: muscle, tendon or nerve as well'],
  ])('names what takes a range away: %s, against the norm where the other side was not measured', (_what, right, words) =>
    expect(said('shoulder', 'shoulder.move.abduction', right, undefined)).toEqual([words]),
  )
  it('asks for the passive range where the active one is reduced, and not where it is full', () => {
    const active = (degrees: number): Finding => ({ qualifiers: { active: degrees } })
    expect(said('knee', 'knee.move.flexion', active(95), undefined)).toEqual([
      'right active 95° is reduced: the passive range tells joint from muscle, tendon or nerve',
    ])
    expect(said('knee', 'knee.move.flexion', active(140), active(141))).toEqual(['sides alike within measurement error (8°)'])
    expect(said('knee', 'knee.move.flexion', active(95), active(140))).toHaveLength(2)
    expect(said('shoulder', 'shoulder.move.flexion', active(95), undefined)).toEqual([])
  })
  it('says nothing of a full range, of one side, or of what is no number', () => {
    expect(said('shoulder', 'shoulder.move.abduction', range(175, 178), undefined)).toEqual([])
    expect(said('knee', 'knee.look.swelling', { value: ['anterior'] }, { value: ['none'] })).toEqual([])
    expect(said('shoulder', 'shoulder.move.abduction', undefined, range(90, 92))).toEqual(['left active 90°, passive 92°: restriction of the joint'])
  })
  it('gives millimetres of laxity as they are, for no error of the hand is known', () => {
    expect(said('knee', 'knee.test.lachman', { value: 8 }, { value: 2 })).toEqual(['right 6 mm more than left'])
    expect(said('knee', 'knee.test.lachman', { value: 3 }, { value: 3 })).toEqual([])
  })
})

describe('what power and pain on resistance say', () => {
  const power = (region: string, id: string, value: string, resisted: string) => said(region, id, { value, qualifiers: { resisted } }, undefined)
  it.each<[string, string, string]>([
    ['5', 'marked', 'full power with pain: irritation of tendon or muscle'],
    ['4', 'none', 'weak without pain: complete rupture or nerve'],
    ['4+', 'mild', 'weak with pain: partial tear, or inhibited by pain'],
    ['3', 'gives way', 'gives way: effort limited, the grade is not reliable'],
  ])('%s, pain %s: %s', (value, resisted, says) => {
    expect(power('elbow', 'neuro.strength.wrist-extension', value, resisted)).toEqual([`right ${says}`])
    expect(power('knee', 'neuro.strength.knee-extension', value, resisted)).toEqual([`right ${says}`])
  })
  it('is nothing for full power without pain, or where pain was not asked', () => {
    expect(power('knee', 'neuro.strength.knee-extension', '5', 'none')).toEqual([])
    expect(said('knee', 'neuro.strength.knee-extension', { value: '3' }, undefined)).toEqual([])
  })
})

describe('what a reading taken anew says', () => {
  const about = (time: string) => ({ id: newId(), item: 'knee.move.flexion', side: 'right' as const, by: 'test', at: `2026-03-10T${time}:00.000Z` })
  const at = (time: string, passive: number): FindingEntry => ({ ...about(time), state: 'examined', qualifiers: { passive } })
  const takenBack = (time: string): FindingEntry => ({ ...about(time), state: 'not-examined' })
  const since = (...entries: FindingEntry[]): readonly string[] => {
    const item = itemsById(viewOf(thePack(), 'knee')).get('knee.move.flexion')
    return item ? serialStatements(item, recordOf(entries)) : ['no such item']
  }
  it('is a change beyond the error of measuring, or none', () => {
    expect(since(at('09:00', 95), at('11:00', 110))).toEqual(['right passive 15° more than 2 h before (measurement error 8°)'])
    expect(since(at('09:00', 95), at('11:00', 90))).toEqual(['right passive unchanged from 2 h before (measurement error 8°)'])
  })
  it('of three or more is their spread, against the error of measuring', () => {
    expect(since(at('09:00', 95), at('10:00', 98), at('11:00', 92))[1]).toBe('right passive 3 readings, 92° to 98°, within measurement error (8°)')
    expect(since(at('09:00', 80), at('10:00', 98), at('11:00', 92), at('12:00', 90)).at(-1)).toBe(
      'right passive 4 readings, 80° to 98°, more than measurement error (8°)',
    )
    expect(since(at('09:00', 80), at('09:01', 98), at('09:02', 92))).toEqual([])
  })
  it('is nothing where it corrects what was recorded minutes before, was taken back, or stands alone', () => {
    expect(since(at('09:00', 95), at('09:03', 110))).toEqual([])
    expect(since(at('09:00', 95), takenBack('10:00'), at('11:00', 110))).toEqual([])
    expect(since(at('09:00', 95))).toEqual([])
  })
  it('stands in the note', () => {
    const entries = [at('09:00', 95), at('11:00', 110)]
    const judged = judgement(thePack(), { complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF, entries })
    const lines = clinicalNote(judged).flatMap((section) => section.lines)
    expect(lines.join()).toContain('[right passive 15° more than 2 h before (measurement error 8°)]')
  })
})

describe('the error of measuring', () => {
  it('says where it comes from, of what has one', () => {
    expect(errorSource('angle')).toBe('1.96 × √2 × 3° of standard error, 95 % (one examiner, by goniometer; expert, Boone 1978)')
    expect(errorSource('length')).toMatch(/5 mm/)
    expect(errorSource('laxity')).toBeUndefined()
  })
})
