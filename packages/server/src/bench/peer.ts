import { Engine, type NestedCondition, type TopLevelCondition } from 'json-rules-engine'
import { compileRule, YES, type Judgement, type RegionPack, type RuleNode } from '@kneecap-awl/core'

/**
 * The flags of the pack in a general-purpose rules library, for comparison: one rule a flag, the same trees of all, any and not.
 * Its facts are the leaves, already compared: it has no three values, no sides and no measures, so that work is given to it for nothing.
 */
export function peerOf(pack: RegionPack): { readonly engine: Engine; readonly factsOf: (judged: Judgement) => Record<string, boolean> } {
  const engine = new Engine([], { allowUndefinedFacts: true })
  const leaves = new Map<string, RuleNode>()
  for (const flag of pack.flags) {
    const conditions: TopLevelCondition = { any: flag.clauses.map((clause) => conditionOf(clause.when, leaves)) }
    engine.addRule({ name: flag.id, conditions, event: { type: flag.id } })
  }
  const factsOf = ({ compiled, context, sides }: Judgement): Record<string, boolean> =>
    Object.fromEntries([...leaves].map(([key, node]) => [key, compileRule(node, compiled).run(context, sides[0] ?? 0) === YES]))
  return { engine, factsOf }
}

function conditionOf(node: RuleNode, leaves: Map<string, RuleNode>): NestedCondition {
  switch (node.op) {
    case 'all':
    case 'any': {
      const of = node.of.map((kid) => conditionOf(kid, leaves))
      return node.op === 'all' ? { all: of } : { any: of }
    }
    case 'not':
      return { not: conditionOf(node.of[0], leaves) }
    case 'proven':
      return conditionOf(node.of[0], leaves)
    case 'atLeast':
    case 'leaf': {
      const key = JSON.stringify(node)
      leaves.set(key, node)
      return { fact: key, operator: 'equal', value: true }
    }
  }
}
