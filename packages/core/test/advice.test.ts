import { describe, expect, it } from 'vitest'
import { clinicalNote, adviceOf, judgement, noteText, publicVerdict } from '../src/index.js'
import { calm, entriesFor, exam, judged, thePack, type Findings } from './support.js'

const advice = (findings: Findings): readonly string[] => adviceOf(judged([...calm(), ...entriesFor(findings)])).map((one) => one.id)

describe('what a fact calls for besides the priority', () => {
  const facts: readonly (readonly [id: string, findings: Findings, ordinary: Findings])[] = [
    ['mod.unsafe-home', { 'patient.home-safe': ['alone', 'stairs'] }, { 'patient.home-safe': ['stairs'] }],
    ['mod.cares-for-others', { 'patient.home-safe': ['cares for others'] }, { 'patient.home-safe': ['safe, supported'] }],
    ['mod.interpreter', { 'patient.interpreter': 'relative only' }, { 'patient.interpreter': 'by telephone' }],
    ['mod.steroid-mask', { 'patient.immunosuppressed': ['corticosteroid daily over 4 weeks'] }, { 'patient.immunosuppressed': ['none'] }],
    ['mod.senior-first', { 'story.visits': 2 }, { 'story.visits': 1 }],
    ['mod.think-again', { 'story.care-weeks': 6 }, { 'story.care-weeks': 5 }],
    ['mod.operating-unit', { 'patient.prosthesis-here': 'total' }, { 'patient.prosthesis-here': 'none' }],
    ['mod.fitness', { 'patient.work-at-risk': 'present' }, { 'patient.work-at-risk': 'absent' }],
    ['mod.pregnancy-imaging', { 'patient.pregnant': 'possible' }, { 'patient.pregnant': 'no' }],
    ['mod.pregnancy-drugs', { 'patient.pregnant': 'yes' }, { 'patient.pregnant': 'postpartum-6w' }],
    ['mod.anticoagulant-plan', { 'patient.anticoagulant': ['direct oral anticoagulant'] }, { 'patient.anticoagulant': ['none'] }],
    ['mod.guardian', { 'patient.age-years': 15 }, { 'patient.age-years': 16 }],
  ]

  it.each(facts)('%s is said when it is so, and not otherwise', (id, findings, ordinary) => {
    expect(advice(findings)).toContain(id)
    expect(advice(ordinary)).not.toContain(id)
  })

  it('is all of what the pack has to say, and nothing of a calm knee', () => {
    const known = thePack().modifiers.flatMap(({ id, effect }) => ('says' in effect ? [id] : []))
    expect([...new Set(known)].sort()).toEqual(facts.map(([id]) => id).sort())
    expect(advice({})).toEqual([])
  })

  it('is silent while nobody has asked', () => expect(adviceOf(judged([]))).toEqual([]))

  it('moves no priority, and stands in the note with its reason', () => {
    const home: Findings = { 'patient.home-safe': ['alone', 'no telephone'] }
    const { verdict } = judged([...calm(), ...entriesFor(home)])
    expect([verdict.floor, verdict.ceiling]).toEqual(['here', 'here'])
    const examination = exam([...calm(), ...entriesFor(home)])
    expect(noteText(clinicalNote(judgement(thePack(), examination)))).toContain(
      'Also consider\n  Unsafe discharge circumstances: Not home as things are: admission, or hospital-at-home review the same day.',
    )
    expect(publicVerdict(judgement(thePack(), examination))).toMatchObject({ advice: [{ id: 'mod.unsafe-home' }] })
  })
})
