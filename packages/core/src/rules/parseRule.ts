import { oncePer } from '../model/oncePer.js'
import { singular } from '../model/plural.js'
import type { Comparator, Leaf, RuleNode, Term } from './rule.js'

/** A rule as it is written in YAML: a leaf in words, or one of the five structure keys. */
export type RuleSource =
  | string
  | { readonly all: readonly RuleSource[] }
  | { readonly any: readonly RuleSource[] }
  | { readonly not: RuleSource }
  | { readonly proven: RuleSource }
  | { readonly atLeast: { readonly n: number; readonly of: readonly RuleSource[] } }

/** What a name in a rule stands for. Supplied by the compiler, which knows every id of the pack. */
export interface Names {
  resolve(path: string): { kind: 'item'; item: string; qualifier?: string } | { kind: 'calc'; calc: string } | undefined
  /** In what a number of an item or a qualifier is counted; undefined for words, and for what is counted in nothing. */
  unit(item: string, qualifier?: string): string | undefined
  /** The words that an item or a qualifier may be recorded with; none where it is recorded with a number, a time or free text. */
  words(item: string, qualifier?: string): readonly string[]
  set(name: string): readonly string[] | undefined
  flag(id: string): boolean
  hold(id: string): boolean
  /** The rule that a named criterion stands for. @param self what uses it */
  criterion(id: string, self: string): RuleSource | undefined
}

export class RuleError extends Error {
  override readonly name = 'RuleError'
  constructor(
    readonly code: 'rule-syntax' | 'unknown-name' | 'unit' | 'unknown-word',
    message: string,
    readonly cure: string,
  ) {
    super(message)
  }
}

/**
 * Reads a rule of the pack.
 * @param self id of the flag or hold that owns the rule; `any-flag` compares with it
 * @throws RuleError `rule-syntax`, `unknown-name`, `unit` or `unknown-word`, with a sentence that says how to mend it
 * @example parseRule({ all: ['story.trauma', 'patient.age-years >= 55 years'] }, names, 'knee.calc.ottawa')
 */
export function parseRule(source: RuleSource, names: Names, self: string): RuleNode {
  if (typeof source === 'string') return namedRule(source, names, self) ?? leafNode(source, names, self)
  if ('all' in source) return { op: 'all', of: parseMembers(source.all, names, self) }
  if ('any' in source) return { op: 'any', of: parseMembers(source.any, names, self) }
  if ('not' in source) return { op: 'not', of: [parseRule(source.not, names, self)] }
  if ('proven' in source) return { op: 'proven', of: [parseRule(source.proven, names, self)] }
  if ('atLeast' in source) return { op: 'atLeast', n: source.atLeast.n, of: parseMembers(source.atLeast.of, names, self) }
  throw new RuleError('rule-syntax', `"${JSON.stringify(source)}" is not a rule`, 'use all, any, not, proven, atLeast or a leaf in words')
}

/** A criterion is read where it is named, as if it were written there. */
function namedRule(text: string, names: Names, self: string): RuleNode | undefined {
  const id = /^criterion\(([a-z0-9.-]+)\)$/.exec(text)?.[1]
  if (id === undefined) return undefined
  const source = names.criterion(id, self)
  if (source === undefined) throw new RuleError('unknown-name', `the criterion "${id}" is not defined`, 'define it under content/criteria')
  return parseRule(source, names, self)
}

/** Every leaf of one region is read once, however many rules use it; only `any-flag` means something else for each owner. */
const leavesRead = oncePer<Names, Map<string, RuleNode>>(() => new Map())
function leafNode(text: string, names: Names, self: string): RuleNode {
  const known = leavesRead(names)
  const kept = known.get(text)
  if (kept) return kept
  const node: RuleNode = { op: 'leaf', leaf: parseLeaf(text, names, self) }
  if (!text.includes('any-flag')) known.set(text, node)
  return node
}

/** A leaf that names a `$set` stands for one leaf for each member, so it may only stand in a list. */
function parseMembers(members: readonly RuleSource[], names: Names, self: string): RuleNode[] {
  const parsed: RuleNode[] = []
  for (const member of members) {
    const set = typeof member === 'string' && member.includes('$') ? /\$[a-z-]+(?:\.[a-z-]+)*/.exec(member)?.[0] : undefined
    if (set === undefined || typeof member !== 'string' || member.startsWith('all-examined')) {
      parsed.push(parseRule(member, names, self))
      continue
    }
    const ids = names.set(set)
    if (!ids) throw new RuleError('unknown-name', `the set "${set}" is not defined`, 'define it under sets in pack.yaml or the region')
    for (const id of ids) parsed.push(parseRule(member.replace(set, id), names, self))
  }
  return parsed
}

const OPERATOR = /\s*(!=|<=|>=|=|<|>)\s+|\s+(in|has-any|has-all|has)\s+/
const CALL = /^([a-z-]+)\((.*)\)$/
const TERM_FUNCTIONS = ['other', 'diff', 'deficit', 'gap', 'worst', 'change'] as const

function parseLeaf(text: string, names: Names, self: string): Leaf {
  const trimmed = text.trim()
  if (trimmed === 'always') return { type: 'always', text: trimmed }
  const outer = CALL.exec(trimmed)
  if (outer?.[1] === 'either' || outer?.[1] === 'both') {
    const inner = parseLeaf(outer[2] ?? '', names, self)
    if (inner.type !== 'compare' && inner.type !== 'calc')
      throw new RuleError('rule-syntax', `${outer[1]}() takes a comparison, not "${outer[2] ?? ''}"`, 'compare an item')
    return { ...inner, text: trimmed, over: outer[1] }
  }
  const compared = OPERATOR.exec(trimmed)
  if (compared)
    return comparison(
      trimmed,
      trimmed.slice(0, compared.index),
      (compared[1] ?? compared[2]) as Comparator,
      trimmed.slice(compared.index + compared[0].length),
      names,
    )
  if (outer) return stateLeaf(trimmed, outer[1] ?? '', splitList(outer[2] ?? ''), names, self)
  return comparison(trimmed, trimmed, 'is', '', names)
}

function comparison(text: string, left: string, cmp: Comparator, right: string, names: Names): Leaf {
  const operand = cmp === 'is' ? [] : parseOperand(right)
  const call = CALL.exec(left)
  if (!call) {
    const found = names.resolve(left)
    if (!found) throw unknownName(left, text)
    if (found.kind === 'calc') return { type: 'calc', text, over: 'this', calc: found.calc, cmp, operand }
    const unit = names.unit(found.item, found.qualifier)
    knownWords(operand, names.words(found.item, found.qualifier), text)
    return { type: 'compare', text, over: 'this', term: term('value', found), cmp, operand: inUnit(operand, unit, text) }
  }
  const fn = TERM_FUNCTIONS.find((name) => name === call[1])
  if (!fn) throw new RuleError('rule-syntax', `"${call[1] ?? ''}" is not a function of a leaf, in "${text}"`, `use one of ${TERM_FUNCTIONS.join(', ')}`)
  const args = splitList(call[2] ?? '')
  const window = fn === 'change' ? hoursOf(args[1], text) : {}
  const [first, ...more] = (fn === 'change' ? args.slice(0, 1) : args).map((path) => itemPath(path, text, names))
  if (!first) throw unknownName('', text)
  if (fn === 'other' || fn === 'worst') knownWords(operand, names.words(first.item, first.qualifier), text)
  return {
    type: 'compare',
    text,
    over: 'this',
    term: { ...term(fn, first), ...(more.length ? { more: more.map((m) => m.item) } : {}), ...window },
    cmp,
    operand: inUnit(operand, fn === 'deficit' ? '%' : names.unit(first.item, first.qualifier), text),
  }
}

const NUMBER = /^(-?\d+(?:\.\d+)?)\s*(.*)$/

/**
 * The numbers of a comparison, each of which names the unit of what it is compared with.
 * @throws RuleError `unit` where it names none or another
 * @example inUnit(['5 mm'], 'mm', 'knee.test.lachman >= 5 mm') // ['5']
 */
function inUnit(operand: readonly string[], unit: string | undefined, text: string): readonly string[] {
  if (unit === undefined) return operand
  return operand.map((word) => {
    const [, number, named] = NUMBER.exec(word) ?? []
    if (number === undefined) return word
    const isOne = Number(number) === 1 && named === singular(unit)
    if (named !== unit && !isOne)
      throw new RuleError('unit', `"${word}" in "${text}" is not in the unit of what it is compared with`, `write ${number}${unit === '°' ? '' : ' '}${unit}`)
    return number
  })
}

/** @throws RuleError `unknown-word` for a word that the item is never recorded with: such a rule could never hold */
function knownWords(operand: readonly string[], words: readonly string[], text: string): void {
  const unknown = words.length === 0 ? undefined : operand.find((word) => !words.includes(word))
  if (unknown !== undefined) throw new RuleError('unknown-word', `"${unknown}" in "${text}" is not among the options`, `write one of: ${words.join(', ')}`)
}

/** How far back a comparison with an earlier check looks: `48h`, `7d`. */
function hoursOf(written: string | undefined, text: string): { readonly window?: number } {
  if (written === undefined) return {}
  const [, count, unit] = /^(\d+)([hd])$/.exec(written) ?? []
  if (count === undefined) throw new RuleError('rule-syntax', `"${written}" is no time, in "${text}"`, 'write hours or days: 48h, 7d')
  return { window: Number(count) * (unit === 'd' ? 24 : 1) }
}

function stateLeaf(text: string, fn: string, args: readonly string[], names: Names, self: string): Leaf {
  const first = args[0] ?? ''
  switch (fn) {
    case 'weak':
    case 'differs':
      return { type: fn, text, item: itemPath(first, text, names).item }
    case 'unseen':
    case 'not-valid':
      return { type: fn, text, item: itemPath(first, text, names).item }
    case 'rechecked':
      return { type: fn, text, item: itemPath(first, text, names).item, ...hoursOf(args[1], text) }
    case 'could-not':
      return { type: 'could-not', text, item: itemPath(first, text, names).item, ...(args[1] ? { reason: args[1] } : {}) }
    case 'all-examined': {
      const items = names.set(first)
      if (!items) throw new RuleError('unknown-name', `the set "${first}" is not defined, in "${text}"`, 'define the set')
      return { type: 'all-examined', text, items }
    }
    case 'flag':
    case 'inPlay':
      if (!names.flag(first)) throw unknownName(first, text)
      return { type: fn === 'flag' ? 'flag' : 'in-play', text, ref: first }
    case 'hold':
      if (!names.hold(first)) throw unknownName(first, text)
      return { type: 'hold', text, ref: first }
    case 'any-flag':
      return { type: 'any-flag', text, self }
    default:
      throw new RuleError('rule-syntax', `"${fn}" is not a word of the rule language, in "${text}"`, 'see docs/rules.md for the words a leaf may use')
  }
}

function itemPath(path: string, text: string, names: Names): { item: string; qualifier?: string } {
  const found = names.resolve(path)
  if (!found || found.kind === 'calc') throw unknownName(path, text)
  return found
}

const term = (fn: Term['fn'], path: { item: string; qualifier?: string }): Term => ({
  fn,
  item: path.item,
  ...(path.qualifier === undefined ? {} : { qualifier: path.qualifier }),
})

const unknownName = (name: string, text: string): RuleError =>
  new RuleError('unknown-name', `"${name}" in "${text}" is no item, qualifier, calculated value, flag or hold of this pack`, 'correct the id, or define it')

function parseOperand(text: string): string[] {
  const set = /^\{(.*)\}$/.exec(text.trim())
  return set ? splitList(set[1] ?? '') : [unquote(text.trim())]
}

const splitList = (text: string): string[] => (text.match(/\s*"[^"]*"|[^,]+/g) ?? []).map((part) => unquote(part.trim())).filter((part) => part !== '')

const unquote = (text: string): string => (text.length > 1 && text.startsWith('"') && text.endsWith('"') ? text.slice(1, -1) : text)
