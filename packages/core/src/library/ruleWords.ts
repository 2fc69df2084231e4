import type { Calc } from '../rules/calc.js'
import type { Comparator, Leaf, RuleNode } from '../rules/rule.js'
import type { AnyPack } from '../pack/pack.js'
import { counted } from '../model/plural.js'
import { itemsById } from '../pack/itemsById.js'

/** A rule as it is read aloud: each line in words; what it leads on to can be opened. */
export interface RuleLine {
  readonly text: string
  readonly kids: readonly RuleLine[]
  /** A calculated value or a flag that this line stands on. */
  readonly leads?: { readonly kind: 'score' | 'flag'; readonly id: string }
}

/** How a comparison with one value is said after the name of what is compared. */
const COMPARED: Readonly<Record<Comparator, (value: string) => string>> = {
  '=': (value) => value,
  '!=': (value) => `not ${value}`,
  '<': (value) => `under ${value}`,
  '<=': (value) => `${value} or less`,
  '>': (value) => `over ${value}`,
  '>=': (value) => `${value} or more`,
  in: (value) => value,
  has: (value) => value,
  'has-any': (value) => value,
  'has-all': (value) => value,
  is: () => 'present',
}

/**
 * A rule in words.
 * @param pack the view of the region that the rule belongs to
 * @example ruleLines(view, flag.clauses[0].when) // { text: 'Any of the following', kids: [{ text: 'Log roll test: present', kids: [] }, …] }
 */
export function ruleLines(pack: AnyPack, node: RuleNode): RuleLine {
  switch (node.op) {
    case 'all':
    case 'any':
      return { text: node.op === 'all' ? 'All of the following' : 'Any of the following', kids: node.of.map((kid) => ruleLines(pack, kid)) }
    case 'atLeast':
      return { text: `At least ${node.n} of the following`, kids: node.of.map((kid) => ruleLines(pack, kid)) }
    case 'not':
      return headed('Absent', node.of[0], pack)
    case 'proven':
      return headed('Known for certain', node.of[0], pack)
    case 'leaf':
      return leafLine(pack, node.leaf)
  }
}

/** A line by itself that says how what follows is meant; of a single finding both stand in one line. */
function headed(head: string, of: RuleNode, pack: AnyPack): RuleLine {
  const line = ruleLines(pack, of)
  return of.op === 'leaf' ? { ...line, text: `${head}: ${line.text}` } : { text: head, kids: [line] }
}

function leafLine(pack: AnyPack, leaf: Leaf): RuleLine {
  const text = leafWords(pack, leaf)
  switch (leaf.type) {
    case 'calc':
      return { text, kids: [], leads: { kind: 'score', id: leaf.calc } }
    case 'flag':
    case 'in-play':
      return { text, kids: [], leads: { kind: 'flag', id: leaf.ref } }
    case 'all-examined':
      return { text, kids: leaf.items.map((id) => ({ text: nameOf(pack, id), kids: [] })) }
    default:
      return { text, kids: [] }
  }
}

const nameOf = (pack: AnyPack, id: string): string => itemsById(pack).get(id)?.label ?? id

/** One condition of a rule in words. @example leafWords(view, leaf) // 'Lachman test: at least 3 mm more than on the other side' */
export function leafWords(pack: AnyPack, leaf: Leaf): string {
  const name = (id: string): string => nameOf(pack, id)
  const flag = (id: string): string => pack.flags.find((one) => one.id === id)?.title ?? id
  switch (leaf.type) {
    case 'always':
      return 'always'
    case 'compare':
      return `${comparedName(pack, leaf)}: ${criterionWords(pack, leaf)}`
    case 'calc': {
      const calc = pack.calcs.find((one) => one.id === leaf.calc)
      const compared = leaf.cmp === 'is' ? '' : `: ${COMPARED[leaf.cmp](leaf.operand.join(' or '))}`
      return `${calc?.label ?? leaf.calc}${compared}${OVER[leaf.over]}`
    }
    case 'weak':
      return `${name(leaf.item)}: ${WEAK}`
    case 'rechecked':
      return `${name(leaf.item)}: examined before${windowWords(leaf.window)}`
    case 'differs':
      return `${name(leaf.item)}: different from the other side`
    case 'unseen':
      return `${name(leaf.item)}: not examined`
    case 'not-valid':
      return `${name(leaf.item)}: technique lost`
    case 'could-not':
      return `${name(leaf.item)}: could not be examined${leaf.reason ? ` (${leaf.reason})` : ''}`
    case 'all-examined':
      return 'Examined, each of the following'
    case 'flag':
      return flag(leaf.ref)
    case 'in-play':
      return `In question: ${flag(leaf.ref)}`
    case 'hold':
      return `On hold: ${pack.holds.find((hold) => hold.id === leaf.ref)?.title ?? leaf.ref}`
    case 'any-flag':
      return 'Any more urgent flag'
  }
}

const WEAK = 'power 4 or less, or less than on the other side'
const OVER = { this: '', either: ', on either side', both: ', on both sides' } as const
const windowWords = (hours: number | undefined): string => (hours === undefined ? '' : ` within ${hours >= 72 ? `${hours / 24} days` : `${hours} h`}`)

type Compared = Extract<Leaf, { type: 'compare' }>

/** What is compared, by name. */
function comparedName(pack: AnyPack, { term }: Compared): string {
  const names = [term.item, ...(term.more ?? [])].map((id) => nameOf(pack, id)).join(' or ')
  const qualifier = term.qualifier === undefined ? undefined : itemsById(pack).get(term.item)?.qualifiers[term.qualifier]
  return qualifier === undefined ? names : `${names}, ${qualifier.label}`
}

/**
 * What a rule asks of a finding, without its name.
 * @example criterionWords(view, leaf) // 'at least 3 mm more than on the other side'
 */
export function criterionWords(pack: AnyPack, leaf: Leaf): string {
  if (leaf.type === 'weak') return WEAK
  if (leaf.type === 'differs') return 'different from the other side'
  if (leaf.type !== 'compare') return ''
  const { term, cmp, operand, over } = leaf
  const item = itemsById(pack).get(term.item)
  const unit = term.fn === 'deficit' ? '%' : (term.qualifier === undefined ? item : item?.qualifiers[term.qualifier])?.unit
  const asked = ((): string => {
    if (term.fn === 'diff' || term.fn === 'deficit') return sidesWords(cmp, Number(operand[0]), term.fn === 'deficit' ? 'less' : 'more', unit)
    if (term.fn === 'change') return `${changeWords(cmp, Number(operand[0]), unit)} since the previous check${windowWords(term.window)}`
    const value = withUnit(operand.join(cmp === 'has-all' ? ' and ' : ' or '), unit)
    if (term.fn === 'gap') return `passive exceeds active by ${COMPARED[cmp](value)}`
    return `${COMPARED[cmp](value)}${term.fn === 'other' ? ' on the other side' : ''}`
  })()
  return `${asked}${OVER[over]}`
}

const withUnit = (value: string, unit: string | undefined): string =>
  unit === undefined || !/^-?[\d.]/.test(value) ? value : unit === '°' ? `${value}°` : `${value} ${unit}`

/** A difference between the sides, this one less the other. @example sidesWords('<', 0, 'more', undefined) // 'less than on the other side' */
function sidesWords(cmp: Comparator, than: number, more: 'more' | 'less', unit: string | undefined): string {
  const less = more === 'more' ? 'less' : 'more'
  const size = withUnit(String(Math.abs(than)), unit)
  const by = (word: string, isFull: boolean): string => (than === 0 && isFull ? `${word} than` : `${isFull ? 'over' : 'at least'} ${size} ${word} than`)
  if (cmp === '=') return than === 0 ? 'the same as on the other side' : `${size} ${than > 0 ? more : less} than on the other side`
  if (cmp === '!=') return than === 0 ? 'different from the other side' : `not ${size} ${than > 0 ? more : less} than on the other side`
  const isMore = cmp === '>' || cmp === '>='
  const isStrict = cmp === '>' || cmp === '<'
  const isReached = isMore ? than >= 0 : than <= 0
  return isReached
    ? `${by(isMore ? more : less, isStrict)} on the other side`
    : `${isStrict ? 'under' : 'at most'} ${size} ${isMore ? less : more} than on the other side`
}

/** @example changeWords('<', 0, undefined) // 'fallen' */
function changeWords(cmp: Comparator, by: number, unit: string | undefined): string {
  const size = withUnit(String(Math.abs(by)), unit)
  if (cmp === '=') return by === 0 ? 'unchanged' : `changed by ${size}`
  const way = cmp === '>' || cmp === '>=' ? 'risen' : 'fallen'
  return by === 0 ? way : `${way} by ${size} or more`
}

/** The rules of a calculated value in words: when it holds, each rung, or each part with its points. */
export function calcLines(pack: AnyPack, calc: Calc): RuleLine[] {
  const when = (title: string, rule: RuleNode): RuleLine => ({ text: title, kids: [ruleLines(pack, rule)] })
  return [
    ...(calc.validWhen ? [when('Valid when', calc.validWhen)] : []),
    ...(calc.when ? [ruleLines(pack, calc.when)] : []),
    ...calc.ladder.map((rung) => when(rung.value, rung.when)),
    ...calc.points.map((part) => when(counted(part.points, 'point', 'points'), part.when)),
  ]
}
