import type { Judgement } from '../judge/judgement.js'
import type { Item } from '../model/item.js'
import { oncePer } from '../model/oncePer.js'
import type { Side } from '../model/side.js'
import { SIDE_INDEX } from '../model/side.js'
import { itemsById } from '../pack/itemsById.js'
import type { NerveLesion } from '../pack/nerves.js'
import type { AnyPack } from '../pack/pack.js'
import type { FindingEntry } from '../record/entry.js'
import type { ExaminationRecord } from '../record/record.js'
import { YES } from '../rules/truth.js'

type Loss = 'normal' | 'lost' | 'severe'

/** A place that may be hurt, with what speaks for and against it. */
export interface Place {
  readonly id: string
  readonly name: string
  readonly kind: NerveLesion['kind']
  readonly score: number
  /** Abnormal items that it explains. */
  readonly explains: readonly string[]
  /** Abnormal items that it cannot explain. */
  readonly against: readonly string[]
  /** Items that should be abnormal and are not. */
  readonly spared: readonly string[]
  /** Items that should be abnormal and were not examined. */
  readonly untested: readonly string[]
}

export interface Localisation {
  readonly side: Side
  readonly limb: 'arm' | 'leg'
  /**
   * `likely`: one place leads by 3 or more; `undecided`: the lead is less; `possible`: one abnormal item only; `none`: no single place fits;
   * `alike`: both sides have lost the same, which no single root or nerve explains.
   */
  readonly verdict: 'likely' | 'undecided' | 'possible' | 'none' | 'alike'
  readonly abnormal: readonly string[]
  /** The best place and those within 2 points of it. */
  readonly places: readonly Place[]
  /** What to examine next, and how it will be read. */
  readonly next?: { readonly item: string; readonly reading: string }
}

const ENOUGH = 3
const LEAD = 3

interface Weighed extends Pick<NerveLesion, 'id' | 'name' | 'kind' | 'limb'> {
  readonly weight: ReadonlyMap<string, number>
  readonly handicap: number
}

/** Every candidate with its weights; two neighbouring roots together are one, three points behind. */
const candidates = oncePer((pack: AnyPack): readonly Weighed[] => {
  const { lesions, neighbouringRoots } = pack.nerveLesions
  const single = lesions.map((one): Weighed => ({
    ...one,
    weight: new Map([...one.shared.map((item) => [item, 1] as const), ...one.expected.map((item) => [item, 2] as const)]),
    handicap: 0,
  }))
  const pairs = neighbouringRoots.flatMap(([first, second]): Weighed[] => {
    const one = single.find((root) => root.id === first)
    const two = single.find((root) => root.id === second)
    if (!one || !two) return []
    const weight = new Map(one.weight)
    for (const [item, value] of two.weight) weight.set(item, Math.max(value, weight.get(item) ?? 0))
    return [{ id: `${first}+${second}`, name: `${first} and ${second} roots`, kind: 'root', limb: one.limb, weight, handicap: 3 }]
  })
  return [...single, ...pairs]
})

/** Every item of a limb that some place can lose, as far as this view has it. */
const itemsOfLimb = oncePer((pack: AnyPack): Readonly<Record<'arm' | 'leg', readonly string[]>> => {
  const of = (limb: 'arm' | 'leg'): string[] => {
    const weighed = candidates(pack).filter((one) => one.limb === limb)
    return [...new Set(weighed.flatMap((one) => [...one.weight.keys()]))].filter((id) => itemsById(pack).has(id))
  }
  return { arm: of('arm'), leg: of('leg') }
})

/**
 * Which root, plexus or nerve best explains the weak movements, numb areas and lost jerks of each limb. Weights by anatomy and consensus;
 * an explanation, not a diagnosis, and it never decides a priority. What was not examined counts neither way and is named.
 * @returns one for each limb with something abnormal; empty when nothing is
 * @example localise(view, recordOf(entries))[0]?.places[0]?.name // 'L5 root'
 */
export function localise(pack: AnyPack, record: ExaminationRecord, isMet: (calc: string, side: Side) => boolean = () => false): Localisation[] {
  const read = (item: string, side: Side): Loss | undefined =>
    lossOf(itemsById(pack).get(item), record.finding(item, side), record.finding(item, side === 'right' ? 'left' : 'right')) ??
    countedLoss(pack, item, side, record)
  return (['arm', 'leg'] as const).flatMap((limb) => {
    const items = itemsOfLimb(pack)[limb]
    const lost = (side: Side): string[] => items.filter((item) => ['lost', 'severe'].includes(read(item, side) ?? ''))
    return (['right', 'left'] as const).flatMap((side) => {
      const abnormal = lost(side)
      if (abnormal.length === 0) return []
      const other = lost(side === 'right' ? 'left' : 'right')
      const alike = abnormal.length > 1 && abnormal.length === other.length && abnormal.every((item) => other.includes(item))
      return [locate(pack, { limb, side, items, abnormal, alike, read: (item) => read(item, side), pointed: (id) => pointsTo(pack, id, side, record, isMet) })]
    })
  })
}

/** A pattern over both sides, which comes before any single place. */
export interface NervePattern {
  readonly id: string
  readonly name: string
  readonly meaning: string
}

export interface NerveLevels {
  readonly levels: readonly Localisation[]
  readonly isCordFirst: boolean
  readonly patterns: readonly NervePattern[]
}

/**
 * Nerve places of a judged examination: as `localise`, with the calculated values that point to one, whether a sign of the cord is met, and
 * the patterns over both sides that the pack knows.
 */
export function nerveLevels({ compiled, context, record }: Judgement): NerveLevels {
  const { pack } = compiled
  const { nerveLesions } = pack
  const has = new Set(pack.calcs.map((calc) => calc.id))
  const isMet = (calc: string, side: Side): boolean => has.has(calc) && compiled.compiledCalc(calc).truth(context, SIDE_INDEX[side]) === YES
  const isMetHere = ({ id }: { readonly id: string }): boolean => isMet(id, 'right') || isMet(id, 'left')
  const levels = localise(pack, record, isMet)
  const patterns = pack.calcs
    .filter((calc) => nerveLesions.patterns.includes(calc.id) && isMetHere(calc))
    .map(({ id, label, note }): NervePattern => ({ id, name: label, meaning: note ?? '' }))
  return {
    levels,
    isCordFirst: pack.calcs.some((calc) => nerveLesions.cordSigns.includes(calc.id) && isMetHere(calc)),
    patterns: [...patterns, ...(nerveLesions.severalNerves && isSeveralNerves(levels) ? [{ id: 'several-nerves', ...nerveLesions.severalNerves }] : [])],
  }
}

/** Two limbs, or two sides, that a different single nerve explains best and no root nearly as well. */
function isSeveralNerves(levels: readonly Localisation[]): boolean {
  const nerves = levels.flatMap(({ verdict, places }) => {
    const [best] = places
    return (verdict === 'likely' || verdict === 'undecided') && best?.kind === 'nerve' && places.every(({ kind }) => kind !== 'root') ? [best.id] : []
  })
  return new Set(nerves).size > 1
}

interface Limb {
  readonly limb: 'arm' | 'leg'
  readonly side: Side
  readonly items: readonly string[]
  readonly abnormal: readonly string[]
  readonly alike: boolean
  readonly read: (item: string) => Loss | undefined
  readonly pointed: (place: string) => number
}

function locate(pack: AnyPack, about: Limb): Localisation {
  const { limb, side, abnormal, alike } = about
  const places = candidates(pack)
    .filter((one) => one.limb === limb)
    .map((one) => weigh(one, about))
    .sort((a, b) => b.score - a.score || a.untested.length - b.untested.length)
  const [best, second] = places
  const base = { side, limb, abnormal }
  if (alike) return { ...base, verdict: 'alike', places: [] }
  if (!best || best.score < ENOUGH) return { ...base, verdict: 'none', places: [] }
  const close = places.filter((place) => best.score - place.score < LEAD && place.score >= ENOUGH)
  const verdict = abnormal.length === 1 ? 'possible' : close.length === 1 ? 'likely' : 'undecided'
  const next = nextItem(pack, about, close.length > 1 ? close : [best, ...(second ? [second] : [])])
  return { ...base, verdict, places: close, ...(next ? { next } : {}) }
}

function weigh(one: Weighed, { items, abnormal, read, pointed }: Limb): Place {
  const isNerve = one.kind === 'nerve'
  let score = pointed(one.id) - one.handicap
  const explains: string[] = []
  const against: string[] = []
  const spared: string[] = []
  for (const item of items) {
    const loss = read(item)
    const weight = one.weight.get(item) ?? 0
    if (loss === undefined) continue
    if (loss === 'normal') {
      if (weight === 2) {
        score -= isNerve ? 2 : 1
        spared.push(item)
      }
    } else if (weight === 0) {
      score -= (isNerve ? 3 : 2) + (isNerve && loss === 'severe' ? 1 : 0)
      against.push(item)
    } else {
      score += weight === 2 ? (loss === 'severe' ? 4 : 3) : 1
      explains.push(item)
    }
  }
  const untested = [...one.weight]
    .filter(([item, weight]) => weight === 2 && items.includes(item) && !abnormal.includes(item) && read(item) === undefined)
    .map(([item]) => item)
  return { id: one.id, name: one.name, kind: one.kind, score, explains, against, spared, untested }
}

/** What tells the two leaders apart: the tried pair first, else the item on which they differ most, the least burden before the shortest. */
function nextItem(pack: AnyPack, { items, read }: Limb, leaders: readonly Place[]): Localisation['next'] {
  const isOpen = (item: string): boolean => items.includes(item) && read(item) === undefined
  const [best, second] = leaders
  if (!best || !second) return undefined
  for (const { between, next, reading } of pack.nerveLesions.ties) {
    const item = between.every((place) => leaders.some((leader) => leader.id === place)) ? next.find(isOpen) : undefined
    if (item !== undefined) return { item, reading: `${nameOf(leaders, between[0])} or ${nameOf(leaders, between[1])}? ${reading}` }
  }
  const weights = (id: string): ReadonlyMap<string, number> => candidates(pack).find((one) => one.id === id)?.weight ?? new Map<string, number>()
  const [one, two] = [weights(best.id), weights(second.id)]
  const apart = (item: string): number => Math.abs((one.get(item) ?? 0) - (two.get(item) ?? 0))
  const known = itemsById(pack)
  const [first] = items
    .filter((item) => isOpen(item) && apart(item) > 0)
    .sort(
      (a, b) =>
        apart(b) - apart(a) || (known.get(a)?.burden ?? 3) - (known.get(b)?.burden ?? 3) || (known.get(a)?.seconds ?? 60) - (known.get(b)?.seconds ?? 60),
    )
  if (first === undefined) return undefined
  const [more, less] = (one.get(first) ?? 0) > (two.get(first) ?? 0) ? [best, second] : [second, best]
  return { item: first, reading: `lost: ${more.name}; kept: ${less.name}` }
}

const nameOf = (places: readonly Place[], id: string): string => places.find((place) => place.id === id)?.name ?? id

function pointsTo(pack: AnyPack, place: string, side: Side, record: ExaminationRecord, isMet: (calc: string, side: Side) => boolean): number {
  const [first = '', second] = place.split('+')
  const isMeant = (to: readonly string[]): boolean => to.includes(place) || (second !== undefined && to.includes(first) && to.includes(second))
  const known = itemsById(pack)
  const says = (item: string, word: string | undefined): boolean => {
    const entry = record.finding(item, known.get(item)?.sided === false ? 'none' : side)
    return entry?.state === 'examined' && word !== undefined && [entry.value].flat().includes(word)
  }
  return pack.nerveLesions.pointers
    .filter(({ item, value, calc, to }) => isMeant(to) && ((item !== undefined && says(item, value)) || (calc !== undefined && isMet(calc, side))))
    .reduce((sum, { add }) => sum + add, 0)
}

/** Heel raises stand for the push of the foot, which a hand cannot overcome. */
function countedLoss(pack: AnyPack, item: string, side: Side, record: ExaminationRecord): Loss | undefined {
  const counted = pack.nerveLesions.readAs.find(({ as }) => as === item)
  if (!counted) return undefined
  const entry = record.finding(counted.item, side)
  if (entry?.state !== 'examined' || typeof entry.value !== 'number') return undefined
  return entry.value < counted.severe ? 'severe' : entry.value < counted.lost ? 'lost' : 'normal'
}

/**
 * What one entry says of the nerve: power of 4 or less, or 4+ where the other side is full; touch or a jerk that is less. A jerk that is
 * absent on both sides says nothing, a brisk one is not lost; what was stopped by pain or is not valid counts as not examined.
 */
function lossOf(item: Item | undefined, entry: FindingEntry | undefined, opposite: FindingEntry | undefined): Loss | undefined {
  if (!item || entry?.state !== 'examined' || typeof entry.value !== 'string') return undefined
  const { value } = entry
  const rank = item.options.indexOf(value)
  if (item.scale === 'power') {
    if (entry.qualifiers?.pain === 'marked') return undefined
    if (rank <= item.options.indexOf('3')) return 'severe'
    if (value === '4+') return opposite?.state === 'examined' && opposite.value === '5' ? 'lost' : undefined
    return value === '5' ? 'normal' : 'lost'
  }
  if (item.scale === 'touch') return value === 'absent' ? 'severe' : value === 'reduced' ? 'lost' : value === 'normal' ? 'normal' : undefined
  if (item.scale === 'reflex') {
    if (value !== 'absent' && value !== 'reduced') return 'normal'
    return opposite?.state === 'examined' && opposite.value === value && value === 'absent' ? undefined : 'lost'
  }
  return undefined
}
