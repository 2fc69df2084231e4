import { load } from 'js-yaml'
import { judge } from '../judge/judge.js'
import type { Side } from '../model/side.js'
import { tierRank, type Tier } from '../model/tier.js'
import { itemsById } from '../pack/itemsById.js'
import type { Pack, RegionPack } from '../pack/pack.js'
import { viewOf } from '../pack/view.js'
import type { FindingEntry } from '../record/entry.js'
import { examinedNormal } from '../record/examinedNormal.js'
import { DAY, idsFrom, toldOf } from './calmRecord.js'

/** When a case is judged, and when what it changes in a calm record had been found normal. */
export const CASE_TIME = '2026-03-10T09:00:00.000Z'
const EARLIER = '2026-03-10T08:58:00.000Z'

type Told = FindingEntry['value'] | { readonly daysAgo: number } | Partial<FindingEntry>

/** A patient in a few findings, with the priority that a careful physician gives. Our own inventions. */
export interface Case {
  readonly id: string
  readonly tells: string
  /** Years. */
  readonly age: number
  /** By item, with ` left` or ` right` after it for a side other than the sore one, which is the right. */
  readonly findings: Readonly<Record<string, Told>>
  /** Core items that nobody examined. */
  readonly unexamined?: readonly string[]
  readonly floor?: Tier
  readonly ceiling?: Tier
  /** The range must still be open. */
  readonly unsettled?: boolean
  readonly fires?: readonly string[]
  readonly silent?: readonly string[]
  readonly because?: string
  /** What it guards against: calling the harmless urgent, or being calmed by a reassuring or contradictory finding. */
  readonly about?: 'calm' | 'contradictory'
}

/** The cases of a region: over a calm and complete record, or, sparse, over nothing at all. */
export interface CaseFile {
  readonly region: string
  readonly sparse?: boolean
  readonly cases: readonly Case[]
}

export const readCases = (text: string): CaseFile => load(text) as CaseFile

/**
 * The record that a case tells.
 * @throws when it names an item that the region does not have
 */
export function caseRecord(view: RegionPack, one: Case, sparse: boolean): FindingEntry[] {
  const newId = idsFrom(0)
  const said = Object.entries({ 'patient.age-years': one.age, ...one.findings })
  const entries = said.map(([key, told]) => entryTold(view, key, told, newId()))
  if (sparse) return entries
  const facts = { ...view.regions[0].ordinary, 'patient.age-years': one.age, 'patient.bmi': 25, 'patient.sex': 'female', 'story.onset-at': ago(21) }
  const known = Object.fromEntries(Object.entries(facts).filter(([id]) => view.items.some((item) => item.id === id)))
  const calm = [...examinedNormal(view, ['card', 'core'], { by: 'report', at: EARLIER, newId }), ...toldOf(known, newId, EARLIER)]
  return [...calm.filter(({ item }) => !one.unexamined?.includes(item)), ...entries]
}

const ago = (days: number): string => new Date(Date.parse(CASE_TIME) - days * DAY).toISOString()

function entryTold(view: RegionPack, key: string, told: Told, id: string): FindingEntry {
  const [name = '', named] = key.split(' ')
  const items = itemsById(view)
  const item = items.get(name) ?? items.get(`${view.regions[0].id}.${name}`)
  if (!item) throw new Error(`a case of the ${view.regions[0].id} names "${name}", which is no item of it`)
  const side = item.sided ? ((named as Side | undefined) ?? 'right') : 'none'
  const rest = wholeOf(told)
  const value = 'value' in rest && item.kind === 'grade' && typeof rest.value === 'number' ? { value: String(rest.value) } : {}
  return { state: 'examined', by: 'report', at: CASE_TIME, ...rest, ...value, id, item: item.id, side } as FindingEntry
}

const isShort = (told: Told): told is FindingEntry['value'] => typeof told !== 'object' || Array.isArray(told)

function wholeOf(told: Told): Partial<FindingEntry> {
  if (isShort(told)) return { value: told } as Partial<FindingEntry>
  return 'daysAgo' in told ? { value: ago(told.daysAgo), qualifiers: { precision: 'exact' } } : told
}

/** How the cases that state a priority are judged: what is too slow can harm, what is too fast swamps a service. */
export interface CasesReport {
  readonly all: number
  readonly sparse: number
  /** Of under 16 years. */
  readonly children: number
  /** That must not be called more urgent than they are. */
  readonly calm: number
  /** With a reassuring result that clears nothing, or findings that contradict each other. */
  readonly contradictory: number
  readonly slow: readonly string[]
  readonly fast: readonly string[]
}

/** @example casesReport(pack, texts).slow // [] */
export function casesReport(pack: Pack, texts: readonly string[]): CasesReport {
  const told = texts.flatMap((text) => {
    const { region, sparse = false, cases } = readCases(text)
    const view = viewOf(pack, region)
    return cases.map((one) => ({ one, sparse, name: `${region}: ${one.tells}`, off: offBy(view, one, sparse) }))
  })
  return {
    all: told.length,
    sparse: told.filter(({ sparse }) => sparse).length,
    children: told.filter(({ one }) => one.age < 16).length,
    calm: told.filter(({ one }) => one.about === 'calm').length,
    contradictory: told.filter(({ one }) => one.about === 'contradictory').length,
    slow: told.filter(({ off }) => off > 0).map(({ name }) => name),
    fast: told.filter(({ off }) => off < 0).map(({ name }) => name),
  }
}

/** Tiers too slow; below 0 too fast, 0 where the case states none. */
function offBy(view: RegionPack, one: Case, sparse: boolean): number {
  if (one.floor === undefined) return 0
  const examination = { complaint: { region: view.regions[0].id, sides: ['right' as const] }, asOf: CASE_TIME, entries: caseRecord(view, one, sparse) }
  return tierRank(judge(view, examination).floor) - tierRank(one.floor)
}
