import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { afterTest, combineDependent, combineIndependent, sampleChance, type Estimate } from '../src/index.js'

const band = (min: number, max: number) =>
  fc.tuple(fc.double({ min, max, noNaN: true }), fc.double({ min, max, noNaN: true })).map(([a, b]): readonly [number, number] => (a < b ? [a, b] : [b, a]))
const estimates: fc.Arbitrary<Estimate> = fc.record({
  prior: band(0.01, 0.9),
  structures: fc.array(fc.array(band(0.05, 30), { minLength: 1, maxLength: 3 }), { maxLength: 3 }),
})

describe('the chance of a condition by sampling', () => {
  it('is exact where nothing is uncertain', () => {
    const { low, middle, high } = sampleChance({ prior: [0.3, 0.3], structures: [[[14.17, 14.17]]] })
    for (const one of [low, middle, high]) expect(one).toBeCloseTo(afterTest(0.3, 14.17), 10)
  })
  it('combines findings of one structure as dependent, and multiplies structures', () => {
    const { middle } = sampleChance({ prior: [0.2, 0.2], structures: [[[3, 3], [2, 2], [2, 2]], [[1.5, 1.5]]] }) // prettier-ignore
    expect(middle).toBeCloseTo(afterTest(0.2, combineIndependent([combineDependent([3, 2, 2]), 1.5])), 10)
  })
  it('puts the middle of one band at its geometric mean, nine of ten samples inside it', () => {
    const { low, middle, high } = sampleChance({ prior: [0.5, 0.5], structures: [[[1, 100 ** 0.5]]] })
    expect(middle).toBeCloseTo(afterTest(0.5, 100 ** 0.25), 1)
    expect([low, high].map((share) => Math.log(share / (1 - share)) / Math.log(10))).toEqual([expect.closeTo(0.05, 1), expect.closeTo(0.95, 1)])
  })
  it('gives the same answer to the same estimate', () => {
    const estimate: Estimate = { prior: [0.05, 0.2], structures: [[[2, 9]], [[0.2, 0.6]]] }
    expect(sampleChance(estimate)).toEqual(sampleChance(estimate))
  })
  it('lies in order, and never outside the worst and the best case', () => {
    fc.assert(
      fc.property(estimates, (estimate) => {
        const { low, middle, high } = sampleChance(estimate, 200)
        expect(low).toBeLessThanOrEqual(middle)
        expect(middle).toBeLessThanOrEqual(high)
        expect(low).toBeGreaterThanOrEqual(0.005)
        expect(high).toBeLessThanOrEqual(0.995)
        // One structure with one finding: its ends are the ends of the interval.
        const [first] = estimate.structures.flat()
        if (estimate.structures.flat().length !== 1 || !first) return
        expect(low).toBeGreaterThanOrEqual(afterTest(estimate.prior[0], combineIndependent([combineDependent([first[0]])])) - 1e-9)
        expect(high).toBeLessThanOrEqual(afterTest(estimate.prior[1], combineIndependent([combineDependent([first[1]])])) + 1e-9)
      }),
    )
  })
  it('is narrower than worst to best once several findings are uncertain', () => {
    const estimate: Estimate = { prior: [0.1, 0.3], structures: [[[2, 6]], [[1.5, 4]], [[0.4, 0.9]]] }
    const { low, high } = sampleChance(estimate)
    const end = (at: 0 | 1): number =>
      afterTest(estimate.prior[at], combineIndependent(estimate.structures.map((ratios) => combineDependent(ratios.map((ratio) => ratio[at])))))
    expect(high - low).toBeLessThan(0.8 * (end(1) - end(0)))
  })
})
