import type { RuleSet } from './ruleSet.js'
import { SIDES, type Side, type SideIndex } from '../model/side.js'
import { slotOf, type Compiled, type Context, type RetainedFlag, type Slot } from './runtime.js'
import { NO, YES, truthOf, type T } from './truth.js'
import type { ProofNode, ProofFinding } from './proofNode.js'
/**
 * The steps that decide a rule: for "any" that is met the met branches, for "all" that is not met the ones that fail, and so on.
 * Branches that do not matter to the outcome are left out.
 */
export function proofOf(rule: Compiled, context: Context, side: SideIndex, rules: RuleSet): ProofNode {
  const truth = rule.run(context, side)
  const { node } = rule
  if (node.op === 'leaf') return leafProof(rule, context, side, rules, truth)
  const kids = rule.kids.map((kid) => ({ kid, truth: kid.run(context, side) }))
  const kept = kids.filter((kid) => decides(node.op, truth, kid.truth))
  const of = (kept.length > 0 ? kept : kids).map(({ kid }) => proofOf(kid, context, side, rules))
  return { op: node.op, truth: truthOf(truth), ...(node.op === 'atLeast' ? { n: node.n } : {}), of }
}

function decides(op: 'all' | 'any' | 'not' | 'proven' | 'atLeast', whole: T, part: T): boolean {
  if (op === 'all') return part === whole
  if (op === 'any') return part === whole
  if (op === 'atLeast') return whole === YES ? part === YES : part !== YES || whole !== NO
  return true
}

function leafProof(rule: Compiled, context: Context, side: SideIndex, rules: RuleSet, truth: T): ProofNode {
  if (rule.node.op !== 'leaf') throw new Error('not a leaf')
  const { leaf } = rule.node
  const isChange = leaf.type === 'rechecked' || (leaf.type === 'compare' && leaf.term.fn === 'change')
  const findings = rule.reads(side).map((slot) => ({ ...findingOf(slot, context, rules), ...(isChange ? beforeOf(slot, context) : {}) }))
  const retained = leaf.type === 'flag' ? rules.retainedFlag(leaf.ref, context, side) : undefined
  const inner =
    leaf.type === 'calc' ? calcProof(leaf.calc, context, side, rules) : leaf.type === 'flag' ? flagProof(leaf.ref, retained, context, side, rules) : []
  return {
    op: 'leaf',
    truth: truthOf(truth),
    text: leaf.text,
    leaf,
    ...(retained ? { until: retained.until } : {}),
    ...(findings.length > 0 ? { findings } : {}),
    ...(inner.length > 0 ? { of: inner } : {}),
  }
}

/** What meets a flag; of one that is retained, what met it then. */
function flagProof(id: string, retained: RetainedFlag | undefined, context: Context, side: SideIndex, rules: RuleSet): ProofNode[] {
  const { any } = rules.compiledFlag(id)
  if (retained?.flag.proof && any.run(context, side) !== YES) return [retained.flag.proof]
  return [proofOf(any, context, side, rules)]
}

/** The rung, the parts or the rule that made a calculated value what it is. */
function calcProof(id: string, context: Context, side: SideIndex, rules: RuleSet): ProofNode[] {
  const ready = rules.compiledCalc(id)
  if (ready.when) return [proofOf(ready.when, context, side, rules)]
  const decisive = ready.ladder.find((rung) => rung.rule.run(context, side) !== NO)
  if (decisive) return [proofOf(decisive.rule, context, side, rules)]
  return ready.points
    .flat()
    .filter((part) => part.rule.run(context, side) !== NO)
    .map((part) => proofOf(part.rule, context, side, rules))
}

function findingOf(slot: Slot, context: Context, rules: RuleSet): ProofFinding {
  const item = rules.item(slot.item)
  const side = SIDES[slot.side]
  const reading = context.slots[slotOf(slot.item, slot.side)]
  if (!reading) return unread(slot, context, item.id, side, rules)
  const state = reading.reason !== undefined ? 'could-not' : reading.notValid ? 'not-valid' : 'examined'
  return {
    item: item.id,
    side,
    state,
    ...(reading.value === undefined ? {} : { value: reading.value }),
    ...(Object.keys(reading.qualifiers).length > 0 ? { qualifiers: reading.qualifiers } : {}),
    ...(reading.reason === undefined ? {} : { reason: reading.reason }),
  }
}

function beforeOf(slot: Slot, context: Context): Pick<ProofFinding, 'before'> {
  const earlier = context.previous[slotOf(slot.item, slot.side)]
  if (!earlier) return {}
  const { value, qualifiers } = earlier.reading
  return { before: { ...(value === undefined ? {} : { value }), qualifiers, hours: earlier.hours } }
}

function unread(slot: Slot, context: Context, item: string, side: Side, rules: RuleSet): ProofFinding {
  const worth = context.derived.get(slotOf(slot.item, slot.side))
  if (worth === undefined || worth === null) return { item, side, state: context.indicated?.[slot.item] === 0 ? 'not-indicated' : 'not-examined' }
  const { options, ordered } = rules.item(slot.item)
  return { item, side, state: 'derived', value: typeof worth === 'number' && ordered ? (options[worth] ?? worth) : worth }
}

/** Every finding at the leaves of a proof that was really recorded, without repeats. */
export function findingsOf(proof: ProofNode): readonly ProofFinding[] {
  const seen = new Map<string, ProofFinding>()
  const walk = (node: ProofNode): void => {
    for (const finding of node.findings ?? []) {
      const key = `${finding.item}|${finding.side}`
      if (!seen.get(key)?.before) seen.set(key, finding)
    }
    node.of?.forEach(walk)
  }
  walk(proof)
  return [...seen.values()]
}
