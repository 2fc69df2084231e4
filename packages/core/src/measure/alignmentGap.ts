import type { Millimetres } from '../model/units.js'

export type AlignmentReading = 'neutral' | 'varus' | 'valgus' | 'valgus, outside the usual range for the age'

/**
 * Frontal alignment from two gaps in stance: between the knees with the ankles touching (any gap reads varus), and between the
 * ankles with the knees touching (valgus). In a child of 2 to 11 years more than 80 mm at the ankles is outside the usual range (Heath 1993).
 * @example readAlignment(mm(0), mm(90), 6) // 'valgus, outside the usual range for the age'
 */
export function readAlignment(knees: Millimetres, ankles: Millimetres, ageYears: number): AlignmentReading {
  if (knees > 0) return 'varus'
  if (ankles <= 0) return 'neutral'
  return ageYears >= 2 && ageYears <= 11 && ankles > 80 ? 'valgus, outside the usual range for the age' : 'valgus'
}
