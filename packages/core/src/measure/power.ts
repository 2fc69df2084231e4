/** Muscle power grades in rising order. A whole grade inside grade 4 is two steps. */
export const POWER_GRADES = ['0', '1', '2', '3', '4-', '4', '4+', '5'] as const
export type PowerGrade = (typeof POWER_GRADES)[number]

/** Rank of a grade, 0 to 7. @example powerRank('4-') // 4 */
export const powerRank = (grade: PowerGrade): number => POWER_GRADES.indexOf(grade)

/**
 * How far one side is below the other: 1 is minor, 2 or more is a whole grade.
 * @example powerGap('4+', '5') // { steps: 1, reading: 'minor' }
 */
export function powerGap(side: PowerGrade, other: PowerGrade): { readonly steps: number; readonly reading: 'none' | 'minor' | 'significant' } {
  const steps = powerRank(other) - powerRank(side)
  return { steps, reading: steps >= 2 ? 'significant' : steps === 1 ? 'minor' : 'none' }
}

/** Full grade of a power grade, 0 to 5: 4- and 4+ are grade 4. @example wholeGrade('4+') // 4 */
export const wholeGrade = (grade: PowerGrade): number => Number.parseInt(grade, 10)

/**
 * Change of power between two dated checks. A fall of one full grade is progressive; 4+ to 4 is no fall.
 * @example readPowerChange('5', '4') // { grades: -1, reading: 'worse' }
 */
export function readPowerChange(before: PowerGrade, now: PowerGrade): { readonly grades: number; readonly reading: 'better' | 'same' | 'worse' } {
  const grades = wholeGrade(now) - wholeGrade(before)
  return { grades, reading: grades > 0 ? 'better' : grades < 0 ? 'worse' : 'same' }
}
