import { LOST_DEGREES, measurementError, restrictionOf, type Restriction } from '../measure/sideDifference.js'
import { RESISTED } from '../pack/howDone.js'
import type { Item } from '../model/item.js'
import { counted } from '../model/plural.js'
import { SIDES } from '../model/side.js'
import { isFinding } from '../record/decisions.js'
import type { FindingEntry } from '../record/entry.js'
import { heldTooShort } from '../record/heldTooShort.js'
import { earlierOf, hoursBetween } from '../record/recheck.js'
import type { ExaminationRecord } from '../record/record.js'
import { spanOf } from './times.js'

type Told = Pick<FindingEntry, 'state' | 'value' | 'qualifiers'> | undefined

/** By how much the first side differs from the other. */
interface Difference {
  readonly reading: string | undefined
  readonly by: number
  readonly error: number | undefined
  readonly sides: readonly [string, string]
}

interface LostRange {
  readonly side: string
  readonly active: number
  readonly passive: number
  readonly by: Restriction
}

type Sides = { readonly right: Told; readonly left: Told }

/**
 * What two readings of one item say beside each other: how much one side differs, against the error of measuring, and whether joint or muscle
 * takes a range away.
 * @param first the side that is named first, as a rule the sore one
 * @example readingStatements(kneeFlexion, { right: { … active 90, passive 92 }, left: { … active 140, passive 141 } })
 *   // ['passive right 49° less than left (measurement error 8°)', 'right active 90°, passive 92°: restriction of the joint']
 */
export function readingStatements(item: Item, told: Sides, first: 'right' | 'left' = 'right'): readonly string[] {
  const { difference, lost } = readTogether(item, told, first)
  const words = (size: number): string => withUnit(item, size)
  return [
    ...(difference === undefined ? [] : [differenceWords(difference, words)]),
    ...lost.map(({ side, active, passive, by }) => `${side} active ${words(active)}, passive ${words(passive)}: ${SAID[by]}`),
    ...([first, first === 'right' ? 'left' : 'right'] as const).flatMap((side) => passiveWanted(item, told, side)),
    ...shortHolds(item, told),
    ...powers(item, told),
  ]
}

/** A negative that was not held for long enough. */
const shortHolds = (item: Item, told: Sides): string[] =>
  (['right', 'left'] as const).flatMap((side) => {
    const entry = told[side]
    const held = entry?.state === 'examined' ? heldTooShort(item, entry) : undefined
    return held === undefined ? [] : [`${side} held ${held} of ${item.holdSeconds ?? 0} s: a negative result does not count`]
  })

/** What power and pain on resistance say together (Cyriax 1982): contractile tissue that hurts, is torn, or has no nerve. */
const powers = (item: Item, told: Sides): string[] =>
  (['right', 'left'] as const).flatMap((side) => {
    const entry = told[side]
    const pain = entry?.state === 'examined' ? entry.qualifiers?.[RESISTED] : undefined
    if (pain === undefined || entry?.value === undefined) return []
    const says = powerWords(String(entry.value) === item.options.at(-1), String(pain))
    return says === undefined ? [] : [`${side} ${says}`]
  })

function powerWords(isFull: boolean, pain: string): string | undefined {
  if (pain === 'gives way') return 'gives way: effort limited, the grade is not reliable'
  if (isFull) return pain === 'none' ? undefined : 'full power with pain: irritation of tendon or muscle'
  return pain === 'none' ? 'weak without pain: complete rupture or nerve' : 'weak with pain: partial tear, or inhibited by pain'
}

/** A reduced active range asks for the passive one; a full one does not. */
function passiveWanted(item: Item, told: Sides, side: 'right' | 'left'): string[] {
  const [active, passive] = [numberOf(told[side], 'active'), numberOf(told[side], 'passive')]
  const usual = numberOf(told[side === 'right' ? 'left' : 'right'], 'active') ?? item.norm
  const isAsked = item.kind === 'angle' && item.sided && item.readings.includes('passive') && passive === undefined
  if (!isAsked || active === undefined || usual === undefined || usual <= 0 || usual - active < LOST_DEGREES) return []
  return [`${side} active ${withUnit(item, active)} is reduced: the passive range tells joint from muscle, tendon or nerve`]
}

/** The same after the readings themselves, in note and letter: what is beyond the error of measuring, and no number twice. */
export function tellingStatements(item: Item, told: Sides, first: 'right' | 'left' = 'right'): readonly string[] {
  const { difference, lost } = readTogether(item, told, first)
  return [
    ...(difference === undefined || isAlike(difference) ? [] : [moreOrLess(difference, (size) => withUnit(item, size))]),
    ...lost.map(({ side, by }) => `${side} ${SAID[by]}`),
    ...shortHolds(item, told),
  ]
}

/**
 * What a reading that was taken anew says against the one before, at least five minutes earlier: a change beyond the error of measuring, or none.
 * @example serialStatements(kneeFlexion, record) // ['right passive 15° more than 2 h before (measurement error 8°)']
 */
export function serialStatements(item: Item, record: Pick<ExaminationRecord, 'slot'>): readonly string[] {
  if (item.options.length > 0 || item.kind === 'moment') return []
  return SIDES.flatMap((side) => {
    const slot = record.slot(item.id, side)
    const now = slot && isFinding(slot.standing) ? slot.standing : undefined
    const passed = slot?.passed.filter(isFinding) ?? []
    const before = earlierOf(now, passed)
    const spreads = [undefined, ...item.readings].flatMap((reading) => spreadOf(item, seriesOf(now, passed), side, reading))
    if (now === undefined || before === undefined) return spreads
    const changes = [undefined, ...item.readings].flatMap((reading) => {
      const [one, two] = [numberOf(now, reading), numberOf(before, reading)]
      if (one === undefined || two === undefined) return []
      const error = measurementError(item.kind, methodOf(now) ?? methodOf(before))
      const what = [side === 'none' ? '' : side, reading ?? ''].filter(Boolean).join(' ')
      const then = `${spanOf(hoursBetween(before, now))} before`
      const isSame = error === undefined ? one === two : Math.abs(one - two) <= error
      const against = error === undefined ? '' : ` (measurement error ${withUnit(item, error)})`
      return [`${what} ${isSame ? 'unchanged from' : `${withUnit(item, Math.abs(one - two))} ${one < two ? 'less' : 'more'} than`} ${then}${against}`.trim()]
    })
    return [...changes, ...spreads]
  })
}

const ENOUGH_FOR_SPREAD = 3

/** A reading and those before it, each at least five minutes apart: what corrects another is no reading of its own. */
function seriesOf(now: FindingEntry | undefined, passed: readonly FindingEntry[]): readonly FindingEntry[] {
  const before = earlierOf(now, passed)
  return now === undefined ? [] : before === undefined ? [now] : [now, ...seriesOf(before, passed)]
}

/** Three or more readings of one thing, with how far they lie apart. */
function spreadOf(item: Item, told: readonly FindingEntry[], side: string, reading: string | undefined): string[] {
  const values = told.flatMap((entry) => numberOf(entry, reading) ?? [])
  if (values.length < ENOUGH_FOR_SPREAD) return []
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const error = measurementError(item.kind, methodOf(told[0]))
  const against =
    error === undefined
      ? ''
      : high - low <= error
        ? `, within measurement error (${withUnit(item, error)})`
        : `, more than measurement error (${withUnit(item, error)})`
  const what = [side === 'none' ? '' : side, reading ?? ''].filter(Boolean).join(' ')
  return [`${what} ${values.length} readings, ${withUnit(item, low)} to ${withUnit(item, high)}${against}`.trim()]
}

function readTogether(item: Item, told: Sides, first: 'right' | 'left'): { readonly difference: Difference | undefined; readonly lost: readonly LostRange[] } {
  if (!item.sided || item.options.length > 0 || item.kind === 'moment') return { difference: undefined, lost: [] }
  const second = first === 'right' ? 'left' : 'right'
  return {
    difference: differenceOf(item, told[first], told[second], [first, second]),
    lost: ([first, second] as const).flatMap((side) => rangeOf(item, told[side], told[side === 'right' ? 'left' : 'right'], side)),
  }
}

function differenceOf(item: Item, own: Told, other: Told, sides: readonly [string, string]): Difference | undefined {
  const reading = ['passive', ...item.readings].find((one) => numberOf(own, one) !== undefined && numberOf(other, one) !== undefined)
  const [one, two] = [numberOf(own, reading), numberOf(other, reading)]
  if (one === undefined || two === undefined) return undefined
  const difference = { reading, by: one - two, error: measurementError(item.kind, methodOf(own) ?? methodOf(other)), sides }
  return difference.by === 0 && difference.error === undefined ? undefined : difference
}

const isAlike = ({ by, error }: Difference): boolean => error !== undefined && Math.abs(by) <= error

function differenceWords(difference: Difference, words: (size: number) => string): string {
  const { error, reading, sides } = difference
  if (error !== undefined && isAlike(difference)) return `sides alike within measurement error (${words(error)})`
  const against = error === undefined ? '' : ` (measurement error ${words(error)})`
  return `${reading === undefined ? '' : `${reading} `}${sides[0]} ${moreOrLess(difference, words)}${against}`
}

const moreOrLess = ({ by, sides }: Difference, words: (size: number) => string): string => `${words(Math.abs(by))} ${by < 0 ? 'less' : 'more'} than ${sides[1]}`

const SAID: Readonly<Record<Restriction, string>> = {
  joint: 'restriction of the joint',
  'muscle, tendon or nerve': 'muscle, tendon or nerve, not the joint',
  both: 'restriction of the joint, and the active range lags: muscle, tendon or nerve as well',
}

function rangeOf(item: Item, own: Told, other: Told, side: string): LostRange[] {
  const [active, passive] = [numberOf(own, 'active'), numberOf(own, 'passive')]
  const usual = numberOf(other, 'passive') ?? item.norm
  const error = measurementError(item.kind, methodOf(own))
  // A range that is told as what lacks of straight is not read this way.
  if (item.kind !== 'angle' || active === undefined || passive === undefined || usual === undefined || usual <= 0 || error === undefined) return []
  const by = restrictionOf({ active, passive, usual, error })
  return by === undefined ? [] : [{ side, active, passive, by }]
}

function numberOf(told: Told, reading: string | undefined): number | undefined {
  const raw = told?.state !== 'examined' ? undefined : reading === undefined ? told.value : told.qualifiers?.[reading]
  return typeof raw === 'number' ? raw : undefined
}

const methodOf = (told: Told): string | undefined => (typeof told?.qualifiers?.method === 'string' ? told.qualifiers.method : undefined)

function withUnit({ unit, kind }: Item, size: number): string {
  const value = kind === 'ratio' ? Math.round(size * 100) / 100 : Math.round(size)
  return unit === undefined ? String(value) : unit === '°' ? `${value}°` : counted(value, unit, unit)
}
