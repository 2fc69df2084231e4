export interface TendernessMap {
  readonly total: number
  readonly count: number
  readonly maximum: number
  /** Share of the worst site in the whole, 0 to 1. */
  readonly concentration: number
  readonly pattern: 'none' | 'focal' | 'spread' | 'mixed'
}

/**
 * Pattern of tenderness over several sites graded 0 to 3. Focal: worst site 2 or more and at least 0.4 of the total;
 * spread: five sites or more and under 0.25.
 * @example tendernessMap([3, 0, 1, 0, 2]) // { total: 6, count: 3, maximum: 3, concentration: 0.5, pattern: 'focal' }
 */
export function tendernessMap(grades: readonly number[]): TendernessMap {
  const total = grades.reduce((sum, grade) => sum + grade, 0)
  const count = grades.filter((grade) => grade > 0).length
  const maximum = Math.max(0, ...grades)
  const concentration = total === 0 ? 0 : maximum / total
  return { total, count, maximum, concentration, pattern: patternOf(total, count, maximum, concentration) }
}

function patternOf(total: number, count: number, maximum: number, concentration: number): TendernessMap['pattern'] {
  if (total === 0) return 'none'
  if (maximum >= 2 && concentration >= 0.4) return 'focal'
  return count >= 5 && concentration < 0.25 ? 'spread' : 'mixed'
}
