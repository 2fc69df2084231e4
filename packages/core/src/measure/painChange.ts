import type { Percent } from '../model/units.js'
import { percent } from '../model/units.js'

export interface PainChange {
  readonly points: number
  /** Undefined when there was no pain before. */
  readonly percent: Percent | undefined
  readonly reading: 'better' | 'worse' | 'no meaningful change'
}

/** Points on the 0 to 10 scale that mean something in acute pain (Bijur 2003) and in lasting pain (Farrar 2001, or 30 percent). */
const ACUTE_POINTS = 1.3
const LASTING_POINTS = 2
const LASTING_PERCENT = 30

/**
 * Whether a change of pain on the 0 to 10 scale means something to the patient.
 * @example readPainChange(7, 5, 'lasting') // { points: -2, percent: -28.6, reading: 'better' }
 */
export function readPainChange(before: number, now: number, kind: 'acute' | 'lasting'): PainChange {
  const points = now - before
  const share = before > 0 ? percent((100 * points) / before) : undefined
  const meaningful = kind === 'acute' ? Math.abs(points) >= ACUTE_POINTS : Math.abs(points) >= LASTING_POINTS || Math.abs(share ?? 0) >= LASTING_PERCENT
  return { points, percent: share, reading: !meaningful ? 'no meaningful change' : points < 0 ? 'better' : 'worse' }
}
