import type { Leaf, RuleNode } from './rule.js'

export const leavesOf = (node: RuleNode): Leaf[] => (node.op === 'leaf' ? [node.leaf] : node.of.flatMap(leavesOf))

/** The items that a leaf names itself; those behind a calculated value, a flag or a set are not among them. */
export function itemsOfLeaf(leaf: Leaf): readonly string[] {
  if (leaf.type === 'compare') return [leaf.term.item, ...(leaf.term.more ?? [])]
  return 'item' in leaf ? [leaf.item] : []
}
