import type { Measure } from '../model/measure.js'
import { MeasureError, mmHg, type MmHg } from '../model/units.js'

/**
 * Arm pressure index: wrist pressure of the injured arm over the upper-arm pressure of the sound one. Below 0.90 after injury the
 * artery is imaged (Lynch 1991); the unrounded value is compared.
 * @throws MeasureError `no-reference` when the sound arm has no pressure above 0
 * @example armIndex(mmHg(108), mmHg(124)) // 0.87
 */
export function armIndex(injuredWrist: MmHg, soundUpperArm: MmHg): number {
  if (!(soundUpperArm > 0)) throw new MeasureError('no-reference', 'The sound arm: a pressure above 0 mmHg is needed.')
  return injuredWrist / soundUpperArm
}

export const armIndexMeasure: Measure = ({ wrist, soundArm }) =>
  typeof wrist === 'number' && typeof soundArm === 'number' && soundArm > 0 ? armIndex(mmHg(wrist), mmHg(soundArm)) : null

/**
 * Difference of the systolic pressures of both arms. 20 or more with pain in chest, neck or back asks about a torn aorta; 15 or more
 * by itself is arterial disease.
 * @example armPressureDifference(mmHg(152), mmHg(128)) // 24
 */
export const armPressureDifference = (right: MmHg, left: MmHg): MmHg => mmHg(Math.abs(right - left))

export const armPressureDifferenceMeasure: Measure = ({ right, left }) =>
  typeof right === 'number' && typeof left === 'number' ? armPressureDifference(mmHg(right), mmHg(left)) : null
