import { describe, expect, it } from 'vitest'
import { checkEntries, clinicalNote, examinedNormal, itemsById, judgement, normalByKey, sidesOf, viewOf, type FindingEntry, type Side } from '../src/index.js'
import { AS_OF, calm, entriesFor, exam, newId, theKnee, thePack, type Findings } from './support.js'

const recorder = { by: 'dr', at: AS_OF, newId }
const sidesIn = (region: string): readonly Side[] => (viewOf(thePack(), region).regions[0].side ? ['right'] : ['right', 'left'])
const noteOf = (region: string, entries: readonly FindingEntry[]) => {
  const examination = { complaint: { region, sides: sidesIn(region) }, asOf: AS_OF, setting: 'primary-care' as const, entries }
  return clinicalNote(judgement(thePack(), examination))
}
const linesOf = (region: string, entries: readonly FindingEntry[], heading: string): readonly string[] =>
  noteOf(region, entries).find((section) => section.heading === heading)?.lines ?? []
const knee = (findings: Findings, heading: string): readonly string[] => linesOf('knee', entriesFor(findings), heading)

describe('a finding in the note', () => {
  it('stands in one line with the other side, the sore side first', () => {
    expect(
      knee(
        { 'knee.test.lachman': { value: 8, qualifiers: { 'end-point': 'soft' } }, 'knee.test.lachman left': { value: 2, qualifiers: { 'end-point': 'firm' } } },
        'Special tests',
      ),
    ).toEqual(['Lachman test: right 8 mm, soft end point; left 2 mm, firm end point (6 mm more than left)'])
    // However the readings were stored.
    const bend = { qualifiers: { passive: 125, active: 120 } }
    expect(knee({ 'knee.move.flexion': bend, 'knee.move.flexion left': bend }, 'Movement')).toEqual(['Knee flexion: active 120°, passive 125° on both sides'])
  })

  it('is not called normal on the side where it is not, nor on a side that was not examined', () => {
    expect(knee({ 'knee.feel.calf': '2', 'knee.feel.calf left': '0' }, 'Palpation')).toEqual(['Calf tenderness: right 2 (moderate); left 0 (none)'])
    expect(knee({ 'knee.feel.calf': '0' }, 'Palpation')).toEqual(['Examined and normal, right only: Calf tenderness'])
    expect(knee({ 'knee.feel.calf': '0', 'knee.feel.calf left': '0' }, 'Palpation')).toEqual(['Examined and normal, both sides: Calf tenderness'])
  })

  it('that is nothing to worry about but not the plain word is told, not called normal', () => {
    expect(knee({ 'knee.look.skin': 'scar' }, 'Inspection')).toEqual(['Skin: right scar'])
    expect(knee({ 'knee.look.skin': 'normal' }, 'Inspection')).toEqual(['Examined and normal, right only: Skin'])
  })

  it('that could not be had says why', () => {
    expect(knee({ 'knee.test.mcmurray': { state: 'not-valid', reason: 'guarding' } }, 'Special tests')).toEqual(['McMurray test: right not valid (guarding)'])
  })
})

describe('a phrase of the note', () => {
  it('is said of a side when all that it covers was examined there, the rest by name', () => {
    const lines = { 'knee.feel.medial-joint-line': '0', 'knee.feel.lateral-joint-line': '0' } as const
    expect(knee(lines, 'Palpation')).toEqual(['Right: Joint lines not tender.'])
    expect(knee({ ...lines, 'knee.feel.medial-joint-line left': '0' }, 'Palpation')).toEqual([
      'Right: Joint lines not tender.',
      'Examined and normal, left only: Medial joint-line tenderness',
    ])
  })

  it('calls no laxity firm and equal that was measured, or not compared', () => {
    const firm = { qualifiers: { 'end-point': 'firm', equal: true } }
    const others = { 'knee.test.valgus-30': firm, 'knee.test.varus-30': firm, 'knee.test.step-off': 'normal' } as const
    expect(knee({ ...others, 'knee.test.lachman': firm }, 'Special tests').join()).toContain('Right: Lachman firm and equal')
    for (const lachman of [{ value: 6, ...firm }, { qualifiers: { 'end-point': 'firm' } }, { qualifiers: { 'end-point': 'firm', equal: false } }])
      expect(knee({ ...others, 'knee.test.lachman': lachman }, 'Special tests').join()).not.toContain('Lachman firm and equal')
  })

  it.each(thePack().regions.map((region) => region.id))('of %s is said of a calm joint, and not once one of its findings is missing', (region) => {
    const view = viewOf(thePack(), region)
    const items = itemsById(view)
    const calm = examinedNormal(view, ['core', 'prompted', 'on-demand'], recorder)
    const said = view.phrases.filter((phrase) => phrase.covers.length > 0 && !phrase.when)
    const text = (entries: readonly FindingEntry[]): string =>
      noteOf(region, entries)
        .flatMap((section) => section.lines)
        .join('\n')
    expect(said.length).toBeGreaterThan(3)
    const whole = text(calm)
    for (const { says, covers } of said) {
      expect(whole).toContain(says)
      const covered = calm.filter((entry) => covers.includes(entry.item))
      expect(text(covered)).toContain(says)
      for (const id of covers) expect(text(covered.filter((entry) => entry.item !== id)), `${says} without ${items.get(id)?.label ?? id}`).not.toContain(says)
    }
  })
})

describe('the outcome of the Ottawa rules in the note', () => {
  const turned: Findings = { 'story.trauma': 'present', 'patient.age-years': 30, 'story.onset-at': { value: AS_OF, qualifiers: { precision: 'hour' } } }
  const bones = ['lateral-malleolus-posterior', 'lateral-malleolus-tip', 'medial-malleolus-posterior', 'medial-malleolus-tip'].map(
    (bone) => `ankle.feel.${bone}`,
  )
  const points = Object.fromEntries([...bones, 'foot.feel.fifth-metatarsal-base', 'foot.feel.navicular'].map((id) => [id, '0']))
  const told = {
    ...turned,
    ...points,
    'screen.weight-bearing-steps': 'freely',
    'patient.cognition': 'yes',
    'patient.intoxicated': 'absent',
    'patient.limb-block': 'absent',
    'patient.neuropathy': 'absent',
    'story.distracting-injury': 'absent',
    'story.head-injury': 'absent',
  } as const
  const outcomes = (findings: Findings): readonly string[] =>
    linesOf('ankle', entriesFor(findings, 'right', AS_OF, 'ankle'), 'Rules and scores').filter((line) => line.includes('Ottawa'))

  it('is told once it is settled either way', () => {
    expect(outcomes(told)).toEqual(['Right: Ottawa ankle and foot rules negative.'])
    expect(outcomes({ ...told, 'ankle.feel.lateral-malleolus-tip': '2' })).toEqual(['Right: Ottawa ankle or foot rule positive: radiograph.'])
  })
  it('is not told while one of its bones was not felt, nor without an injury', () => {
    const { 'foot.feel.navicular': _, ...unseen } = told as Findings
    expect(outcomes(unseen)).toEqual([])
    expect(outcomes({ ...told, 'story.trauma': 'absent' })).toEqual([])
  })
})

describe('what is still open in the note', () => {
  it('stands whole, a line for each suspicion, with how urgent it could still make it', () => {
    const lines = knee({ 'story.trauma': 'present', 'feel.effusion': 'moderate' }, 'Not examined and still open')
    expect(lines.length).toBeGreaterThan(3)
    for (const line of lines) expect(line).toMatch(/^Could still be (Now|Today|Days|Weeks|Routine), [^:]+: .+/)
    expect(lines.join()).not.toMatch(/more$/)
  })
  it('names every core item that nobody examined, stop by stop', () => {
    const labels = theKnee().items.filter(({ depth, id }) => depth === 'core' && id !== 'knee.move.flexion')
    const lines = knee({ 'knee.move.flexion': { value: 'normal' }, 'knee.move.flexion left': { value: 'normal' } }, 'Not examined').join('\n')
    for (const { label } of labels) expect(lines).toContain(label)
    expect(lines).not.toContain('Knee flexion;')
  })
  it('is not headed by its floor', () => {
    expect(knee({ 'knee.feel.calf': '0' }, 'Priority')[0]).toMatch(/^Not settled: Here to Now/)
  })
})

describe('a range that was found normal and not measured', () => {
  it('is told as full and equal by visual estimate, never by a number', () => {
    const full = { value: 'normal' }
    expect(knee({ 'knee.move.flexion': full, 'knee.move.flexion left': full }, 'Movement')).toEqual(['Full and equal, visual estimate: Knee flexion'])
    expect(knee({ 'knee.move.flexion': full }, 'Movement')).toEqual(['Full, visual estimate, right only: Knee flexion'])
    expect(knee({ 'knee.move.flexion': full, 'knee.move.flexion left': { qualifiers: { active: 100, passive: 110 } } }, 'Movement')).toEqual([
      'Knee flexion: right full, visual estimate; left active 100°, passive 110° (left restriction of the joint, and the active range lags: muscle, tendon or nerve as well)',
    ])
  })
  it.each(thePack().regions.map((region) => region.id))('leaves no number in the note of a %s whose core was answered by the key alone', (region) => {
    const view = viewOf(thePack(), region)
    const entries = view.items
      .filter(({ depth }) => depth === 'core')
      .flatMap((item) => {
        const normal = normalByKey(item)
        return normal
          ? sidesOf(item).map((side): FindingEntry => ({ id: newId(), item: item.id, side, state: 'examined', ...normal, by: 'dr', at: AS_OF }))
          : []
      })
    expect(checkEntries(view, entries)).toEqual([])
    for (const { value, qualifiers = {} } of entries) expect([value, ...Object.values(qualifiers)].filter((one) => typeof one === 'number')).toEqual([])
  })
})

describe('six different things', () => {
  const film = (value: string | object): readonly string[] => knee({ 'knee.imaging.film': value }, 'Imaging and results')
  it('not done, could not, not valid, normal and abnormal read differently, and not examined stands elsewhere', () => {
    expect(film(['not done'] as never)).toEqual(['Radiograph of this joint (X-ray): right not done'])
    expect(film(['normal'] as never).join()).toMatch(/^Examined and normal.*X-ray/)
    expect(film(['fracture'] as never)).toEqual(['Radiograph of this joint (X-ray): right fracture'])
    expect(film({ state: 'could-not', reason: 'declined' })).toEqual(['Radiograph of this joint (X-ray): right could not be done (declined)'])
    expect(film({ state: 'not-valid', reason: 'rotated' })).toEqual(['Radiograph of this joint (X-ray): right not valid (rotated)'])
    expect(knee({}, 'Imaging and results')).toEqual([])
  })
  it('a film that was not done excludes nothing: rules read it as not known', () => {
    const judgedWith = (film: object): string => {
      const entries = [...calm(), ...entriesFor({ 'story.trauma': 'present', 'screen.weight-bearing-steps': 'cannot', ...film })]
      return judgement(thePack(), exam(entries)).verdict.ceiling
    }
    expect(judgedWith({ 'knee.imaging.film': ['not done'] })).toBe(judgedWith({}))
  })
  it('what was asked and is not known is neither denied nor confirmed', () => {
    expect(knee({ 'story.steps-at-once': 'not known' }, 'History')).toEqual(['Weight-bearing (4 steps) at the time: not known'])
  })
})

describe('what came from a file', () => {
  it('is told in the note with who read it and who is said to have recorded it', () => {
    const entries = calm().map((one, at): FindingEntry => (at < 3 ? { ...one, by: 'Dr Quill', saidBy: 'Dr Enid Skua' } : one))
    const told = clinicalNote(judgement(thePack(), exam(entries))).find(({ heading }) => heading === 'From a file')
    expect(told?.lines).toEqual(['3 findings read by Dr Quill, said to be recorded by Dr Enid Skua'])
    expect(clinicalNote(judgement(thePack(), exam(calm()))).some(({ heading }) => heading === 'From a file')).toBe(false)
  })
})
