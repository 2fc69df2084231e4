import type { TermValue } from '../model/interval.js'

const RANKS = [0, 0, 1, 2] as const

/**
 * Pain through the first degrees of passive movement, graded 0 to 3, as the rank of the word that the joint-infection rules read: painless,
 * painful, not tolerated.
 * @example microMotion(2) // 1
 */
const microMotion = (grade: number): number | undefined => RANKS[grade]

export const microMotionMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue =>
  typeof inputs.grade === 'number' ? (microMotion(inputs.grade) ?? null) : null
