/** Sensitivity and specificity are kept off 0 and 1, so that no single test is ever certain. */
const clampShare = (share: number): number => Math.min(0.99, Math.max(0.01, share))

/**
 * Likelihood ratios of a positive and a negative test.
 * @param sens @param spec percent, 0 to 100
 * @example likelihoodRatios(85, 94) // { positive: 14.17, negative: 0.160 }
 */
export function likelihoodRatios(sens: number, spec: number): { readonly positive: number; readonly negative: number } {
  const se = clampShare(sens / 100)
  const sp = clampShare(spec / 100)
  return { positive: se / (1 - sp), negative: (1 - se) / sp }
}

/**
 * Chance after a finding, from the chance before it. Kept between 0.5 and 99.5 percent: an estimate, not certainty.
 * @param prior 0 to 1 @returns 0 to 1
 * @example afterTest(0.30, 14.17) // 0.859
 */
export function afterTest(prior: number, ratio: number): number {
  const odds = (prior / (1 - prior)) * ratio
  return Math.min(0.995, Math.max(0.005, odds / (1 + odds)))
}

/**
 * What sensitivity and specificity (percent) mean in heads: of 1000 patients of whom 100 have it, how many test positive with it and
 * without it. Sensitivity is not the chance of disease: that is the share of the positive tests that are right.
 * @example positivesOfThousand(90, 80) // { ill: 90, well: 180, right: 1 / 3 }
 */
export function positivesOfThousand(sens: number, spec: number): { readonly ill: number; readonly well: number; readonly right: number } {
  const ill = Math.round(sens)
  const well = Math.round(9 * (100 - spec))
  return { ill, well, right: ill + well === 0 ? 0 : ill / (ill + well) }
}

/**
 * Likelihood ratio of several findings of one structure: they share the patient's guarding and the examiner's hands, so the strongest
 * counts whole, the next half, the next a quarter. Capped at 50 and 1/50.
 * @example combineDependent([3, 2, 2]) // 5.05
 */
export function combineDependent(ratios: readonly number[]): number {
  const logs = ratios.map(Math.log).sort((a, b) => Math.abs(b) - Math.abs(a))
  const sum = logs.reduce((total, log, at) => total + log * 0.5 ** at, 0)
  return cap(Math.exp(sum), 50)
}

/** Groups of different structures multiply; capped at 100 and 1/100. */
export const combineIndependent = (ratios: readonly number[]): number =>
  cap(
    ratios.reduce((a, b) => a * b, 1),
    100,
  )

const cap = (ratio: number, limit: number): number => Math.min(limit, Math.max(1 / limit, ratio))

/**
 * Interval of likelihood ratios from the four cells of a study, log method (Simel 1991). A zero cell adds 0.5 to all four.
 * @example ratioInterval({ tp: 80, fn: 20, fp: 10, tn: 90 }).positive // { value: 8.00, low: 4.41, high: 14.52 }
 */
export function ratioInterval(cells: { readonly tp: number; readonly fn: number; readonly fp: number; readonly tn: number }): {
  readonly positive: RatioRange
  readonly negative: RatioRange
} {
  const add = Object.values(cells).some((n) => n === 0) ? 0.5 : 0
  const [tp, fn, fp, tn] = [cells.tp + add, cells.fn + add, cells.fp + add, cells.tn + add]
  const positive = tp / (tp + fn) / (fp / (fp + tn))
  const negative = fn / (tp + fn) / (tn / (fp + tn))
  return {
    positive: around(positive, Math.sqrt(1 / tp - 1 / (tp + fn) + 1 / fp - 1 / (fp + tn))),
    negative: around(negative, Math.sqrt(1 / fn - 1 / (tp + fn) + 1 / tn - 1 / (fp + tn))),
  }
}

export interface RatioRange {
  readonly value: number
  readonly low: number
  readonly high: number
}

const around = (value: number, se: number): RatioRange => ({ value, low: Math.exp(Math.log(value) - 1.96 * se), high: Math.exp(Math.log(value) + 1.96 * se) })

/**
 * Wilson interval of a share.
 * @returns percent
 * @example wilson(80, 100) // { value: 80, low: 71.1, high: 86.7 }
 */
export function wilson(hits: number, of: number): RatioRange {
  const z = 1.96
  const p = hits / of
  const middle = (p + (z * z) / (2 * of)) / (1 + (z * z) / of)
  const half = (z * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of))) / (1 + (z * z) / of)
  return { value: 100 * p, low: 100 * (middle - half), high: 100 * (middle + half) }
}
