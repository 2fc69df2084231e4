import { describe, expect, it } from 'vitest'
import { conditionRanges, judgement, type ConditionRange } from '../src/index.js'
import { AS_OF, entriesFor, thePack, type Findings } from './support.js'

const pack = thePack()
const weighed = (region: string, findings: Findings): readonly ConditionRange[] =>
  conditionRanges(judgement(pack, { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) }))
const chance = (region: string, id: string, findings: Findings): ConditionRange => {
  const found = weighed(region, findings).find((one) => one.id === `${region}.cond.${id}` && one.side === 'right')
  if (!found) throw new Error(`nothing speaks for ${id}`)
  return found
}
/** The ratio that turned the end of the band into what is shown, by its odds. */
const ratioOf = ({ high, estimate }: ConditionRange): number => {
  const [, before] = estimate.prior
  return high / (1 - high) / (before / (1 - before))
}
describe('a published cluster counts whole', () => {
  const three: Findings = {
    'shoulder.test.painful-arc': '60° to 120°',
    'shoulder.test.drop-arm': 'drops (weak)',
    'neuro.strength.shoulder-external-rotation': '4',
  }

  it.each([
    ['three of the full-tear three', 'full-tear', three, 15.6],
    ['two of them, whose figure nobody verified: as far as consensus goes', 'full-tear', { ...three, 'shoulder.test.painful-arc': 'none' }, 5],
    [
      'three of the impingement three',
      'cuff-tendinopathy',
      { 'shoulder.test.painful-arc': '60° to 120°', 'shoulder.test.hawkins': 'lateral (subacromial) pain', 'neuro.strength.shoulder-external-rotation': '4' },
      10.6,
    ],
    ['fear that is eased', 'instability', { 'shoulder.test.apprehension': 'apprehension', 'shoulder.test.relocation': 'relief' }, 33.5],
    [
      'four of the root four',
      'root',
      {
        'neuro.test.spurling': 'arm pain',
        'shoulder.neighbours.cervical-distraction': 'present',
        'shoulder.neighbours.ulnt1': 'familiar pain',
        'shoulder.neighbours.cervical-rotation': 40,
      },
      30.3,
    ],
  ] as const)('%s', (_, id, findings, ratio) => {
    expect(ratioOf(chance('shoulder', id, findings as Findings))).toBeCloseTo(ratio, 1)
  })
  it('its members are not counted beside it, and are not shown as evidence', () => {
    const { evidence } = chance('shoulder', 'full-tear', three)
    expect(evidence.map(({ source }) => source)).toEqual(['Park 2005'])
  })
  it('what is not of the cluster still counts', () => {
    const plain = ratioOf(chance('shoulder', 'full-tear', three))
    expect(ratioOf(chance('shoulder', 'full-tear', { ...three, 'patient.age-years': 70 }))).toBeGreaterThan(plain)
  })
  it('of two clusters that share a finding the stronger stands alone', () => {
    const older: Findings = { ...three, 'patient.age-years': 70, 'story.rest-night-pain': ['wakes at night'] }
    const sources = chance('shoulder', 'full-tear', older).evidence.map(({ source }) => source)
    expect(sources).toContain('Park 2005')
    expect(sources).not.toContain('Litaker 2000')
  })
  it('a cluster that is not complete leaves its members to count by themselves', () => {
    const { evidence } = chance('shoulder', 'full-tear', { 'shoulder.test.drop-arm': 'drops (weak)' })
    expect(evidence.map(({ source }) => source)).toEqual(['Hermans 2013'])
  })
  it('few signs of the narrow neck canal speak against it only when all were looked for', () => {
    const all: Findings = {
      'neck.look.gait': 'wide-based',
      'neuro.test.hoffmann': 'absent',
      'neuro.test.inverted-supinator': 'absent',
      'neuro.test.plantar': 'flexor',
      'patient.age-years': 40,
    }
    const both = Object.fromEntries(
      Object.entries(all).flatMap(([id, value]) =>
        id.startsWith('neuro')
          ? [
              [`${id} right`, value],
              [`${id} left`, value],
            ]
          : [[id, value]],
      ),
    )
    const { low, estimate } = chance('neck', 'myelopathy', both)
    expect(low).toBeLessThanOrEqual(Math.max(0.005, estimate.prior[0]))
    expect(weighed('neck', { 'neck.look.gait': 'wide-based', 'patient.age-years': 40 }).some((one) => one.id === 'neck.cond.myelopathy')).toBe(false)
  })
  it.each([
    [120_000, 28],
    [60_000, 7.7],
    [30_000, 2.9],
  ])('fluid with %d white cells moves the odds of an infected joint by %d, not by every threshold it passes', (cells, ratio) => {
    for (const region of ['elbow', 'wrist', 'ankle']) {
      const septic = weighed(region, { [`${region}.lab.synovial-white`]: cells }).find((one) => /septic/.test(one.id))
      expect(septic && ratioOf(septic)).toBeCloseTo(ratio, 1)
    }
  })
  it('few cells speak against it once something speaks for it', () => {
    const [before, after] = [{}, { 'wrist.lab.synovial-white': 8000 }].map((found) => chance('wrist', 'septic', { 'patient.diabetes': 'yes', ...found }))
    expect(after && before && ratioOf(after) / ratioOf(before)).toBeCloseTo(0.32, 2)
  })
})
