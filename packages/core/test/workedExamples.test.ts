import { describe, expect, it } from 'vitest'
import { armIndex, armIndexMeasure, armPressureDifference, armPressureDifferenceMeasure } from '../src/measure/armIndex.js'
import { pelvicPart, pelvicPartMeasure, readLegDifference } from '../src/measure/legLength.js'
import { pelvicObliquity, pelvicObliquityMeasure } from '../src/measure/pelvicObliquity.js'
import { compartmentDelta } from '../src/measure/compartmentDelta.js'
import { mm, mmHg, round } from '../src/model/units.js'
import { afterTest, likelihoodRatios, ratioInterval } from '../src/reason/likelihood.js'
import { aroundTest, bestTier, costsOf, tierLoss, benefitAround } from '../src/index.js'
import { thePack } from './support.js'

/** No measure here counts from a time. */
const NOW = { asOf: 0 }

describe('leg length', () => {
  it('takes the pelvis apart from the bone', () => {
    expect(pelvicPart(mm(900 - 898), mm(850 - 868))).toBe(20)
    expect(pelvicPart(mm(930 - 905), mm(0))).toBe(25)
    expect(pelvicPartMeasure({ apparent: 900, otherApparent: 898, real: 850, otherReal: 868 }, NOW)).toBe(20)
    expect(pelvicPartMeasure({ apparent: 900, otherApparent: null, real: 850, otherReal: 868 }, NOW)).toBeNull()
  })
  it.each([
    [6, 'within error'],
    [-9.9, 'within error'],
    [-18, 'minor'],
    [20, 'clear'],
  ])('a difference of %d mm is %s', (difference, reading) => expect(readLegDifference(mm(difference))).toBe(reading))
  it('gives the tilt of the pelvis in degrees', () => {
    expect(round(pelvicObliquity(mm(15), mm(240)), 1)).toBe(3.6)
    expect(round(pelvicObliquity(mm(-15), mm(240)), 1)).toBe(-3.6)
    expect(() => pelvicObliquity(mm(15), mm(0))).toThrow(expect.objectContaining({ code: 'out-of-range' }) as Error)
    expect(pelvicObliquityMeasure({ height: 15, distance: null }, NOW)).toBeNull()
  })
})

describe('pressures of the arms', () => {
  it('an injured wrist of 108 over a sound arm of 124 is below 0.90', () => {
    expect(round(armIndex(mmHg(108), mmHg(124)), 2)).toBe(0.87)
    expect(armIndexMeasure({ wrist: 108, soundArm: null }, NOW)).toBeNull()
    expect(() => armIndex(mmHg(108), mmHg(0))).toThrow(expect.objectContaining({ code: 'no-reference' }) as Error)
  })
  it('counts the difference whichever arm is higher', () => {
    expect(armPressureDifference(mmHg(152), mmHg(128))).toBe(24)
    expect(armPressureDifferenceMeasure({ right: 128, left: 152 }, NOW)).toBe(24)
    expect(armPressureDifferenceMeasure({ right: 128, left: null }, NOW)).toBeNull()
  })
  it('a compartment at 50 under a diastolic of 90 has 40 left', () => expect(compartmentDelta(mmHg(90), mmHg(50))).toBe(40))
})

describe('likelihood', () => {
  it.each([
    [80, 69, 2.58, 0.29],
    [80, 77, 3.48, 0.26],
    [65, 99, 65, 0.354],
  ])('sensitivity %d, specificity %d: %d and %d', (sens, spec, positive, negative) => {
    expect(round(likelihoodRatios(sens, spec).positive, 2)).toBe(positive)
    expect(round(likelihoodRatios(sens, spec).negative, 3)).toBe(negative)
  })
  it.each([
    ['transverse stress positive', 0.05, 65, 99, true, 77.4],
    ['the same, rare', 0.01, 65, 99, true, 39.6],
    ['transverse stress negative', 0.05, 65, 99, false, 1.8],
    ['one alar movement negative', 0.05, 80, 69, false, 1.5],
    ['the same at even odds', 0.5, 80, 69, false, 22.5],
    ['calf squeeze positive', 0.3, 96, 93, true, 85.5],
    ['calf squeeze negative', 0.3, 96, 93, false, 1.8],
    ['Lachman positive', 0.3, 85, 94, true, 85.9],
  ])('%s', (_, before, sens, spec, positive, after) => {
    const ratios = likelihoodRatios(sens, spec)
    expect(round(100 * afterTest(before, positive ? ratios.positive : ratios.negative), 1)).toBe(after)
  })
  it.each([
    ['root cluster, three of four', 0.2, 6.1, 60.4],
    ['root cluster, all four', 0.2, 30.3, 88.3],
    ['cord cluster, three of five', 0.05, 30.9, 61.9],
    ['three tests of one structure', 0.2, 5.05, 55.8],
  ])('%s', (_, before, ratio, after) => expect(round(100 * afterTest(before, ratio), 1)).toBe(after))
  it('gives the interval of 45 in 50 against 15 in 50', () => {
    const { positive, negative } = ratioInterval({ tp: 45, fn: 5, fp: 15, tn: 35 })
    expect([positive.value, positive.low, positive.high].map((n) => round(n, 2))).toEqual([3, 1.94, 4.63])
    expect([negative.value, negative.low, negative.high].map((n) => round(n, 3))).toEqual([0.143, 0.061, 0.335])
  })
})

describe('what a test is worth for the tier', () => {
  const costs = costsOf(thePack())
  it('counts a tier too late five to twenty times, one too fast once', () => {
    expect([
      tierLoss('here', 'now', costs),
      tierLoss('days', 'today', costs),
      tierLoss('here', 'days', costs),
      tierLoss('days', 'here', costs),
      tierLoss('days', 'days', costs),
    ]).toEqual([100, 10, 15, 3, 0])
  })
  it('a torn Achilles at 30 percent is seen within days, and the squeeze settles it', () => {
    const worth = benefitAround(aroundTest(0.3, 0.96, 0.93), 'days', 'here', 1, costs)
    expect(worth).toMatchObject({ before: { tier: 'days' }, afterPositive: 'days', afterNegative: 'here' })
    expect(worth.before.loss).toBeCloseTo(2.1, 3)
    expect(worth.value).toBeCloseTo(1.773, 3)
    expect(worth.net).toBeCloseTo(1.723, 3)
  })
  it('a test that cannot change the tier is worth nothing', () => {
    const worth = benefitAround(aroundTest(0.02, 0.63, 0.77), 'days', 'here', 1, costs)
    expect(worth).toMatchObject({ before: { tier: 'here' }, afterPositive: 'here', afterNegative: 'here' })
    expect(worth.before.loss).toBeCloseTo(0.3, 3)
    expect(worth.value).toBeCloseTo(0, 10)
    expect(worth.net).toBeLessThan(0)
  })
  it('prefers the more urgent of equals', () => expect(bestTier(3 / 18, 'days', 'here', costs).tier).toBe('days'))
})
