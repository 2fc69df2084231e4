import { MeasureError, percent, type Percent } from '../model/units.js'

/**
 * Repetitions of this side as percent of the sound side. Below 90 is a deficit, below 70 a clear one.
 * @throws MeasureError `no-reference` when the sound side did none: report the counts
 * @example repetitionSymmetry(12, 20) // { symmetry: 60, deficit: 40, reading: 'clear' }
 */
export function repetitionSymmetry(
  side: number,
  sound: number,
): { readonly symmetry: Percent; readonly deficit: Percent; readonly reading: 'equal' | 'deficit' | 'clear' } {
  if (sound <= 0) throw new MeasureError('no-reference', 'The sound side managed none: report the counts of both sides.')
  const symmetry = (100 * side) / sound
  return { symmetry: percent(symmetry), deficit: percent(100 - symmetry), reading: symmetry < 70 ? 'clear' : symmetry < 90 ? 'deficit' : 'equal' }
}
