import type { RuleNode } from '../content/types.js'
import { compileLeaf } from './compileLeaf.js'
import type { Compiled, Context } from './runtime.js'
import type { Prepared } from './prepare.js'
import { NO, UNKNOWN, YES, type T } from './truth.js'

/** Turns a parsed rule into a function. The tree stays beside it, so that a verdict can show its proof. */
export function compileRule(node: RuleNode, prepared: Prepared): Compiled {
  return prepared.shared(JSON.stringify(node), (id) => {
    if (node.op === 'leaf') return remembering(id, compileLeaf(node, prepared))
    const kids = node.of.map((kid) => compileRule(kid, prepared))
    return remembering(id, { node, kids, run: runner(node, kids), reads: () => [] })
  })
}

/** Runs a rule once for each side and phase: the same leaf stands in dozens of flags. */
function remembering(id: number, rule: Compiled): Compiled {
  return {
    ...rule,
    run: (context, side) => {
      const at = id * 3 + side
      const held = context.truths[at]
      if (held !== undefined && held >= 0) return held as T
      const truth = rule.run(context, side)
      context.truths[at] = truth
      return truth
    },
  }
}

function runner(node: Exclude<RuleNode, { op: 'leaf' }>, kids: readonly Compiled[]): Compiled['run'] {
  const [first] = kids
  switch (node.op) {
    case 'all':
      return (context, side) => {
        let worst: T = YES
        for (const kid of kids) {
          const truth = kid.run(context, side)
          if (truth === NO) return NO
          if (truth < worst) worst = truth
        }
        return worst
      }
    case 'any':
      return (context, side) => {
        let best: T = NO
        for (const kid of kids) {
          const truth = kid.run(context, side)
          if (truth === YES) return YES
          if (truth > best) best = truth
        }
        return best
      }
    case 'not':
      return (context, side) => (first ? ((2 - first.run(context, side)) as T) : UNKNOWN)
    case 'proven':
      return (context, side) => (first?.run(context, side) === YES ? YES : NO)
    case 'atLeast':
      return atLeastRunner(node.n, kids)
  }
}

const atLeastRunner =
  (n: number, kids: readonly Compiled[]) =>
  (context: Context, side: number): T => {
    let met = 0
    let open = 0
    for (const kid of kids) {
      const truth = kid.run(context, side)
      if (truth === YES) met++
      else if (truth === UNKNOWN) open++
    }
    return met >= n ? YES : met + open < n ? NO : UNKNOWN
  }
