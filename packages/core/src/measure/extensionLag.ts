import type { TermValue } from '../model/interval.js'
import { deg, type Degrees } from '../model/units.js'

/**
 * Lag of the extensor mechanism: passive minus active extension, straight being 0 and a lack negative. Never below 0.
 * @example extensionLag(deg(0), deg(-15)) // 15
 */
export const extensionLag = (passive: Degrees, active: Degrees): Degrees => deg(Math.max(0, passive - active))

export const extensionLagMeasure = (inputs: Readonly<Record<string, TermValue>>): TermValue =>
  typeof inputs.passive === 'number' && typeof inputs.active === 'number' ? extensionLag(deg(inputs.passive), deg(inputs.active)) : null
