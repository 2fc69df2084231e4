import type { Calc } from '../rules/calc.js'
import type { Comparator, Leaf, RuleNode, Term } from '../rules/rule.js'
import type { Flag, AnyPack } from '../pack/pack.js'
import type { Item } from '../model/item.js'
import { counted } from '../model/plural.js'
import { itemsById } from '../pack/itemsById.js'

/** A rule as it is read aloud: each line in words; what it leads on to can be opened. */
export interface RuleLine {
  readonly text: string
  readonly kids: readonly RuleLine[]
  /** A calculated value or a flag that this line stands on. */
  readonly leads?: { readonly kind: 'score' | 'flag'; readonly id: string }
}

const COMPARED: Readonly<Record<Comparator, string>> = {
  '=': 'is',
  '!=': 'is other than',
  '<': 'below',
  '<=': 'at most',
  '>': 'above',
  '>=': 'at least',
  in: 'is one of',
  has: 'includes',
  'has-any': 'includes any of',
  'has-all': 'includes all of',
  is: 'present',
}

const OF_BOTH: Readonly<Record<Term['fn'], string>> = {
  value: '',
  other: 'on the other side, ',
  diff: 'this side less the other, ',
  deficit: 'percent short of the other side, ',
  gap: 'second reading less the first, ',
  worst: 'the worst of ',
  change: 'since the check before, ',
}

/**
 * A rule in words.
 * @param pack the view of the region that the rule belongs to
 * @example ruleLines(view, flag.clauses[0].when) // { text: 'any of', kids: [{ text: 'Log roll of the straight leg: present', kids: [] }, …] }
 */
export function ruleLines(pack: AnyPack, node: RuleNode): RuleLine {
  switch (node.op) {
    case 'all':
    case 'any':
      return { text: node.op === 'all' ? 'all of' : 'any of', kids: node.of.map((kid) => ruleLines(pack, kid)) }
    case 'atLeast':
      return { text: `at least ${node.n} of`, kids: node.of.map((kid) => ruleLines(pack, kid)) }
    case 'not':
      return { text: 'not', kids: [ruleLines(pack, node.of[0])] }
    case 'proven':
      return { text: 'known for certain', kids: [ruleLines(pack, node.of[0])] }
    case 'leaf':
      return leafLine(pack, node.leaf)
  }
}

function leafLine(pack: AnyPack, leaf: Leaf): RuleLine {
  const name = (id: string): string => itemsById(pack).get(id)?.label ?? id
  const plain = (text: string): RuleLine => ({ text, kids: [] })
  switch (leaf.type) {
    case 'always':
      return plain('always')
    case 'compare':
      return plain(comparedWords(itemsById(pack), leaf))
    case 'calc':
      return calcLine(pack, leaf)
    case 'weak':
      return plain(`${name(leaf.item)}: weak, 4 or less, or less than the other side`)
    case 'rechecked':
      return plain(`${name(leaf.item)}: examined before${windowWords(leaf.window)}`)
    case 'differs':
      return plain(`${name(leaf.item)}: differs between the sides`)
    case 'unseen':
      return plain(`${name(leaf.item)}: not examined`)
    case 'not-valid':
      return plain(`${name(leaf.item)}: technique lost`)
    case 'could-not':
      return plain(`${name(leaf.item)}: could not be done${leaf.reason ? ` for ${leaf.reason}` : ''}`)
    case 'all-examined':
      return { text: 'examined, every one of', kids: leaf.items.map((id) => plain(name(id))) }
    case 'flag':
      return { text: `flag: ${flagOf(pack, leaf.ref)?.title ?? leaf.ref}`, kids: [], leads: { kind: 'flag', id: leaf.ref } }
    case 'in-play':
      return { text: `in play: ${flagOf(pack, leaf.ref)?.title ?? leaf.ref}`, kids: [], leads: { kind: 'flag', id: leaf.ref } }
    case 'hold':
      return plain(`on hold: ${pack.holds.find((hold) => hold.id === leaf.ref)?.title ?? leaf.ref}`)
    case 'any-flag':
      return plain('any flag more urgent than this one')
  }
}

const windowWords = (hours: number | undefined): string => (hours === undefined ? '' : ` within ${hours >= 72 ? `${hours / 24} days` : `${hours} h`}`)
const flagOf = (pack: AnyPack, id: string): Flag | undefined => pack.flags.find((flag) => flag.id === id)
const overWords = (over: 'this' | 'either' | 'both'): string => (over === 'this' ? '' : over === 'either' ? ', on either side' : ', on both sides')

function calcLine(pack: AnyPack, leaf: Extract<Leaf, { type: 'calc' }>): RuleLine {
  const calc = pack.calcs.find((one) => one.id === leaf.calc)
  const compared = leaf.cmp === 'is' ? '' : ` ${COMPARED[leaf.cmp]} ${leaf.operand.join(', ')}`
  return { text: `${calc?.label ?? leaf.calc}${compared}${overWords(leaf.over)}`, kids: [], leads: { kind: 'score', id: leaf.calc } }
}

function comparedWords(items: ReadonlyMap<string, Item>, { term, cmp, operand, over }: Extract<Leaf, { type: 'compare' }>): string {
  const item = items.get(term.item)
  const about = term.qualifier === undefined ? item : item?.qualifiers[term.qualifier]
  const names = [item?.label ?? term.item, ...(term.more ?? []).map((id) => items.get(id)?.label ?? id)].join(', ')
  const what = `${OF_BOTH[term.fn]}${names}${term.qualifier === undefined ? '' : `, ${about?.label ?? term.qualifier}`}${windowWords(term.window)}`
  const unit = about?.unit && operand.every((word) => word !== '' && !Number.isNaN(Number(word))) ? (about.unit === '°' ? '°' : ` ${about.unit}`) : ''
  return `${what}${cmp === 'is' ? ': present' : ` ${COMPARED[cmp]} ${operand.join(', ')}${unit}`}${overWords(over)}`
}

/** The rules of a calculated value in words: when it holds, each rung, or each part with its points. */
export function calcLines(pack: AnyPack, calc: Calc): RuleLine[] {
  const when = (title: string, rule: RuleNode): RuleLine => ({ text: title, kids: [ruleLines(pack, rule)] })
  return [
    ...(calc.validWhen ? [when('valid when', calc.validWhen)] : []),
    ...(calc.when ? [ruleLines(pack, calc.when)] : []),
    ...calc.ladder.map((rung) => when(rung.value, rung.when)),
    ...calc.points.map((part) => when(counted(part.points, 'point', 'points'), part.when)),
  ]
}
