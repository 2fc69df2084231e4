import type { TermValue } from '../model/interval.js'
import { mmHg, type MmHg } from '../model/units.js'

/**
 * Perfusion margin of a compartment: diastolic minus compartment pressure. 30 mmHg or less meets the rule.
 * @example compartmentDelta(mmHg(70), mmHg(45)) // 25
 */
export const compartmentDelta = (diastolic: MmHg, compartment: MmHg): MmHg => mmHg(diastolic - compartment)

export const compartmentDeltaMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue =>
  typeof inputs.diastolic === 'number' && typeof inputs.compartment === 'number' ? compartmentDelta(mmHg(inputs.diastolic), mmHg(inputs.compartment)) : null
