import type { TermValue } from '../model/interval.js'

const WORDS = ['comfortable', 'comfortable', 'sore', 'will not allow'] as const

/**
 * Pain through the first degrees of passive movement, graded 0 to 3, as the word the joint-infection rules read.
 * @example microMotion(2) // 'sore'
 */
const microMotion = (grade: number): string | undefined => WORDS[grade]

export const microMotionMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue =>
  typeof inputs.grade === 'number' ? (microMotion(inputs.grade) ?? null) : null
