import { counted, singular } from '../model/plural.js'
import { NORMAL, type Item, type Scalar } from '../model/item.js'
import { type RegionPack } from '../pack/pack.js'
import { itemsById } from '../pack/itemsById.js'
import type { FindingEntry } from '../record/entry.js'
import { isGapEntry } from '../record/gaps.js'
import { dayAndTime, dayOnly } from './times.js'

/** What was recorded, as a physician would write it: the value with its unit, then what qualifies it. A moment is told in the time zone that is given. */
export function findingWords(pack: RegionPack, entry: Pick<FindingEntry, 'item' | 'state' | 'value' | 'qualifiers' | 'reason'>, zone?: string): string {
  const item = itemsById(pack).get(entry.item)
  if (entry.state === 'could-not') return `could not be done (${entry.reason ?? 'no reason given'})`
  if (entry.state === 'not-valid') return `not valid (${entry.reason ?? 'technique lost'})`
  if (entry.state === 'not-examined') return 'not examined'
  if (!item) return String(entry.value)
  if (item.kind === 'moment') return momentWords(String(entry.value), entry.qualifiers?.precision, zone)
  const parts = [valueWords(pack, item, entry.value), ...qualifierWords(item, entry.qualifiers ?? {})].filter((part) => part !== '')
  return parts.join(', ')
}

function valueWords(pack: RegionPack, item: Item, value: FindingEntry['value']): string {
  if (value === undefined) return ''
  if (value === NORMAL && item.normalSpan) return normalWords(item, item.normalSpan.says)
  if (Array.isArray(value)) return value.join(', ')
  if (typeof value === 'number') return withUnit(value, item.unit)
  const scale = item.scale === undefined ? undefined : pack.scales.find((s) => s.id === item.scale)
  const word = scale?.words[scale.grades.indexOf(String(value))]
  return word !== undefined && word !== String(value) ? `${String(value)} (${word})` : String(value)
}

/** How a range reads that was found normal and not measured: an angle is then told as a visual estimate. @example normalWords(flexion, 'full') // 'full, visual estimate' */
export const normalWords = ({ kind }: Pick<Item, 'kind'>, says: string): string => (kind === 'angle' ? `${says}, visual estimate` : says)

/** No more exact than it was told. @example momentWords('2026-03-01T09:00:00Z', 'week', 'UTC') // 'about 1 Mar 2026, to the week' */
function momentWords(at: string, precision: Scalar | readonly string[] | undefined, zone: string | undefined): string {
  if (precision === 'day') return dayOnly(at, zone)
  if (precision === 'week' || precision === 'month') return `about ${dayOnly(at, zone)}, to the ${precision}`
  return `${precision === 'hour' ? 'about ' : ''}${dayAndTime(at, zone)}`
}

/** @example withUnit(1, 'joints') // "1 joint" */
function withUnit(exact: number, unit: string | undefined): string {
  const value = Math.round(exact * 100) / 100
  return unit === undefined ? String(value) : unit === '°' ? `${value}°` : counted(value, singular(unit), unit)
}

function qualifierWords(item: Item, qualifiers: Readonly<Record<string, Scalar | readonly string[]>>): string[] {
  const order = Object.keys(item.qualifiers)
  const inOrder = Object.entries(qualifiers).sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
  return inOrder.flatMap(([name, value]) => {
    const { label, unit } = item.qualifiers[name] ?? { label: name, unit: undefined }
    if (value === true) return label
    // That it differs from the other side shows in what is recorded of both.
    if (value === false) return name === 'equal' ? [] : `no ${label}`
    if (typeof value === 'number') return `${label} ${withUnit(value, unit)}`
    const said = typeof value === 'string' ? value : value.join(' and ')
    if (said === 'none') return `no ${label}`
    if (BARE.has(label)) return said
    return ADJECTIVES.has(label) ? `${said} ${label}` : `${label} ${said}`
  })
}

/** What is told before its name: a soft end point, a partial gap. */
const ADJECTIVES: ReadonlySet<string> = new Set(['end point', 'gap', 'pain', 'apprehension', 'cord', 'line', 'third'])

/** What needs no name: how it was measured, where it is, of which joint. */
const BARE: ReadonlySet<string> = new Set(
  'method what site part which features pattern appearance digit since signs colour'.split(' ').concat('new or long-standing'),
)

/** As much of a pack as naming a tier needs. */
export interface NamedTiers {
  readonly tiers: readonly { readonly id: string; readonly name: string }[]
}

/** What a tier is called. @example tierName(pack, 'now') // 'Now' */
export const tierName = ({ tiers }: NamedTiers, id: string): string => tiers.find((tier) => tier.id === id)?.name ?? id

/**
 * A range of priority in words. One that is not settled is never headed by its floor: whoever reads only the first word would go home with it.
 * @example rangeWords(pack, 'here', 'now') // 'Not settled: Here to Now'
 * @example rangeWords(pack, 'days', 'days') // 'Days'
 */
export const rangeWords = (pack: NamedTiers, floor: string, ceiling: string): string =>
  floor === ceiling ? tierName(pack, floor) : `Not settled: ${tierName(pack, floor)} to ${tierName(pack, ceiling)}`

/** What was found alike on both sides. @example onBothSides('firm end point, equal to the other side') // 'firm end point, equal on both sides' */
export const onBothSides = (words: string): string => `${words.replace(/equal to the other side$/, 'equal')} on both sides`

/** What was found on a side; `earlier` is what it was at the check before. */
export interface SidedFinding {
  readonly side: string
  readonly words: string
  readonly earlier: string
}

/**
 * The same of each side in one breath.
 * @example sidedWords([{ side: 'right', words: 'absent', earlier: 'normal 20 min before' }, { side: 'left', words: 'normal', earlier: '' }])
 * // 'absent on the right (normal 20 min before), normal on the left'
 */
function sidedWords(sides: readonly SidedFinding[]): string {
  const [first] = sides
  const onSide = (side: string): string => (sideWord(side) === '' ? '' : ` on the ${side}`)
  const before = ({ earlier }: SidedFinding): string => (earlier === '' ? '' : ` (${earlier})`)
  const isSame = ({ words, earlier }: SidedFinding): boolean => words === first?.words && earlier === first.earlier
  if (first !== undefined && sides.length > 1 && sides.every(isSame)) return `${onBothSides(first.words)}${before(first)}`
  const isLong = sides.some(({ words }) => words.includes(','))
  return sides.map((one) => `${one.words}${isLong && sides.length > 1 ? ',' : ''}${onSide(one.side)}${before(one)}`).join(isLong ? '; ' : ', ')
}

/** Both sides of each item in one breath, a line for each. @example bySide(pack, findings) // ['Dorsalis pedis pulse (DP): absent on the right, normal on the left'] */
export function bySide(pack: RegionPack, findings: readonly (SidedFinding & { readonly item: string })[]): string[] {
  const items = new Set(findings.map(({ item }) => item))
  return [...items].map((id) => `${itemsById(pack).get(id)?.label ?? id}: ${sidedWords(findings.filter(({ item }) => item === id))}`)
}

/** Without what stands in brackets at its end. @example shortLabel('Radiograph of this joint (X-ray)') // 'Radiograph of this joint' */
export const shortLabel = (label: string): string => label.replace(/ \([^)]*\)$/, '')

export const sideWord = (side: string): string => (side === 'right' ? 'right' : side === 'left' ? 'left' : '')

/** What is examined, in words. @example complaintWords({ region: 'infant-hip', sides: ['right', 'left'] }) // 'right and left infant hip' */
export const complaintWords = ({ region, sides }: { readonly region: string; readonly sides: readonly string[] }): string =>
  `${sides.map(sideWord).filter(Boolean).join(' and ')} ${region.replaceAll('-', ' ')}`.trim()

/** @example entryLine(pack, entry) // "Lachman right: 8 mm, end point soft" */
export function entryLine(
  pack: RegionPack,
  entry: Pick<FindingEntry, 'item' | 'state' | 'value' | 'qualifiers' | 'reason'> & { readonly side: string },
  zone?: string,
): string {
  const side = sideWord(entry.side)
  return `${itemsById(pack).get(entry.item)?.label ?? entry.item}${side === '' ? '' : ` ${side}`}: ${findingWords(pack, entry, zone)}`
}

/** Whether a recorded finding is outside what is normal for the item. Numbers are judged by rules, not here. */
export function isAbnormalEntry(pack: RegionPack, entry: Pick<FindingEntry, 'item' | 'state' | 'value' | 'qualifiers'>): boolean {
  const item = itemsById(pack).get(entry.item)
  if (!item || entry.state !== 'examined' || isGapEntry(item, entry)) return false
  if (Array.isArray(entry.value)) return entry.value.some((word) => !item.calm.includes(String(word)))
  if (typeof entry.value === 'string' && item.options.length > 0) return !item.calm.includes(entry.value) || oddQualifier(item, entry)
  return oddQualifier(item, entry)
}

/** A qualifier that differs from the item's normal one: a soft end point, a gap. */
function oddQualifier(item: Item, entry: Pick<FindingEntry, 'qualifiers'>): boolean {
  return Object.entries(entry.qualifiers ?? {}).some(([name, value]) => {
    const normal = item.normal?.qualifiers?.[name]
    return normal !== undefined && typeof normal === 'string' && normal !== String(value) && item.qualifiers[name]?.kind === 'choice' && name !== 'method'
  })
}

/** Whether a number was read, which says something whatever it is. */
export const isMeasured = (pack: RegionPack, entry: Pick<FindingEntry, 'item' | 'value'>): boolean => {
  const item = itemsById(pack).get(entry.item)
  return item !== undefined && item.options.length === 0 && item.kind !== 'laxity' && entry.value !== NORMAL
}
