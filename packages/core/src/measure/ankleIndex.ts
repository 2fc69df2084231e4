import type { TermValue } from '../model/interval.js'
import { MeasureError, mmHg, type MmHg } from '../model/units.js'

export type IndexReading = 'below 0.90' | 'disease' | 'normal' | 'stiff vessels'

/**
 * Ankle-brachial index: the better ankle artery over the better arm.
 * @throws MeasureError `no-reference` when no arm pressure is above 0
 * @example ankleIndex({ dorsalisPedis: mmHg(118), posteriorTibial: mmHg(110), arms: [mmHg(124), mmHg(128)] }) // 0.922
 */
export function ankleIndex(pressures: { readonly dorsalisPedis: MmHg; readonly posteriorTibial: MmHg; readonly arms: readonly MmHg[] }): number {
  const arm = Math.max(...pressures.arms)
  if (!(arm > 0)) throw new MeasureError('no-reference', 'An arm pressure above 0 mmHg is needed.')
  return Math.max(pressures.dorsalisPedis, pressures.posteriorTibial) / arm
}

/**
 * Bands of the index. The unrounded value is compared: 0.898 shows as 0.90 and is still below 0.90.
 * After injury below 0.90 asks for the artery to be imaged; without injury 0.90 or below is disease; above 1.30 the vessels are stiff.
 * @example readIndex(0.898, true) // 'below 0.90'
 */
export function readIndex(index: number, afterInjury: boolean): IndexReading {
  if (index > 1.3) return 'stiff vessels'
  if (index < 0.9) return afterInjury ? 'below 0.90' : 'disease'
  return index <= 0.9 && !afterInjury ? 'disease' : 'normal'
}

/** Inputs in mmHg; an index above 1.30 is not valid and reads as not known. */
export function ankleIndexMeasure(inputs: Readonly<Record<string, TermValue>>): TermValue {
  const { dorsalisPedis, posteriorTibial, armRight, armLeft } = inputs
  const arms = [armRight, armLeft].filter((arm): arm is number => typeof arm === 'number')
  if (typeof dorsalisPedis !== 'number' || typeof posteriorTibial !== 'number' || arms.length === 0) return null
  const index = ankleIndex({ dorsalisPedis: mmHg(dorsalisPedis), posteriorTibial: mmHg(posteriorTibial), arms: arms.map(mmHg) })
  return index > 1.3 ? null : index
}
