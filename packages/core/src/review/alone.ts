import { judgement } from '../judge/judge.js'
import { rejudge } from '../judge/rejudge.js'
import { tierRank, type Tier } from '../model/tier.js'
import type { Item } from '../model/item.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import type { FindingEntry } from '../record/entry.js'
import { sidesOf } from '../record/examinedNormal.js'
import { AT, calmRecord, DAY, examinationOf, idsFrom, toldOf } from './calmRecord.js'
import { deservedIn, type LeastTier, type LeastTiers } from './least.js'
import { problem } from './lintProblem.js'

/** One abnormal value, recorded in one context: what it deserves by itself, and what the rules make of it. */
export interface AloneRow {
  readonly item: string
  readonly label: string
  readonly value: string
  readonly context: string
  /** Undefined where no statement says. */
  readonly deserved: LeastTier | undefined
  readonly floor: Tier
  readonly ceiling: Tier
  /** Flags above Here, and no others. */
  readonly flags: readonly string[]
}

/** What else is recorded beside the one value. */
const CONTEXTS: Readonly<Record<string, (view: RegionPack) => readonly FindingEntry[]>> = {
  'nothing else': () => [],
  'the rest normal': calmRecord,
  'injury today': (view) => told(view, { 'story.trauma': 'present', 'story.onset-at': AT }),
  child: (view) => told(view, { 'patient.age-years': 8 }),
  'fall at 80': (view) => told(view, { 'patient.age-years': 80, 'story.trauma': 'present', 'story.onset-at': AT }),
  fever: (view) => told(view, { 'story.fever': 'present' }),
  immunosuppressed: (view) => told(view, { 'patient.immunosuppressed': ['chemotherapy'] }),
  anticoagulated: (view) => told(view, { 'patient.anticoagulant': ['warfarin'] }),
  'replaced joint': (view) => sided(view, { 'patient.prosthesis-here': 'total' }),
  pregnant: (view) => told(view, { 'patient.age-years': 30, 'patient.pregnant': 'yes' }),
  'onset months ago': (view) => told(view, { 'story.onset-at': new Date(Date.parse(AT) - 200 * DAY).toISOString() }),
}

/** What is told of the joint in question. */
const sided = (view: RegionPack, facts: Readonly<Record<string, string>>): FindingEntry[] =>
  view.items.flatMap((item) => {
    const value = facts[item.id.replace(`${view.regions[0].id}.`, '')]
    return value === undefined ? [] : [{ ...entryOf(item, value), id: idsFrom(94_000)() }]
  })

/** What is told of the person or the episode, where the region asks it. */
const told = (view: RegionPack, facts: Readonly<Record<string, string | number | readonly string[]>>): FindingEntry[] => {
  const known = Object.entries(facts).filter(([id]) => view.items.some((item) => item.id === id))
  return toldOf(Object.fromEntries(known), idsFrom(90_000))
}

/**
 * Every abnormal word of every item of a region, alone and in each of a set of contexts: what a clinical reviewer reads first.
 * @param least what values deserve by themselves (`leastTiers`)
 * @example aloneRows(viewOf(pack, 'knee'), least).find((row) => row.item === 'vascular.pulse-dorsalis-pedis' && row.value === 'absent')?.floor // 'now'
 */
export const aloneRows = (view: RegionPack, least: LeastTiers): AloneRow[] => rowsOf(view, least, () => true)

/** The same of the values alone that deserve a tier: what the rules are held against. */
export const deservingRows = (view: RegionPack, least: LeastTiers): AloneRow[] =>
  rowsOf(view, least, (deserved) => deserved !== undefined && deserved.tier !== 'none')

function rowsOf(view: RegionPack, least: LeastTiers, isWanted: (deserved: LeastTier | undefined) => boolean): AloneRow[] {
  const contexts = Object.entries(CONTEXTS).map(([context, entriesOf]) => {
    const entries = entriesOf(view)
    return { context, entries, told: new Set(entries.map((entry) => entry.item)), before: judgement(view, examinationOf(view, entries)) }
  })
  return view.items.flatMap((item) =>
    [...(least.get(item.id)?.keys() ?? [])].flatMap((value) =>
      contexts.flatMap(({ context, entries, told: known, before }) => {
        const deserved = deservedIn(least.get(item.id)?.get(value), context)
        if (!isWanted(deserved)) return []
        const entry = entryOf(item, value)
        const others = (): FindingEntry[] => entries.filter((one) => one.item !== item.id)
        // What nothing else was recorded of is added to the verdict of the context.
        const { verdict } = known.has(item.id) ? judgement(view, examinationOf(view, [...others(), entry])) : rejudge(before, entry)
        const { floor, ceiling, flags } = verdict
        const raised = flags.filter(({ tier }) => tier !== 'here').map(({ id }) => id)
        return [{ item: item.id, label: item.label, value, context, deserved, floor, ceiling, flags: raised }]
      }),
    ),
  )
}

export function entryOf(item: Item, value: string): FindingEntry {
  const [side = 'right'] = sidesOf(item, ['right'])
  return {
    id: idsFrom(95_000)(),
    item: item.id,
    side,
    state: 'examined',
    value: item.kind === 'multi' ? [value] : item.options.length > 0 ? value : Number(value),
    by: 'report',
    at: AT,
  }
}

/** Values that the rules leave below what they deserve by themselves. */
export const tooLow = (rows: readonly AloneRow[]): Problem[] =>
  rows.flatMap(({ item, label, value, context, deserved, floor }) =>
    deserved === undefined || deserved.tier === 'none' || tierRank(floor) <= tierRank(deserved.tier)
      ? []
      : [
          problem(
            item,
            `"${label}: ${value}" deserves ${deserved.tier} by itself (${deserved.because}) and is ${floor} with ${context}`,
            'let a clause be met by it, or state otherwise',
          ),
        ],
  )

/** The rows as tab-separated values with a head. */
export const aloneTable = (rows: readonly AloneRow[]): string =>
  [
    ['item', 'label', 'value', 'context', 'deserved', 'floor', 'ceiling', 'flags'],
    ...rows.map(({ item, label, value, context, deserved, floor, ceiling, flags }) => [
      item,
      label,
      value,
      context,
      deserved?.tier ?? 'not stated',
      floor,
      ceiling,
      flags.join(' '),
    ]),
  ]
    .map((cells) => cells.join('\t'))
    .join('\n')
