import { ankleIndexMeasure } from './ankleIndex.js'
import { armIndexMeasure, armPressureDifferenceMeasure } from './armIndex.js'
import { compartmentDeltaMeasure } from './compartmentDelta.js'
import { correctedDaysMeasure } from './correctedDays.js'
import { effusionClassMeasure } from './effusionClass.js'
import { elapsedDays, elapsedHours } from './elapsed.js'
import { extensionLagMeasure } from './extensionLag.js'
import { hotJointMeasure } from './hotJoint.js'
import { pelvicPartMeasure } from './legLength.js'
import { pelvicObliquityMeasure } from './pelvicObliquity.js'
import { sameAsMeasure } from './sameAs.js'
import { microMotionMeasure } from './microMotion.js'
import type { Measure } from '../model/measure.js'
/** Every measure that the pack may name under `derive`. A new measure is a new file and a line here. */
export const MEASURES: Readonly<Record<string, Measure>> = {
  'ankle-brachial-index': ankleIndexMeasure,
  'arm-index': armIndexMeasure,
  'arm-pressure-difference': armPressureDifferenceMeasure,
  'compartment-delta': compartmentDeltaMeasure,
  'corrected-days': correctedDaysMeasure,
  'days-since': elapsedDays,
  'effusion-class': effusionClassMeasure,
  'extension-lag': extensionLagMeasure,
  'hot-joint': hotJointMeasure,
  'hours-since': elapsedHours,
  'micro-motion': microMotionMeasure,
  'pelvic-obliquity': pelvicObliquityMeasure,
  'pelvic-part': pelvicPartMeasure,
  'same-as': sameAsMeasure,
}

/** @throws Error when no such measure exists: the linter refuses such a pack first. */
export function measureOf(name: string): Measure {
  const measure = MEASURES[name]
  if (!measure) throw new Error(`no measure is called "${name}"`)
  return measure
}
