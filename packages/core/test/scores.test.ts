import { describe, expect, it } from 'vitest'
import { calcVerdicts, judgement, scoreReadings, type Judgement } from '../src/index.js'
import { AS_OF, daysAgo, entriesFor, thePack, type Findings } from './support.js'

function told(region: string, findings: Findings): Judgement {
  const pack = thePack()
  const side = pack.regions.find((one) => one.id === region)?.side ? 'right' : 'none'
  return judgement(pack, { complaint: { region, sides: [side] }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) })
}

const valueOf = (region: string, calc: string, findings: Findings): string | undefined =>
  calcVerdicts(told(region, findings)).find((one) => one.id === calc)?.value

describe('the blood score of necrotising infection', () => {
  const labs: Findings = { 'lab.crp': 180, 'lab.white-cells': 18, 'lab.haemoglobin': 120, 'lab.sodium': 133, 'lab.creatinine': 120, 'lab.glucose': 8 }
  it('is 8 with high CRP, some white cells, a little anaemia and low sodium', () => expect(valueOf('knee', 'calc.lrinec', labs)).toBe('8'))
  it('is a range while bloods are missing, and never nought for them', () => {
    expect(valueOf('knee', 'calc.lrinec', {})).toBe('0 to 13')
    expect(valueOf('knee', 'calc.lrinec', { 'lab.crp': 180 })).toBe('4 to 13')
  })
})

describe('the arm clot score', () => {
  const known: Findings = { 'story.arm-swelling': 'present', 'vascular.arm-vein-tenderness': 'absent', 'story.alternative-diagnosis-arm-dvt': 'less likely' }
  it('is 2 for a line and one-sided swelling', () => expect(valueOf('shoulder', 'calc.constans', { ...known, 'patient.indwelling-line': 'present' })).toBe('2'))
  it('may fall by one while another diagnosis is undecided', () =>
    expect(
      valueOf('shoulder', 'calc.constans', { 'patient.indwelling-line': 'present', 'story.arm-swelling': 'present', 'vascular.arm-vein-tenderness': 'absent' }),
    ).toBe('1 to 2'))
})

describe('loose joints, of nine', () => {
  const sides = (item: string, right: string, left: string): Findings => ({ [`${item} right`]: right, [`${item} left`]: left })
  const six: Findings = {
    ...sides('test.beighton-little-finger', 'present', 'present'),
    ...sides('test.beighton-thumb', 'present', 'present'),
    ...sides('test.beighton-knee', 'present', 'present'),
    ...sides('test.beighton-elbow', 'absent', 'absent'),
    'test.beighton-palms': 'absent',
  }
  const four = { ...six, ...sides('test.beighton-knee', 'absent', 'absent') }
  const loose = (age: number, findings: Findings): string | undefined => valueOf('knee', 'calc.hypermobility', { 'patient.age-years': age, ...findings })
  it('six of nine at 30 is loose', () => {
    expect(valueOf('knee', 'calc.beighton', six)).toBe('6')
    expect(loose(30, six)).toBe('met')
  })
  it('an elbow that nobody looked at leaves four to five', () => {
    const unseen = { ...four, 'test.beighton-elbow right': undefined as never, 'test.beighton-elbow left': 'absent' }
    const { 'test.beighton-elbow right': _, ...rest } = unseen
    expect(valueOf('knee', 'calc.beighton', rest)).toBe('4 to 5')
  })
  it('four of nine is enough at 55, not at 30 without the five questions', () => {
    expect(loose(55, four)).toBe('met')
    expect(loose(30, { ...four, 'story.hypermobility-questionnaire': 0 })).toBe('not-met')
    expect(loose(30, { ...four, 'story.hypermobility-questionnaire': 2 })).toBe('met')
  })
  it('six is what a child needs', () => expect([loose(9, six), loose(9, { ...four, 'story.hypermobility-questionnaire': 0 })]).toEqual(['met', 'not-met']))
})

describe('regional pain', () => {
  const kinds = ['sensory', 'vasomotor', 'sudomotor or oedema', 'motor or trophic']
  const criteria = (symptoms: number, signs: number): Findings => ({
    'story.trauma': 'present',
    'story.onset-at': daysAgo(40),
    'screen.pain-disproportion': 'present',
    'story.alternative-diagnosis': 'no',
    'story.crps-symptoms': kinds.slice(0, symptoms),
    'screen.crps-signs': kinds.slice(0, signs),
  })
  it.each([
    [3, 2, 'met', 'not-met'],
    [3, 1, 'not-met', 'not-met'],
    [4, 2, 'met', 'met'],
    [2, 2, 'not-met', 'not-met'],
  ])('%d kinds told, %d seen: clinical %s, research %s', (symptoms, signs, clinical, research) => {
    expect(valueOf('wrist', 'calc.budapest', criteria(symptoms, signs))).toBe(clinical)
    expect(valueOf('wrist', 'calc.budapest-research', criteria(symptoms, signs))).toBe(research)
  })
  it('another diagnosis that explains it takes it away', () =>
    expect(valueOf('wrist', 'calc.budapest', { ...criteria(4, 4), 'story.alternative-diagnosis': 'fully' })).toBe('not-met'))
  it('is seen within days while it rises after a break', () => {
    const flag = told('wrist', { ...criteria(3, 2), 'story.pain-trend': 'worse' }).verdict.flags.find((one) => one.id === 'any.flag.crps')
    expect(flag?.baseTier).toBe('days')
  })
})

describe('inflammation', () => {
  it('rheumatoid: four small joints, low antibodies, raised CRP, eight weeks make 7', () =>
    expect(
      valueOf('hand', 'calc.rheumatoid', {
        'story.joint-pattern': '4 to 10 small',
        'lab.serology': 'low positive',
        'lab.crp': 30,
        'story.onset-at': daysAgo(56),
      }),
    ).toBe('7'))
  it('polymyalgia: stiff for an hour, hips, no antibodies, no other joint make 6', () =>
    expect(
      valueOf('shoulder', 'calc.pmr-score', {
        'patient.age-years': 70,
        'story.girdle-pain': 'present',
        'story.morning-stiffness-min': 60,
        'story.hip-girdle': 'present',
        'lab.serology': 'negative',
        'story.joints-count': 1,
      }),
    ).toBe('6'))
  it.each<[string, Findings, string]>([
    ['carditis and many joints', { 'screen.murmur': 'present', 'story.joint-course': 'simultaneous, several' }, 'met'],
    ['many joints, fever and CRP', { 'screen.murmur': 'absent', 'story.joint-course': 'migratory', 'vitals.temperature': 38.6, 'lab.crp': 40 }, 'met'],
    [
      'many joints and fever: the joints are not counted twice',
      {
        'screen.murmur': 'absent',
        'story.joint-course': 'simultaneous, several',
        'story.rheumatic-signs': ['none'],
        'vitals.temperature': 38.6,
        'lab.crp': 4,
        'lab.esr': 10,
        'bedside.pr-interval': 'normal',
      },
      'not-met',
    ],
  ])('rheumatic fever after a streptococcus: %s', (_, findings, value) =>
    expect(valueOf('knee', 'calc.jones', { 'lab.strep': 'confirmed', 'patient.age-years': 11, ...findings })).toBe(value),
  )
})

describe('a bone about to break', () => {
  const seen = (site: string, pain: string, kind: string, width: string): Findings => ({
    'imaging.bone-lesion': { value: 'seen', qualifiers: { site, pain, kind, width } },
  })
  it('arm, moderate, mixed, half the width: 7', () =>
    expect(valueOf('shoulder', 'calc.mirels', seen('upper limb', 'moderate', 'mixed', 'a third to two thirds'))).toBe('7'))
  it('round the trochanters, on loading, lytic, over two thirds: 12', () =>
    expect(valueOf('hip', 'calc.mirels', seen('peritrochanteric', 'functional', 'lytic', 'over two thirds'))).toBe('12'))
})

describe("a child's hip", () => {
  const child: Findings = { 'patient.age-years': 5, 'screen.weight-bearing-steps': 'cannot' }
  it('three of four', () =>
    expect(valueOf('hip', 'hip.calc.kocher', { ...child, 'vitals.temperature': 38.7, 'lab.esr': 45, 'lab.white-cells': 10.5 })).toBe('3'))
  it('two to three without the ESR', () =>
    expect(valueOf('hip', 'hip.calc.kocher', { ...child, 'vitals.temperature': 37.9, 'lab.white-cells': 12.1 })).toBe('2 to 3'))
  it('five of five with the CRP', () =>
    expect(valueOf('hip', 'hip.calc.kocher-crp', { ...child, 'vitals.temperature': 39, 'lab.esr': 60, 'lab.white-cells': 14, 'lab.crp': 25 })).toBe('5'))
})

describe('film rules', () => {
  const elbow = (found: string): string | undefined =>
    valueOf('elbow', 'elbow.calc.extension-rule', { 'story.trauma': 'present', 'elbow.move.extension-test': found })
  it('an elbow that straightens fully needs no film by the rule', () => expect([elbow('full and equal'), elbow('cannot')]).toEqual(['not-met', 'met']))
  it('and is not known while it was not tried', () => expect(valueOf('elbow', 'elbow.calc.extension-rule', { 'story.trauma': 'present' })).toBe('unknown'))
  const clear: Findings = {
    'patient.age-years': 7,
    'story.trauma': 'present',
    'vitals.consciousness': 'alert',
    'neck.screen.four-limbs': 'normal in all',
    'neck.feel.midline': '0',
    'neck.history.pain-delayed': 'no neck pain',
    'neck.look.head-position': 'midline',
    'neck.history.distracting': 'absent',
    'patient.cervical-disorder': ['none'],
    'neck.history.dangerous-mechanism': ['none'],
  }
  it('a neck of 7 with one of eight factors is imaged', () =>
    expect(valueOf('neck', 'neck.calc.pecarn-2011', { ...clear, 'neck.look.head-position': 'tilted' })).toBe('met'))
})

describe('the scores that are shown', () => {
  it('are those that something speaks for, with what is missing', () => {
    const shown = scoreReadings(told('knee', { 'lab.crp': 180 }))
    expect(shown.find((one) => one.id === 'calc.lrinec')).toMatchObject({ low: 4, high: 13, source: 'Wong 2004; Fernando 2019' })
    expect(shown.some((one) => one.id === 'calc.beighton')).toBe(false)
  })
})
