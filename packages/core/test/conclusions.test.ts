import { describe, expect, it } from 'vitest'
import { clinicalNote, conclusionsOf, itemsById, judgement, publicVerdict, referralLetter, verdictSheetOf, viewOf } from '../src/index.js'
import { EXAMPLES } from './conclusions.examples.js'
import { AS_OF, entriesFor, thePack, type Findings } from './support.js'

const judged = (region: string, findings: Findings, sides: readonly ('right' | 'left' | 'none')[] = ['right']) =>
  judgement(thePack(), { complaint: { region, sides }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) })
const said = (region: string, findings: Findings, sides?: readonly ('right' | 'left' | 'none')[]): string[] =>
  conclusionsOf(judged(region, findings, sides)).map(({ id }) => id.replace(/^.*\.conclusion\./, ''))
const er = (active: number, passive: number) => ({ qualifiers: { active, passive } })

describe('what several findings mean', () => {
  it.each<[string, string, Findings, readonly string[]]>([
    ['a tense knee that cannot be wiped', 'knee', { 'feel.patellar-tap': 'present', 'feel.bulge': 'absent' }, ['effusion-large']],
    ['a wipe alone', 'knee', { 'feel.patellar-tap': 'absent', 'feel.cross-fluctuation': 'absent', 'feel.bulge': 'present' }, ['effusion-small']],
    ['a wipe alone, the tap not done', 'knee', { 'feel.bulge': 'present' }, []],
    [
      'opening straight and bent',
      'knee',
      { 'test.valgus-30': 7, 'test.valgus-30 left': 1, 'test.valgus-0': 5, 'test.valgus-0 left': 1 },
      ['medial-full', 'medial-grade-2'],
    ],
    [
      'opening bent only, by exactly the error',
      'knee',
      { 'test.valgus-30': 5, 'test.valgus-30 left': 2, 'test.valgus-0': 3, 'test.valgus-0 left': 1 },
      ['medial-alone', 'medial-grade-1'],
    ],
    ['opening inside the error', 'knee', { 'test.valgus-30': 4, 'test.valgus-30 left': 2, 'test.valgus-0': 1, 'test.valgus-0 left': 1 }, []],
    ['a lag with a free joint', 'knee', { 'move.extension': er(-15, 0) }, ['lag']],
    ['a joint that is not straight either', 'knee', { 'move.extension': er(-15, -12) }, []],
    ['external rotation and elevation lost', 'shoulder', { 'move.er-side': er(18, 20), 'move.flexion': { qualifiers: { active: 95 } } }, ['stiff']],
    ['external rotation kept', 'shoulder', { 'move.er-side': er(55, 60), 'move.flexion': { qualifiers: { active: 95 } } }, []],
    ['an active range that lags', 'shoulder', { 'move.er-side': er(10, 50) }, ['er-lag']],
    [
      'a leg truly shorter',
      'hip',
      { 'look.true-leg-length': 840, 'look.true-leg-length left': 852, 'look.apparent-leg-length': 930, 'look.apparent-leg-length left': 942 },
      ['true-short'],
    ],
    [
      'a leg that only looks shorter',
      'hip',
      { 'look.true-leg-length': 850, 'look.true-leg-length left': 852, 'look.apparent-leg-length': 930, 'look.apparent-leg-length left': 945 },
      ['apparent-short'],
    ],
    [
      'nine millimetres',
      'hip',
      { 'look.true-leg-length': 843, 'look.true-leg-length left': 852, 'look.apparent-leg-length': 936, 'look.apparent-leg-length left': 945 },
      ['lengths-equal'],
    ],
    ['true lengths alone', 'hip', { 'look.true-leg-length': 840, 'look.true-leg-length left': 852 }, []],
    ['a claw at rest', 'hand', { 'elbow.look.claw': 'marked clawing' }, ['claw-at-rest']],
    ['the same picture on making a fist', 'hand', { 'elbow.test.benediction': 'index and middle stay extended' }, ['benediction']],
    ['a flat pinch with normal sensation', 'wrist', { 'neuro.test.ok-sign': 'flat pinch (positive)', 'neuro.touch.index-pulp': 'normal' }, ['flat-pinch']],
    ['a flat pinch, sensation not tested', 'wrist', { 'neuro.test.ok-sign': 'flat pinch (positive)' }, []],
  ])('%s', (_, region, findings, expected) => expect(said(region, findings).sort()).toEqual([...expected].sort()))

  it('of a hip that is dislocated, and of one that can be', () => {
    expect(said('infant-hip', { 'test.ortolani': 'reduction clunk' })).toEqual(['ortolani'])
    expect(said('infant-hip', { 'test.ortolani': 'none', 'test.barlow': 'dislocatable' })).toEqual(['barlow'])
    expect(said('infant-hip', { 'test.barlow': 'dislocatable' })).toEqual([])
  })
  it('is told with its numbers and its rivals in note and verdict, shortly in the letter, and to programs', () => {
    const one = judged('shoulder', { 'move.er-side': er(18, 20), 'move.er-side left': er(60, 62), 'move.flexion': { qualifiers: { active: 95 } } })
    const words = 'Glenohumeral stiffness: passive external rotation and elevation lost'
    const note = clinicalNote(one).find(({ heading }) => heading === 'Interpretation')?.lines ?? []
    expect(note.join()).toContain(`${words} (right): `)
    expect(note.join()).toMatch(/20°.*60°.*95°.*Differential: adhesive capsulitis \(Radiograph of this joint: normal\)/)
    expect(verdictSheetOf(one).conclusions).toEqual(note)
    const about = { patient: { name: 'Ada Wick', birthDate: '1970-01-01' }, examiner: 'Dr Brannock', site: 'Quayside' }
    const letter = referralLetter(one, about).paragraphs.find(({ heading }) => heading === 'Interpretation')
    expect(letter?.text).toBe(`${words}, right.`)
    expect(publicVerdict(one)).toMatchObject({ conclusions: [{ id: 'shoulder.conclusion.stiff', side: 'right' }] })
  })
  it('names rivals that are separated by something that the joint can examine', () => {
    for (const { id } of thePack().regions) {
      const view = viewOf(thePack(), id)
      const rivals = view.modifiers.flatMap(({ effect }) => ('concludes' in effect ? (effect.rivals ?? []) : []))
      expect(rivals.filter(({ by }) => !itemsById(view).has(by))).toEqual([])
    }
  })
  const ids = [...new Set(thePack().modifiers.flatMap(({ id, effect }) => ('concludes' in effect ? [id] : [])))]
  it('has an example each, and is written for every joint', () => {
    expect(Object.keys(EXAMPLES).sort()).toEqual(ids.sort())
    const without = thePack().regions.filter(({ id }) => !viewOf(thePack(), id).modifiers.some(({ effect }) => 'concludes' in effect))
    expect(without.map(({ id }) => id)).toEqual([])
  })
  it.each(Object.entries(EXAMPLES))('%s stands on its example, and not on nothing', (id, [region, findings]) => {
    const sides = viewOf(thePack(), region).regions[0].side ? (['right'] as const) : (['none'] as const)
    const of = (told: Findings): string[] => conclusionsOf(judged(region, told, sides)).map((one) => one.id)
    expect(of(findings)).toContain(id)
    expect(of({})).toEqual([])
  })
})

describe('the steps of an effusion', () => {
  const STEPS = ['knee.feel.patellar-tap', 'knee.feel.cross-fluctuation', 'knee.feel.bulge']
  const asked = (findings: Findings): readonly string[] => {
    const { verdict, compiled } = judged('knee', { 'story.swelling-hours': '2 to 24 h', ...findings })
    return STEPS.filter((id) => verdict.asked.level[compiled.index(id)] === 2)
  }
  it('are asked of a knee that swelled, until one is positive or the effusion is graded', () => {
    expect(asked({})).toEqual(STEPS)
    expect(asked({ 'feel.patellar-tap': 'absent' })).toEqual(STEPS)
    expect(asked({ 'feel.patellar-tap': 'present' })).toEqual([])
    expect(asked({ 'feel.effusion': 'moderate' })).toEqual([])
    expect(asked({ 'story.swelling-hours': 'no swelling' })).toEqual([])
  })
})
