import type { RuleNode } from './rule.js'
import { compileLeaf } from './compileLeaf.js'
import { slotOf, type Compiled, type Context, type Slot } from './runtime.js'
import type { RuleSet } from './ruleSet.js'
import { NO, UNKNOWN, YES, type T } from './truth.js'
import type { SideIndex } from '../model/side.js'

/** Turns a parsed rule into something that runs. The tree stays beside it, so that a verdict can show its proof. */
export function compileRule(node: RuleNode, rules: RuleSet): Compiled {
  return rules.shared(JSON.stringify(node), (id) => {
    if (node.op === 'leaf') {
      const leaf = compileLeaf(node, rules)
      return new Rule(id, node, [], leaf.run, leaf.reads)
    }
    return new Rule(id, node, node.of.map((kid) => compileRule(kid, rules)), NOT_A_LEAF, NOTHING)
  }) // prettier-ignore
}

type Run = (context: Context, side: SideIndex) => T
const NOT_A_LEAF: Run = () => UNKNOWN
const NOTHING = (): readonly Slot[] => []

/** A rule that remembers its truth for each side and phase: the same leaf stands in dozens of flags. One shape for all, so that it runs fast. */
class Rule implements Compiled {
  private readonly n: number

  constructor(
    private readonly id: number,
    readonly node: RuleNode,
    readonly kids: readonly Compiled[],
    private readonly leaf: Run,
    readonly reads: (side: SideIndex) => readonly Slot[],
  ) {
    this.n = node.op === 'atLeast' ? node.n : 0
  }

  run(context: Context, side: SideIndex): T {
    const { truths } = context.memory
    const at = slotOf(this.id, side)
    const kept = truths[at]
    if (kept !== undefined && kept >= 0) return kept as T
    const truth = this.workOut(context, side)
    truths[at] = truth
    return truth
  }

  private workOut(context: Context, side: SideIndex): T {
    switch (this.node.op) {
      case 'leaf':
        return this.leaf(context, side)
      case 'all':
        return this.least(context, side)
      case 'any':
        return this.greatest(context, side)
      case 'not':
        return (YES - this.first(context, side)) as T
      case 'proven':
        return this.first(context, side) === YES ? YES : NO
      case 'atLeast':
        return this.enough(context, side)
    }
  }

  private first(context: Context, side: SideIndex): T {
    return this.kids[0]?.run(context, side) ?? UNKNOWN
  }

  private least(context: Context, side: SideIndex): T {
    let worst: T = YES
    for (const kid of this.kids) {
      const truth = kid.run(context, side)
      if (truth === NO) return NO
      if (truth < worst) worst = truth
    }
    return worst
  }

  private greatest(context: Context, side: SideIndex): T {
    let best: T = NO
    for (const kid of this.kids) {
      const truth = kid.run(context, side)
      if (truth === YES) return YES
      if (truth > best) best = truth
    }
    return best
  }

  private enough(context: Context, side: SideIndex): T {
    let met = 0
    let open = 0
    for (const kid of this.kids) {
      const truth = kid.run(context, side)
      if (truth === YES) met++
      else if (truth === UNKNOWN) open++
    }
    return met >= this.n ? YES : met + open < this.n ? NO : UNKNOWN
  }
}
