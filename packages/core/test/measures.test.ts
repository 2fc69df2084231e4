import { describe, expect, it } from 'vitest'
import { deg, mmHg, round } from '../src/model/units.js'
import { extensionLag } from '../src/measure/extensionLag.js'
import { effusionByShiftAndBlot, effusionByStroke, effusionByThreeTests } from '../src/measure/effusionClass.js'
import { ankleIndex, ankleIndexMeasure, readIndex } from '../src/measure/ankleIndex.js'
import { compartmentDelta } from '../src/measure/compartmentDelta.js'
import { hoursSince } from '../src/measure/elapsed.js'
import { afterTest, combineDependent, likelihoodRatios, positivesOfThousand, ratioInterval, wilson } from '../src/reason/likelihood.js'

describe('extension lag', () => {
  it('is 15 when passive is 0 and active -15', () => expect(extensionLag(deg(0), deg(-15))).toBe(15))
  it('is never below 0', () => expect(extensionLag(deg(-5), deg(0))).toBe(0))
})

describe('effusion', () => {
  it.each([
    [true, false, false, 'small'],
    [false, false, true, 'large'],
    [true, true, false, 'moderate'],
    [false, false, false, 'none'],
    [false, undefined, undefined, undefined],
  ])('sweep %s, fluctuation %s, tap %s: %s', (sweep, fluctuation, tap, result) => expect(effusionByThreeTests({ sweep, fluctuation, tap })).toBe(result))
  it.each([
    [true, false, 'small'],
    [true, true, 'moderate'],
    [false, true, 'large'],
    [false, false, 'none'],
  ])('shift %s, blot %s: %s', (shift, blot, result) => expect(effusionByShiftAndBlot({ shift, blot })).toBe(result))
  it('knows the stroke grades', () =>
    expect((['0', 'trace', '1+', '2+', '3+'] as const).map(effusionByStroke)).toEqual(['none', 'small', 'small', 'moderate', 'large']))
})

describe('ankle index', () => {
  const index = (dp: number, pt: number, ...arms: number[]): number => ankleIndex({ dorsalisPedis: mmHg(dp), posteriorTibial: mmHg(pt), arms: arms.map(mmHg) })
  it.each([
    [118, 110, 124, 128, 0.92, 'normal'],
    [96, 112, 124, 128, 0.88, 'below 0.90'],
    [170, 175, 120, 118, 1.46, 'stiff vessels'],
    [114, 108, 127, 120, 0.9, 'below 0.90'],
  ] as const)('%d and %d over %d and %d shows %d: %s', (dp, pt, a, b, shown, reading) => {
    expect(round(index(dp, pt, a, b), 2)).toBe(shown)
    expect(readIndex(index(dp, pt, a, b), true)).toBe(reading)
  })
  it('compares before it rounds', () => expect(readIndex(112.5 / 125.1, true)).toBe('below 0.90'))
  it('is not valid above 1.30', () => expect(ankleIndexMeasure({ dorsalisPedis: 175, posteriorTibial: 170, armRight: 120, armLeft: 118 })).toBeNull())
  it('wants an arm pressure', () => expect(() => index(100, 100, 0)).toThrow(expect.objectContaining({ code: 'no-reference' }) as Error))
})

describe('the rest', () => {
  it('takes the compartment pressure from the diastolic', () => {
    expect(compartmentDelta(mmHg(70), mmHg(45))).toBe(25)
    expect(compartmentDelta(mmHg(60), mmHg(30))).toBe(30)
  })
  it('gives a coarse date as a range of hours', () => {
    expect(hoursSince('2026-03-01T00:00:00Z', 'day', Date.parse('2026-03-03T12:00:00Z'))).toEqual({ low: 36, high: 60 })
    expect(hoursSince('2026-03-01T00:00:00Z', 'exact', Date.parse('2026-03-03T12:00:00Z'))).toBe(60)
    expect(hoursSince('nonsense', 'exact', 0)).toBeNull()
  })
})

describe('likelihood', () => {
  it.each([
    [85, 94, 14.17, 0.16],
    [63, 77, 2.74, 0.481],
    [96, 93, 13.71, 0.043],
    [100, 100, 99, 0.01],
  ])('sensitivity %d, specificity %d: %d and %d', (sens, spec, positive, negative) => {
    const ratios = likelihoodRatios(sens, spec)
    expect(round(ratios.positive, 2)).toBe(positive)
    expect(round(ratios.negative, 3)).toBe(negative)
  })
  it.each([
    [0.3, 14.1667, 85.9],
    [0.3, 0.1596, 6.4],
  ])('%d times %d gives %d percent', (prior, ratio, after) => expect(round(100 * afterTest(prior, ratio), 1)).toBe(after))
  it.each([
    [90, 80],
    [94, 99],
    [12, 95],
  ])('sensitivity %d with specificity %d: right in heads as by the odds, and never the sensitivity itself', (sens, spec) => {
    const { ill, well, right } = positivesOfThousand(sens, spec)
    expect([ill, well]).toEqual([sens, 9 * (100 - spec)])
    expect(right).toBeCloseTo(afterTest(0.1, likelihoodRatios(sens, spec).positive), 10)
    expect(right).not.toBeCloseTo(sens / 100, 2)
  })
  it('does not mistake sensitivity for the chance of health', () => {
    const { negative } = likelihoodRatios(80, 69)
    expect(round(100 * (1 - afterTest(0.05, negative)), 1)).toBe(98.5)
    expect(round(100 * (1 - afterTest(0.5, negative)), 1)).toBe(77.5)
  })
  it.each([
    [[14.17, 5], 31.69],
    [[3, 2, 2], 5.05],
    [[3, 0.4], 1.9],
    [[20, 15, 10], 50],
  ])('tests of one structure %j combine to %d', (ratios, combined) => expect(round(combineDependent(ratios), 2)).toBe(combined))
  it('gives log-method intervals', () => {
    const { positive, negative } = ratioInterval({ tp: 80, fn: 20, fp: 10, tn: 90 })
    expect([positive.value, positive.low, positive.high].map((n) => round(n, 2))).toEqual([8, 4.41, 14.52])
    expect([negative.value, negative.low, negative.high].map((n) => round(n, 3))).toEqual([0.222, 0.149, 0.331])
    expect(round(ratioInterval({ tp: 20, fn: 0, fp: 0, tn: 20 }).positive.value, 2)).toBe(41)
  })
  it('gives Wilson intervals', () => {
    const some = wilson(80, 100)
    expect([some.value, some.low, some.high].map((n) => round(n, 1))).toEqual([80, 71.1, 86.7])
    expect(round(wilson(20, 20).low, 1)).toBe(83.9)
  })
})
