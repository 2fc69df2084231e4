import type { DemoCase } from './demoCase.js'
import { JOINTS } from './joints.js'
import { KNEES } from './knees.js'

/** Every visit of the demonstration, of every joint. */
export const CASES: readonly DemoCase[] = [...KNEES, ...JOINTS]
