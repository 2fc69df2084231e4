import type { TermValue } from '../model/interval.js'

export type EffusionClass = 'none' | 'small' | 'moderate' | 'large'
type Sign = boolean | undefined

/**
 * Effusion by three tests, of which one only is expected to be positive: sweep small, cross-fluctuation moderate, tap large.
 * The largest positive wins. None only when all three were done and negative; otherwise not known (undefined).
 * @example effusionByThreeTests({ sweep: false, fluctuation: false, tap: true }) // 'large'
 */
export function effusionByThreeTests(signs: { readonly sweep: Sign; readonly fluctuation: Sign; readonly tap: Sign }): EffusionClass | undefined {
  if (signs.tap) return 'large'
  if (signs.fluctuation) return 'moderate'
  if (signs.sweep) return 'small'
  return signs.sweep === false && signs.fluctuation === false && signs.tap === false ? 'none' : undefined
}

/**
 * Effusion by shift and blot: shift only is small, both moderate, blot alone large (too full to shift).
 * @example effusionByShiftAndBlot({ shift: false, blot: true }) // 'large'
 */
export function effusionByShiftAndBlot(signs: { readonly shift: Sign; readonly blot: Sign }): EffusionClass | undefined {
  if (signs.shift === undefined || signs.blot === undefined) return undefined
  if (signs.shift) return signs.blot ? 'moderate' : 'small'
  return signs.blot ? 'large' : 'none'
}

/** Stroke grades (Sturgill 2009) to the common scale: trace and 1+ small, 2+ moderate, 3+ large. */
export const STROKE_GRADES = { '0': 'none', trace: 'small', '1+': 'small', '2+': 'moderate', '3+': 'large' } as const satisfies Record<string, EffusionClass>

/** @example effusionByStroke('2+') // 'moderate' */
export const effusionByStroke = (grade: keyof typeof STROKE_GRADES): EffusionClass => STROKE_GRADES[grade]

const STROKE_WORDS = Object.keys(STROKE_GRADES) as (keyof typeof STROKE_GRADES)[]

const SIGNS: Readonly<Record<string, boolean>> = { present: true, absent: false }

/**
 * The class from whichever technique was examined; three tests first, then shift and blot, then stroke.
 * @param inputs signs as they were recorded (present, absent), the stroke grade as its rank
 * @example effusionClassMeasure({ sweep: 'absent', fluctuation: null, tap: 'present', shift: null, blot: null, stroke: null }) // 'large'
 */
export function effusionClassMeasure(inputs: Readonly<Record<string, TermValue>>): TermValue {
  const sign = (name: string): Sign => SIGNS[String(inputs[name])]
  const stroke = typeof inputs.stroke === 'number' ? STROKE_WORDS[inputs.stroke] : undefined
  return (
    effusionByThreeTests({ sweep: sign('sweep'), fluctuation: sign('fluctuation'), tap: sign('tap') }) ??
    effusionByShiftAndBlot({ shift: sign('shift'), blot: sign('blot') }) ??
    (stroke === undefined ? null : effusionByStroke(stroke))
  )
}
