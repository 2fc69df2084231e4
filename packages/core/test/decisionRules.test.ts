import { describe, expect, it } from 'vitest'
import { calcVerdicts, examinedNormal, judgement, viewOf } from '../src/index.js'
import { AS_OF, calmRecord, daysAgo, entriesFor, newId, packWith, thePack, type Findings } from './support.js'

/** True, false, or not examined. */
type Known = boolean | undefined
const T = true
const F = false
const U = undefined

interface Question {
  readonly item: string
  readonly yes: Findings[string]
  readonly no: Findings[string]
}

/** What a rule says when everything else of a calm, freshly injured joint is known: each question answered yes, no, or left out. */
function ruleSays(
  region: string,
  rule: string,
  questions: readonly Question[],
  row: readonly Known[],
  told: Findings = {},
  age = 30,
  pack = thePack(),
): string | undefined {
  const asked = new Set(questions.map(({ item }) => item.split(' ')[0] ?? ''))
  const given: Findings = Object.fromEntries(questions.flatMap(({ item, yes, no }, at) => (row[at] === undefined ? [] : [[item, row[at] ? yes : no] as const])))
  const record = [
    ...examinedNormal(viewOf(pack, region), ['prompted', 'on-demand'], { by: 'test', at: '2026-03-10T07:00:00.000Z', newId }),
    ...calmRecord(viewOf(pack, region), age),
    ...entriesFor({ 'story.trauma': 'present', 'story.onset-at': daysAgo(1), 'patient.age-years': age, ...told }, 'right', AS_OF, region),
  ].filter((entry) => !asked.has(entry.item))
  const side = pack.regions.find((one) => one.id === region)?.side ? 'right' : 'none'
  const entries = [...record, ...entriesFor(given, 'right', AS_OF, region)]
  return calcVerdicts(judgement(pack, { complaint: { region, sides: [side] }, asOf: AS_OF, entries })).find((calc) => calc.id === rule)?.value
}

const tender = (item: string): Question => ({ item, yes: '2', no: '0' })
const steps: readonly Question[] = [
  { item: 'story.steps-at-once', yes: 'no', no: 'yes' },
  { item: 'screen.weight-bearing-steps', yes: 'cannot', no: 'freely' },
]

/** The walking step of the ankle and foot rules as it was published; the pack's own reading is the safer one. */
const published = (region: string) => packWith(region, { choices: [{ region, topic: 'Steps in the Ottawa rule', choice: 'both then and now' }] })

describe('the ankle film rule', () => {
  const questions = [tender('ankle.feel.lateral-malleolus-posterior'), tender('ankle.feel.medial-malleolus-tip'), ...steps]
  it.each<[Known, Known, Known, Known, string]>([
    [T, U, U, U, 'met'],
    [F, F, T, T, 'met'],
    [F, F, F, T, 'met'],
    [F, F, U, T, 'met'],
    [F, F, T, F, 'not-met'],
    [F, F, F, F, 'not-met'],
    [F, F, T, U, 'unknown'],
    [F, F, F, U, 'unknown'],
    [F, U, U, F, 'unknown'],
  ])('outer bone %s, inner bone %s, no steps then %s, none now %s: %s', (...row) => {
    expect(ruleSays('ankle', 'ankle.calc.ottawa', questions, row.slice(0, 4) as Known[])).toBe(row[4])
  })
  const asPublished = published('ankle')
  it.each<[Known, Known, Known, Known, string]>([
    [T, U, U, U, 'met'],
    [U, T, U, U, 'met'],
    [F, F, T, T, 'met'],
    [F, F, T, F, 'not-met'],
    [F, F, F, T, 'not-met'],
    [F, F, F, F, 'not-met'],
    [F, F, U, T, 'unknown'],
    [F, F, T, U, 'unknown'],
    [F, F, U, F, 'not-met'],
    [F, F, F, U, 'not-met'],
    [F, F, U, U, 'unknown'],
    [U, F, F, U, 'unknown'],
    [F, U, U, F, 'unknown'],
    [U, U, T, T, 'met'],
  ])('as published, outer bone %s, inner bone %s, no steps then %s, none now %s: %s', (...row) => {
    expect(ruleSays('ankle', 'ankle.calc.ottawa', questions, row.slice(0, 4) as Known[], {}, 30, asPublished)).toBe(row[4])
  })
  it.each(['patient.intoxicated', 'patient.limb-block', 'patient.neuropathy'])('says nothing where the wince cannot be relied on: %s', (item) => {
    expect(ruleSays('ankle', 'ankle.calc.ottawa', questions, [F, F, F, F], { [item]: 'present' })).toBe('unknown')
  })
  it('says nothing of a child under five, nor after ten days', () => {
    expect(ruleSays('ankle', 'ankle.calc.ottawa', questions, [F, F, F, F], {}, 4)).toBe('unknown')
    expect(ruleSays('ankle', 'ankle.calc.ottawa', questions, [F, F, F, F], { 'story.onset-at': daysAgo(12) })).toBe('unknown')
  })
})

// Not carrying now is enough here: the safer reading, said so in the content.
describe('the foot film rule', () => {
  const questions = [tender('foot.feel.fifth-metatarsal-base'), tender('foot.feel.navicular'), ...steps]
  it.each<[Known, Known, Known, Known, string]>([
    [T, U, U, U, 'met'],
    [U, T, U, U, 'met'],
    [F, F, T, T, 'met'],
    [F, F, F, T, 'met'],
    [F, F, U, T, 'met'],
    [F, F, F, F, 'not-met'],
    [F, U, F, U, 'unknown'],
    [U, F, T, F, 'unknown'],
  ])('fifth %s, navicular %s, no steps then %s, none now %s: %s', (...row) => {
    expect(ruleSays('foot', 'foot.calc.ottawa', questions, row.slice(0, 4) as Known[])).toBe(row[4])
  })
  const asPublished = published('foot')
  it.each<[Known, Known, string]>([
    [T, T, 'met'],
    [F, T, 'not-met'],
    [T, F, 'not-met'],
    [U, T, 'unknown'],
    [F, U, 'not-met'],
  ])('as published, no bone sore, no steps then %s, none now %s: %s', (then, now, says) => {
    expect(ruleSays('foot', 'foot.calc.ottawa', questions, [F, F, then, now], {}, 30, asPublished)).toBe(says)
  })
})

describe('the blunt-injury knee rule', () => {
  const questions: readonly Question[] = [
    { item: 'knee.history.mechanism', yes: ['fall onto the knee'], no: ['no injury'] },
    { item: 'patient.age-years', yes: 62, no: 30 },
    { item: 'screen.weight-bearing-steps', yes: 'cannot', no: 'freely' },
  ]
  it.each<[Known, Known, Known, string]>([
    [F, U, U, 'not-met'],
    [T, T, U, 'met'],
    [T, F, T, 'met'],
    [T, F, F, 'not-met'],
    [T, F, U, 'unknown'],
    [U, T, U, 'unknown'],
    [U, F, F, 'not-met'],
    [U, F, T, 'unknown'],
  ])('blow or fall %s, age %s, no steps %s: %s', (...row) => {
    expect(ruleSays('knee', 'knee.calc.pittsburgh', questions, row.slice(0, 3) as Known[])).toBe(row[3])
  })
  it('films a child of eleven and leaves one of twelve to the steps', () => {
    const after = (age: number) =>
      ruleSays('knee', 'knee.calc.pittsburgh', [questions[2] as Question], [F], { 'knee.history.mechanism': ['fall onto the knee'] }, age)
    expect([after(11), after(12), after(50), after(51)]).toEqual(['met', 'not-met', 'not-met', 'met'])
  })
})

describe('the first neck rule: danger, then a low-risk sign, then turning', () => {
  const usable: Findings = {
    'vitals.consciousness': 'alert',
    'neck.history.penetrating': 'absent',
    'patient.cervical-disorder': ['none'],
    'patient.pregnant': 'not-applicable',
    'neck.screen.four-limbs': 'normal in all',
    'neck.history.dangerous-mechanism': ['none'],
    'neck.history.sat-or-walked': ['none'],
    'neck.history.pain-delayed': 'immediate',
    'neck.feel.midline': '2',
  }
  const questions: readonly Question[] = [
    { item: 'neck.history.extremity-paraesthesia', yes: 'present', no: 'absent' },
    { item: 'neck.history.simple-rear-end', yes: 'present', no: 'absent' },
    { item: 'neck.move.rotation right', yes: 60, no: 40 },
    { item: 'neck.move.rotation left', yes: 60, no: 40 },
  ]
  const says = (row: readonly Known[], told: Findings = {}, age = 30) => ruleSays('neck', 'neck.calc.ccr', questions, row, { ...usable, ...told }, age)
  it.each<[Known, Known, Known, Known, string]>([
    [T, U, U, U, 'image'],
    [F, F, U, U, 'image'],
    [F, T, T, T, 'no image'],
    [F, T, F, T, 'image'],
    [F, T, T, F, 'image'],
    [F, T, U, T, 'unknown'],
    [U, T, T, T, 'unknown'],
    [F, U, T, T, 'unknown'],
    [U, F, U, U, 'image'],
    [F, T, U, F, 'image'],
  ])('danger %s, low risk %s, right %s, left %s: %s', (...row) => {
    expect(says(row.slice(0, 4) as Known[])).toBe(row[4])
  })
  it('images from 65 on, and is not usable under 16 or where the patient is not alert', () => {
    expect(says([F, T, T, T], {}, 65)).toBe('image')
    expect(says([F, T, T, T], {}, 64)).toBe('no image')
    expect(says([F, T, T, T], {}, 15)).toBe('not usable')
    expect(says([F, T, T, T], { 'vitals.consciousness': 'responds to voice' })).toBe('not usable')
  })
})

describe('the second neck rule: five items', () => {
  const questions: readonly Question[] = [
    { item: 'neck.feel.midline', yes: '2', no: '0' },
    { item: 'patient.intoxicated', yes: 'present', no: 'absent' },
    { item: 'vitals.consciousness', yes: 'new confusion', no: 'alert' },
    { item: 'neck.history.distracting', yes: 'present', no: 'absent' },
  ]
  it('clears only when every item is known absent', () => {
    expect(ruleSays('neck', 'neck.calc.nexus', questions, [F, F, F, F])).toBe('no image')
  })
  it.each(questions.map((one, at) => [one.item, at] as const))('images for one alone, and is not known while it is not: %s', (_item, at) => {
    const others = (known: Known): Known[] => questions.map((_one, other) => (other === at ? known : F))
    expect(ruleSays('neck', 'neck.calc.nexus', questions, others(T))).toBe('image')
    expect(ruleSays('neck', 'neck.calc.nexus', questions, others(U))).toBe('unknown')
  })
})

describe('scores are ranges until every part is known', () => {
  const kocher: readonly Question[] = [
    { item: 'screen.weight-bearing-steps', yes: 'cannot', no: 'freely' },
    { item: 'vitals.temperature', yes: 38.7, no: 37 },
    { item: 'lab.esr', yes: 45, no: 10 },
    { item: 'lab.white-cells', yes: 12.1, no: 10.5 },
  ]
  it.each<[Known, Known, Known, Known, string]>([
    [T, T, T, F, '3'],
    [T, F, U, T, '2 to 3'],
    [F, F, F, F, '0'],
    [T, U, U, U, '1 to 4'],
  ])('a child`s hip: no weight %s, hot %s, ESR %s, white cells %s: %s', (...row) => {
    expect(ruleSays('hip', 'hip.calc.kocher', kocher, row.slice(0, 4) as Known[], { 'story.trauma': 'absent' }, 6)).toBe(row[4])
  })
  const gout: readonly Question[] = [
    { item: 'patient.sex', yes: 'male', no: 'female' },
    { item: 'foot.history.previous-gout', yes: 'crystal-proven', no: 'none' },
    { item: 'story.onset-speed', yes: 'under 24 h', no: 'weeks' },
    { item: 'foot.look.erythema', yes: ['first MTP joint'], no: ['none'] },
    { item: 'foot.history.cardiovascular', yes: 'present', no: 'absent' },
    { item: 'foot.lab.urate', yes: 0.42, no: 0.3 },
  ]
  it.each<[Known, Known, Known, Known, Known, Known, string]>([
    [T, T, T, T, T, T, '13'],
    [T, F, T, T, F, U, '6 to 9.5'],
    [F, F, F, F, F, F, '0'],
  ])('gout: man %s, before %s, in a day %s, first toe joint red %s, heart %s, urate %s: %s', (...row) => {
    expect(ruleSays('foot', 'foot.calc.gout', gout, row.slice(0, 6) as Known[], { 'story.trauma': 'absent' })).toBe(row[6])
  })
  const vitals = (more: Findings): Findings => ({ 'vitals.oxygen': 'absent', ...more })
  it('early warning: 7 for fast, breathless, low pressure and warm; 3 for new confusion alone', () => {
    const ill = {
      'vitals.resp-rate': 22,
      'vitals.spo2': 95,
      'vitals.systolic': 105,
      'vitals.heart-rate': 112,
      'vitals.consciousness': 'alert',
      'vitals.temperature': 38.2,
    }
    expect(ruleSays('knee', 'calc.news2', [], [], vitals(ill))).toBe('7')
    const confused = {
      ...ill,
      'vitals.resp-rate': 20,
      'vitals.spo2': 96,
      'vitals.systolic': 118,
      'vitals.heart-rate': 88,
      'vitals.consciousness': 'new confusion',
      'vitals.temperature': 37,
    }
    expect(ruleSays('knee', 'calc.news2', [], [], vitals(confused))).toBe('3')
  })
  it.each<[string, number, number]>([
    ['vitals.resp-rate', 8, 3],
    ['vitals.resp-rate', 9, 1],
    ['vitals.resp-rate', 12, 0],
    ['vitals.resp-rate', 21, 2],
    ['vitals.resp-rate', 25, 3],
    ['vitals.spo2', 91, 3],
    ['vitals.spo2', 93, 2],
    ['vitals.spo2', 95, 1],
    ['vitals.systolic', 90, 3],
    ['vitals.systolic', 100, 2],
    ['vitals.systolic', 110, 1],
    ['vitals.systolic', 220, 3],
    ['vitals.heart-rate', 40, 3],
    ['vitals.heart-rate', 50, 1],
    ['vitals.heart-rate', 91, 1],
    ['vitals.heart-rate', 111, 2],
    ['vitals.heart-rate', 131, 3],
    ['vitals.temperature', 35, 3],
    ['vitals.temperature', 36, 1],
    ['vitals.temperature', 38, 0],
    ['vitals.temperature', 38.1, 1],
    ['vitals.temperature', 39.1, 2],
  ])('early warning at its edges: %s %s gives %s', (item, value, points) => {
    const well = {
      'vitals.resp-rate': 16,
      'vitals.spo2': 98,
      'vitals.systolic': 125,
      'vitals.heart-rate': 75,
      'vitals.consciousness': 'alert',
      'vitals.temperature': 37,
    }
    expect(ruleSays('knee', 'calc.news2', [], [], vitals({ ...well, [item]: value }))).toBe(String(points))
  })
})
