import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import {
  compilePack,
  viewOf,
  examinedNormal,
  itemsById,
  judgement,
  type Entry,
  type FindingEntry,
  type Examination,
  type Finding,
  type Pack,
  type RegionPack,
  type Side,
  type SourceFile,
} from '../src/index.js'

const CONTENT = join(import.meta.dirname, '../../../content')
const walk = (dir: string): string[] =>
  readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? walk(join(dir, name)) : [join(dir, name)]))

/** The hand-written cases, one file a region. */
export const caseFiles = (): string[] => walk(join(CONTENT, 'cases')).map((path) => readFileSync(path, 'utf8'))

/** The content files, of all regions or of one with what is shared. */
export const contentFiles = (region?: string): SourceFile[] =>
  walk(CONTENT)
    .filter((path) => path.endsWith('.yaml'))
    .map((path) => ({ path: relative(CONTENT, path), text: readFileSync(path, 'utf8') }))
    .filter(({ path }) => !path.startsWith('cases/'))
    .filter(({ path }) => region === undefined || !path.startsWith('regions/') || path.startsWith(`regions/${region}/`))
    .sort((a, b) => (a.path < b.path ? -1 : 1))

/** The pack of one region as a site with its own profile compiles it. */
export function packWith(region: string, profile: { readonly choices: readonly object[]; readonly windows?: object; readonly journeyHours?: number }): Pack {
  const text = JSON.stringify({ profile })
  const key = `${region} ${text}`
  const pack = packsMade.get(key) ?? compilePack(contentFiles(region).map((file) => (file.path === 'profile.yaml' ? { ...file, text } : file)))
  packsMade.set(key, pack)
  return pack
}
const packsMade = new Map<string, Pack>()

let kept: Pack | undefined
export const thePack = (): Pack => (kept ??= compilePack(contentFiles()))
export const theKnee = (): RegionPack => viewOf(thePack(), 'knee')

export const AS_OF = '2026-03-10T09:00:00.000Z'
let count = 0
export const newId = (): string => `01920000-0000-7000-8000-${String(++count).padStart(12, '0')}`

export interface Told extends Finding {
  readonly side?: Side
  readonly state?: FindingEntry['state']
  readonly reason?: string
}

/** Short form for tests: item (with or without its region), then a value, words, or a whole finding. A side other than the sore one is given in it. */
export type Findings = Readonly<Record<string, string | number | readonly string[] | Told>>

const isTold = (value: Findings[string]): value is Told => typeof value === 'object' && !Array.isArray(value)

export function entriesFor(findings: Findings, sore: Side = 'right', at = AS_OF, region = 'knee'): FindingEntry[] {
  const items = itemsById(thePack())
  return Object.entries(findings).map(([key, given]) => {
    const [id = '', named] = key.split(' ')
    const item = items.get(id) ?? items.get(`${region}.${id}`)
    if (!item) throw new Error(`no item "${id}"`)
    const { side, state = 'examined', ...finding }: Told = isTold(given) ? given : { value: given }
    const about = { id: newId(), item: item.id, side: item.sided ? ((named as Side | undefined) ?? side ?? sore) : ('none' as const), by: 'test', at }
    return { ...about, ...finding, state } as FindingEntry
  })
}

export const daysAgo = (days: number): Told => ({ value: new Date(Date.parse(AS_OF) - days * 86_400_000).toISOString(), qualifiers: { precision: 'exact' } })

/** A calm knee of a 40-year-old: card and core examined and normal on both sides, begun three weeks ago. */
export const calm = (): FindingEntry[] => calmRecord(theKnee(), 40)

export const exam = (entries: readonly Entry[], side: Side = 'right'): Examination => ({ complaint: { region: 'knee', sides: [side] }, asOf: AS_OF, entries })

export const judged = (entries: readonly Entry[], side: Side = 'right') => judgement(thePack(), exam(entries, side))
export const flagIds = (entries: readonly FindingEntry[], side: Side = 'right'): string[] => judged(entries, side).verdict.flags.map((flag) => flag.id)

/** Card and core of a region examined and normal on both sides, begun three weeks ago. */
export function calmRecord(view: RegionPack, age: number | Readonly<Record<string, number>>): FindingEntry[] {
  // Two minutes before what a case tells: what it changes is no check done anew.
  const at = '2026-03-10T08:58:00.000Z'
  const told = { ...(typeof age === 'number' ? { 'patient.age-years': age } : age), 'patient.bmi': 25, 'patient.sex': 'female', 'story.onset-at': daysAgo(21) }
  return [...examinedNormal(view, ['card', 'core'], { by: 'test', at, newId }), ...entriesFor(told, 'right', at)]
}
