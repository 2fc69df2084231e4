import type { Problem } from '../pack/problem.js'

/** A fault of the compiled pack, which has no file of its own. */
export const problem = (id: string, reason: string, cure: string): Problem => ({ file: 'the pack', id, reason, cure })
