import { describe, expect, it } from 'vitest'
import { deg, mm, mmHg, percent, round, seconds } from '../src/model/units.js'
import { arc, deficitPercent, readDifference, sideDifference } from '../src/measure/sideDifference.js'
import { isBorderline, reportReadings } from '../src/measure/readings.js'
import { detectableSideChange, minimalDetectableChange, readChange, standardError } from '../src/measure/realChange.js'
import { activeGap } from '../src/measure/activeGap.js'
import { extensionLag } from '../src/measure/extensionLag.js'
import { powerGap } from '../src/measure/power.js'
import { tendernessMap } from '../src/measure/tendernessMap.js'
import { laxityGrade } from '../src/measure/laxityGrade.js'
import { effusionByShiftAndBlot, effusionByStroke, effusionByThreeTests } from '../src/measure/effusionClass.js'
import { ankleIndex, ankleIndexMeasure, readIndex } from '../src/measure/ankleIndex.js'
import { compartmentDelta } from '../src/measure/compartmentDelta.js'
import { repetitionSymmetry } from '../src/measure/repetition.js'
import { readAlignment } from '../src/measure/alignmentGap.js'
import { readRefill } from '../src/measure/refill.js'
import { hoursSince } from '../src/measure/elapsed.js'
import { afterTest, combineDependent, likelihoodRatios, positivesOfThousand, ratioInterval, wilson } from '../src/reason/likelihood.js'

const valid = (value: number) => ({ value, valid: true })

describe('side difference', () => {
  it.each([
    [95, 140, -45, 32.1],
    [130, 140, -10, 7.1],
    [142, 140, 2, -1.4],
    [0, 8, -8, 100],
  ])('%d against %d degrees differs by %d, %d percent short', (side, other, difference, deficit) => {
    expect(sideDifference(deg(side), deg(other))).toBe(difference)
    expect(round(deficitPercent(deg(side), deg(other)), 1)).toBe(deficit)
  })
  it('has no percent where the other side moves 0 degrees', () => {
    expect(sideDifference(deg(0), deg(0))).toBe(0)
    expect(() => deficitPercent(deg(0), deg(0))).toThrow(expect.objectContaining({ code: 'no-reference' }) as Error)
  })
  it('adds signed extension to flexion for the arc', () => {
    expect(arc(deg(110), deg(-10))).toBe(100)
    expect(arc(deg(140), deg(5))).toBe(145)
    expect(round(deficitPercent(deg(100), deg(145)), 1)).toBe(31)
  })
  it('outranks the norm: 128 against 145 is abnormal though near the norm', () => {
    expect(readDifference(deg(-17), deficitPercent(deg(128), deg(145)), 135)).toBe('abnormal')
    expect(readDifference(deg(0), percent(0), 135)).toBe('within')
    expect(readDifference(deg(-45), percent(32.1))).toBe('clear')
    expect(readDifference(deg(-5), percent(5), 30)).toBe('abnormal')
  })
})

describe('repeated readings', () => {
  it('reports the median of three and asks for a repeat when they spread', () => {
    expect(reportReadings([88, 92, 97].map(valid))).toEqual({ value: 92, how: 'median', spread: 9, spreadTooWide: true })
  })
  it('reports the mean of two and drops what was not valid', () => {
    expect(reportReadings([valid(88), valid(92), { value: 120, valid: false }])).toMatchObject({ value: 90, how: 'mean' })
  })
  it('marks a single reading', () => expect(reportReadings([valid(85)])).toMatchObject({ value: 85, how: 'single' }))
  it('calls a lag of 8, 12, 8 borderline for a rule at 10', () => {
    expect(isBorderline([8, 12, 8].map(valid), (lag) => lag >= 10)).toBe(true)
    expect(isBorderline([8, 9, 8].map(valid), (lag) => lag >= 10)).toBe(false)
  })
  it('refuses to report nothing', () => expect(() => reportReadings([])).toThrow(expect.objectContaining({ code: 'no-reading' }) as Error))
})

describe('error and real change', () => {
  it.each([
    [9, 0.9, 2.85],
    [12, 0.75, 6],
  ])('SD %d with ICC %d has a standard error of %d', (sd, icc, sem) => expect(round(standardError(sd, icc), 2)).toBe(sem))
  it('gives the smallest real change', () => {
    expect(round(minimalDetectableChange(standardError(9, 0.9)), 2)).toBe(7.89)
    expect(round(minimalDetectableChange(standardError(9, 0.9), 90), 2)).toBe(6.62)
    expect(round(minimalDetectableChange(6), 2)).toBe(16.63)
    expect(round(minimalDetectableChange(3), 2)).toBe(8.32)
    expect(round(minimalDetectableChange(3, 95, 3), 2)).toBe(4.8)
    expect(round(detectableSideChange(3), 2)).toBe(11.76)
  })
  it.each([
    [100, 112, 12, 'real'],
    [100, 107, 7, 'within error'],
    [100, 108, 8, 'within error'],
    [100, 109, 9, 'real'],
  ])('%d then %d is a change of %d: %s', (before, now, change, reading) => expect(readChange(before, now, 3)).toEqual({ change, reading }))
})

describe('gap, lag and power', () => {
  it.each([
    [60, 165, 105, 'clear'],
    [5, 10, 5, 'none'],
    [100, 112, 12, 'mild'],
  ])('active %d, passive %d: gap %d, %s', (active, passive, gap, reading) => expect(activeGap(deg(active), deg(passive))).toEqual({ gap, reading }))
  it('lags by 15 when passive is 0 and active -15', () => expect(extensionLag(deg(0), deg(-15))).toBe(15))
  it('does not lag below 0', () => expect(extensionLag(deg(-5), deg(0))).toBe(0))
  it.each([
    ['4+', '5', 1, 'minor'],
    ['4-', '5', 3, 'significant'],
    ['5', '5', 0, 'none'],
  ] as const)('%s against %s is %d steps: %s', (side, other, steps, reading) => expect(powerGap(side, other)).toEqual({ steps, reading }))
})

describe('tenderness', () => {
  it('is focal at one site', () => expect(tendernessMap([3, 0, 1, 0, 2])).toEqual({ total: 6, count: 3, maximum: 3, concentration: 0.5, pattern: 'focal' }))
  it('is spread over six mild ones', () => {
    const map = tendernessMap([1, 1, 1, 1, 1, 1])
    expect(map).toMatchObject({ total: 6, count: 6, maximum: 1, pattern: 'spread' })
    expect(round(map.concentration, 2)).toBe(0.17)
  })
})

describe('laxity', () => {
  it.each([
    [2, 'firm', 0, 'A', false],
    [4, 'firm', 1, 'A', false],
    [4, 'soft', 1, 'B', true],
    [7, 'soft', 2, 'B', true],
    [12, 'none', 3, 'B', true],
    [0, 'firm', 0, 'A', false],
    [5, 'firm', 1, 'A', false],
    [10, 'firm', 2, 'A', false],
  ] as const)('%d mm more, %s: grade %d%s', (difference, end, grade, letter, torn) =>
    expect(laxityGrade(mm(difference), end)).toEqual({ grade, letter, tornUntilImaged: torn }),
  )
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
  it('gives repetitions as percent of the sound side', () => {
    expect(repetitionSymmetry(12, 20)).toEqual({ symmetry: 60, deficit: 40, reading: 'clear' })
    expect(repetitionSymmetry(5, 5)).toMatchObject({ symmetry: 100, reading: 'equal' })
    expect(() => repetitionSymmetry(3, 0)).toThrow(expect.objectContaining({ code: 'no-reference' }) as Error)
  })
  it('reads the gaps of alignment', () => {
    expect(readAlignment(mm(35), mm(0), 50)).toBe('varus')
    expect(readAlignment(mm(0), mm(90), 6)).toBe('valgus, outside the usual range for the age')
    expect(readAlignment(mm(0), mm(80), 6)).toBe('valgus')
    expect(readAlignment(mm(0), mm(0), 6)).toBe('neutral')
  })
  it('reads capillary refill by age and side', () => {
    expect(readRefill(seconds(3), seconds(1.5), 40)).toEqual({ slow: true, sideDifference: 1.5, sidesDiffer: false })
    expect(readRefill(seconds(3), undefined, 8).slow).toBe(true)
    expect(readRefill(seconds(2), undefined, 40).slow).toBe(false)
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
