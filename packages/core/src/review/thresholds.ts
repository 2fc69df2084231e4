import { itemsById } from '../pack/itemsById.js'
import type { Pack, RegionPack } from '../pack/pack.js'
import { viewOf } from '../pack/view.js'
import { rulesOfCalc } from '../rules/calc.js'
import { leavesOf } from '../rules/leaves.js'
import type { Leaf, RuleNode } from '../rules/rule.js'

/** One number that a rule compares with, and where it comes from. */
export interface Threshold {
  readonly item: string
  /** What of the item is compared: its value, or the difference between the sides, the change, a qualifier. */
  readonly of: string
  readonly comparator: string
  readonly value: string
  readonly unit: string
  /** Kind and id of what reads it. */
  readonly kind: 'flag' | 'condition' | 'score' | 'prompt' | 'hold' | 'modifier'
  readonly id: string
  readonly region: string
  readonly source: string
  readonly certainty: string
}

interface Owner extends Pick<Threshold, 'kind' | 'id' | 'source' | 'certainty'> {
  readonly rules: readonly RuleNode[]
}

/**
 * Every threshold of a pack, region by region: what a clinical reviewer checks against the literature.
 * @example thresholdsOf(pack).find((one) => one.item === 'vascular.ankle-index')?.value // '0.90'
 */
export const thresholdsOf = (pack: Pack): readonly Threshold[] => pack.regions.flatMap(({ id }) => thresholdsIn(viewOf(pack, id)))

function thresholdsIn(view: RegionPack): Threshold[] {
  const found = new Map<string, Threshold>()
  for (const { rules, ...owner } of ownersIn(view))
    for (const leaf of rules.flatMap(leavesOf)) {
      const read = numberOf(leaf, view)
      if (read) found.set([owner.kind, owner.id, ...Object.values(read)].join('|'), { ...read, ...owner, region: view.regions[0].id })
    }
  return [...found.values()]
}

function ownersIn({ flags, calcs, prompts, holds, modifiers, conditions }: RegionPack): Owner[] {
  const expert = { source: 'expert', certainty: 'expert' }
  const from = (source: string): Pick<Owner, 'source' | 'certainty'> => ({ source, certainty: source === 'expert' ? 'expert' : 'named' })
  return [
    ...flags.map(({ id, inPlay, clauses, source }): Owner => ({ kind: 'flag', id, rules: [inPlay, ...clauses.map(({ when }) => when)], ...from(source) })),
    ...calcs.map((calc): Owner => ({ kind: 'score', id: calc.id, rules: rulesOfCalc(calc), ...from(calc.source) })),
    ...prompts.map(({ id, when }): Owner => ({ kind: 'prompt', id, rules: [when], ...expert })),
    ...holds.map(({ id, when, source }): Owner => ({ kind: 'hold', id, rules: [when], ...from(source) })),
    ...modifiers.map(({ id, when, source }): Owner => ({ kind: 'modifier', id, rules: [when], ...from(source) })),
    ...conditions.flatMap(({ id, gate, evidence }): Owner[] => [
      ...(gate ? [{ kind: 'condition' as const, id, rules: [gate], ...expert }] : []),
      ...evidence.map(({ when, source, certainty }) => ({ kind: 'condition' as const, id, rules: [when], source, certainty })),
    ]),
  ]
}

function numberOf(leaf: Leaf, view: RegionPack): Pick<Threshold, 'item' | 'of' | 'comparator' | 'value' | 'unit'> | undefined {
  if (leaf.type === 'calc') {
    const isNumber = leaf.cmp !== 'is' && leaf.operand.every(isFigure)
    return isNumber ? { item: leaf.calc, of: 'value', comparator: leaf.cmp, value: leaf.operand.join(' '), unit: '' } : undefined
  }
  if (leaf.type !== 'compare' || leaf.cmp === 'is' || !leaf.operand.every(isFigure)) return undefined
  const { term, cmp, operand } = leaf
  const item = itemsById(view).get(term.item)
  const unit = (term.qualifier === undefined ? item?.unit : item?.qualifiers[term.qualifier]?.unit) ?? (item?.scale ? `grade of ${item.scale}` : '')
  const of = [term.fn, ...(term.qualifier === undefined ? [] : [term.qualifier])].join(' ')
  return { item: [term.item, ...(term.more ?? [])].join(' '), of, comparator: cmp, value: operand.join(' '), unit: term.fn === 'deficit' ? '%' : unit }
}

const isFigure = (word: string): boolean => word !== '' && !Number.isNaN(Number(word))

const COLUMNS = ['item', 'of', 'comparator', 'value', 'unit', 'kind', 'id', 'region', 'source', 'certainty'] as const

/** The same as comma-separated values (RFC 4180), with a line of headings. */
export const thresholdsCsv = (thresholds: readonly Threshold[]): string =>
  [COLUMNS.join(','), ...thresholds.map((one) => COLUMNS.map((column) => cell(one[column])).join(','))].join('\r\n')

const cell = (text: string): string => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text)
