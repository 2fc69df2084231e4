import { describe, expect, it } from 'vitest'
import {
  checkEntries,
  clinicalNote,
  itemsById,
  judgedSides,
  judgement,
  noteText,
  referralLetter,
  viewOf,
  type FindingEntry,
  type Letter,
} from '../src/index.js'
import { AS_OF, daysAgo, entriesFor, exam, judged, newId, thePack, type Findings } from './support.js'

const about = { patient: { name: 'Wren Holloway', birthDate: '1986-05-05' }, examiner: 'Dr Test', site: 'Here', zone: 'Europe/Oslo' }
const letterOf = (findings: Findings): Letter => {
  const examination = exam(entriesFor(findings))
  return referralLetter(judgement(thePack(), examination), about)
}
const background = (findings: Findings): string | undefined => letterOf(findings).paragraphs.find((one) => one.heading === 'Background')?.text

describe('the background in a letter', () => {
  it('gives the blood thinner with the time of its last dose in local time, the allergy and the metal', () => {
    const text = background({
      'patient.anticoagulant': ['warfarin'],
      'patient.last-anticoagulant-dose': daysAgo(0.5),
      'patient.allergy': ['latex'],
      'patient.prosthesis-here': 'total',
    })
    expect(text).toContain('Anticoagulant or antiplatelet: warfarin')
    expect(text).toContain('Last anticoagulant dose: Mon 9 Mar 2026, 22:00')
    expect(text).toContain('Allergies: latex')
    expect(text).toContain('Arthroplasty of this joint right: total')
    expect(text).toContain('Not asked: onset.')
  })
  it('says what nobody asked, and is silent on what is ordinary', () => {
    expect(background({ 'patient.renal-function': 'normal' })).toBe('Not asked: onset, anticoagulant or antiplatelet, allergies.')
    expect(background({ 'patient.anticoagulant': ['none'], 'patient.allergy': ['none known'], 'patient.diabetes': 'none' })).toBe('Not asked: onset.')
  })
  it('does not take "could not be asked" for an answer', () => {
    const findings: Findings = { 'patient.anticoagulant': { state: 'could-not', reason: 'other' }, 'patient.allergy': ['none known'] }
    expect(background(findings)).toBe('Not asked: onset, anticoagulant or antiplatelet.')
  })
})

describe('a time in a letter', () => {
  it.each([
    ['exact', 'Mon 9 Mar 2026, 22:00'],
    ['hour', 'about Mon 9 Mar 2026, 22:00'],
    ['day', 'Onset: 9 Mar 2026.'],
    ['week', 'about 9 Mar 2026, to the week'],
  ])('known to the %s is told no more exactly', (precision, words) => {
    const began = { ...daysAgo(0.5), qualifiers: { precision } }
    const text = letterOf({ 'story.onset-at': began }).paragraphs.find((one) => one.heading === 'Presenting complaint')?.text
    expect(text).toContain(words)
    expect(checkEntries(thePack(), entriesFor({ 'story.onset-at': began, 'patient.last-food': began, 'patient.last-anticoagulant-dose': began }))).toEqual([])
  })
  it('is not told twice when the receiver asks for it', () => {
    const { paragraphs } = letterOf({
      'story.trauma': 'present',
      'vascular.pulse-dorsalis-pedis': 'absent',
      'vascular.pulse-posterior-tibial': 'absent',
      'story.onset-at': daysAgo(0.5),
      'patient.anticoagulant': ['warfarin'],
    })
    const told = paragraphs.map((one) => one.text).join(' ')
    for (const words of ['Onset: ', 'Anticoagulant or antiplatelet: warfarin']) expect(told.split(words)).toHaveLength(2)
  })
})

describe('the check of pulse and nerve in a letter', () => {
  const checks = (...entries: readonly FindingEntry[]): string | undefined => {
    const examination = exam(entries)
    return referralLetter(judgement(thePack(), examination), about).paragraphs.find((one) => one.heading === 'Neurovascular status')?.text
  }
  const at = (time: string, findings: Findings): FindingEntry[] => entriesFor(findings, 'right', `2026-03-10T${time}:00Z`)

  it('gives each finding of the sore side with the time of its own check, the abnormal first', () => {
    const text = checks(
      ...at('09:00', {
        'vascular.pulse-dorsalis-pedis': 'normal',
        'vascular.pulse-posterior-tibial': 'absent',
        'vascular.pulse-dorsalis-pedis left': 'normal',
      }),
      ...at('09:40', { 'vascular.ankle-index': 0.9, 'neuro.touch.first-web': 'normal' }),
    )
    expect(text).toBe(
      'Tue 10 Mar 2026, 10:00 CET: Posterior tibial pulse (PT): absent on the right. Normal on the right: Dorsalis pedis pulse (DP). ' +
        'Tue 10 Mar 2026, 10:40 CET: Ankle–brachial index (ABI): 0.9 on the right. Normal on the right: First web space, foot (deep peroneal).',
    )
  })
  it('says that nobody checked', () => {
    expect(checks(...at('09:00', { 'knee.feel.medial-joint-line': '0' }))).toBe('Not checked.')
    const couldNot: Findings = { 'vascular.pulse-dorsalis-pedis': { state: 'could-not', reason: 'pain' } }
    expect(checks(...at('09:00', couldNot))).toBe('Not checked.')
  })
})

describe('what was found, in a letter', () => {
  const found = (findings: Findings): string | undefined => letterOf(findings).paragraphs.find((one) => one.heading === 'Examination')?.text
  it('stands with the other side, and a measure where the sides differ', () => {
    const bend = (active: number): object => ({ qualifiers: { active, passive: active } })
    expect(
      found({
        'feel.effusion': 'moderate',
        'feel.effusion left': 'none',
        'knee.move.flexion': bend(90),
        'knee.move.flexion left': bend(140),
        'knee.move.extension': bend(0),
        'knee.move.extension left': bend(0),
        'knee.feel.calf left': '2',
      }),
    ).toBe(
      'Effusion: right moderate; left none. Knee flexion: right active 90°, passive 90°; left active 140°, passive 140° (50° less than left; right restriction of the joint).',
    )
  })
  it('says of what could not be had why', () => {
    expect(found({ 'knee.test.lachman': { state: 'could-not', reason: 'guarding' } })).toBe('Lachman test: right could not be done (guarding).')
    expect(found({ 'knee.feel.calf': '0' })).toBeUndefined()
  })
})

describe('what the receiver wants of a back', () => {
  const findings: Findings = {
    'back.history.bladder': ['urinary retention'],
    'back.history.saddle': ['bilateral loss'],
    'neuro.strength.ankle-dorsiflexion': '3',
    'neuro.strength.ankle-dorsiflexion left': '5',
  }
  const letter = (): Letter => {
    const examination = {
      complaint: { region: 'back', sides: ['none' as const] },
      asOf: '2026-03-10T09:00:00.000Z',
      entries: entriesFor(findings, 'right', '2026-03-10T09:00:00.000Z', 'back'),
    }
    return referralLetter(judgement(thePack(), examination), about)
  }
  it('is taken from the record: bladder, saddle and power of both sides; the rest is wished for', () => {
    expect(letter().destination).toBe('dest.spinal-oncall')
    const text = letter().paragraphs.find((one) => one.heading === 'For this service')?.text
    expect(text).toMatch(
      /Bladder symptoms: urinary retention\. Saddle \(perineal\) sensation: bilateral loss\. Ankle dorsiflexion \(L4, L5\): right 3.*; left 5/,
    )
    expect(letter().missing).toEqual(expect.arrayContaining(['post-void residual', 'sensory level']))
    expect(letter().missing).not.toEqual(expect.arrayContaining(['dated power table']))
  })
})

describe('the background in a note', () => {
  it('names what is not ordinary on the patient card, and calls only the rest usual', () => {
    const examination = exam(entriesFor({ 'patient.anticoagulant': ['warfarin'], 'patient.cancer': 'active', 'patient.diabetes': 'none' }))
    const text = noteText(clinicalNote(judgement(thePack(), examination)))
    expect(text).toContain('Anticoagulant or antiplatelet: warfarin')
    expect(text).toContain('Malignancy: active')
    expect(text).toContain('Asked, nothing relevant: Diabetes\n')
  })
})

describe('what the receiver wants before an operation', () => {
  const wound: Findings = { 'screen.wound': 'near bone or joint', 'story.trauma': 'present', 'knee.screen.deformity': 'present' }
  it('is asked after a wound, and wished for until it is told', () => {
    expect(judged(entriesFor(wound)).verdict.asked.prompts.map((group) => group.id)).toEqual(expect.arrayContaining(['ask.theatre', 'ask.tetanus']))
    expect(letterOf(wound).missing).toEqual(expect.arrayContaining(['last food and drink', 'tetanus']))
    const told = letterOf({ ...wound, 'patient.last-food': daysAgo(0.2), 'patient.tetanus': 'incomplete' })
    expect(told.missing).not.toEqual(expect.arrayContaining(['last food and drink']))
    expect(told.missing).not.toEqual(expect.arrayContaining(['tetanus']))
  })
  it('is the weight for the dose of a child, and of nobody whose drugs do not need it', () => {
    const asked = (findings: Findings): readonly string[] => judged(entriesFor(findings)).verdict.asked.prompts.map((group) => group.id)
    expect(asked({ 'patient.age-years': 9 })).toContain('ask.weight')
    expect(asked({ 'patient.age-years': 40, 'patient.anticoagulant': ['heparin'] })).toContain('ask.weight')
    expect(asked({ 'patient.age-years': 40, 'patient.anticoagulant': ['none'] })).not.toContain('ask.weight')
  })
})

describe('who the letter is about', () => {
  const first = (patient: object): string | undefined => {
    const record = exam(entriesFor({}))
    return referralLetter(judgement(thePack(), record), { ...about, patient: { ...about.patient, ...patient } }).paragraphs[0]?.text
  }
  it('is told with the number and where the patient is reached, as far as they are known', () => {
    expect(first({ localNumber: 'H4101', contact: 'the lodge at Saltgate, with her daughter' })).toMatch(
      /^\u2068Wren Holloway\u2069, born 5 May 1986, number H4101\. Reached at \u2068the lodge at Saltgate, with her daughter\u2069\. Right knee, seen /,
    )
    expect(first({})).toMatch(/^\u2068Wren Holloway\u2069, born 5 May 1986\. Right knee, seen /)
  })
})

describe.each(thePack().regions.map(({ id }) => id))('the letter and note of the %s', (region) => {
  it('are the same whether they are written from the whole pack, as on the server, or from that of the region, as in the browser', () => {
    const view = viewOf(thePack(), region)
    const sides = judgedSides(view, { region, sides: ['right'] })
    const abnormal = view.items.flatMap((item): FindingEntry[] => {
      const value = item.options.find((one) => !item.calm.includes(one) && one !== item.empty && !item.gaps.includes(one))
      const finding = item.kind === 'multi' ? (value === undefined ? undefined : [value]) : item.kind === 'sign' ? 'present' : value
      const side = item.sided ? (sides[0] ?? 'right') : 'none'
      return finding === undefined || item.derive ? [] : [{ id: newId(), item: item.id, side, state: 'examined', value: finding, by: 'Dr Test', at: AS_OF }]
    })
    const examination = { complaint: { region, sides }, asOf: AS_OF, entries: abnormal }
    const [ofPack, ofView] = [judgement(thePack(), examination), judgement(view, examination)]
    expect(referralLetter(ofPack, about)).toEqual(referralLetter(ofView, about))
    const note = noteText(clinicalNote(ofPack))
    expect(note).toBe(noteText(clinicalNote(ofView)))
    const renamed = view.items.filter((item) => item.label !== itemsById(thePack()).get(item.id)?.label && abnormal.some((entry) => entry.item === item.id))
    for (const { label } of renamed) expect(note).toContain(label)
  })
})
