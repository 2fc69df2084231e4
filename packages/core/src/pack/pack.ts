import type { Certainty, Item, Position } from '../model/item.js'
import type { Tier } from '../model/tier.js'
import type { Calc } from '../rules/calc.js'
import type { RuleNode } from '../rules/rule.js'
import type { Flag, Reviewed } from './flag.js'
import type { Modifier } from './modifier.js'
import type { NerveLesions } from './nerves.js'
import type { Picture, Plate } from './plate.js'
import type { Formerly, Words } from './renamed.js'

export type { Clause, Flag, RepairClock, Reviewed } from './flag.js'
export type { CarePlan, DaySpan, Modifier, Rival } from './modifier.js'

export interface Prompt {
  readonly id: string
  readonly region: string
  readonly title: string
  readonly when: RuleNode
  readonly ask: readonly string[]
  readonly because: string
}

export interface Hold {
  readonly id: string
  readonly region: string
  readonly title: string
  readonly when: RuleNode
  readonly stops: readonly string[]
  readonly allowed: string
  readonly reason: string
  readonly source: string
}

export interface Evidence {
  readonly when: RuleNode
  readonly structure: string
  readonly lrPositive?: readonly [number, number]
  readonly lrNegative?: readonly [number, number]
  readonly source: string
  readonly certainty: Certainty
  /** A published cluster: where it counts, the findings it is made of are not counted beside it. */
  readonly whole?: true
}

/** A presentation that tells more than the setting does: what a condition starts from in it. */
export interface Presentation {
  readonly when: RuleNode
  /** Share, 0 to 1. */
  readonly prior: readonly [number, number]
  readonly because: string
  readonly source: string
}

export interface Condition {
  readonly id: string
  /** Its flag, where it raises one. */
  readonly flag?: string
  readonly region: string
  readonly name: string
  readonly picture: string
  readonly prior: { readonly 'primary-care': readonly [number, number]; readonly emergency: readonly [number, number] }
  /** The first that is proven takes the place of `prior`. */
  readonly presentations: readonly Presentation[]
  readonly gate?: RuleNode
  readonly evidence: readonly Evidence[]
  readonly defaultTier: Tier
  /** When it holds, or what else does, in words. */
  readonly tierNote?: string
  readonly reviewed?: Reviewed
  readonly source: string
  /** Other names, to be found by. */
  readonly also: readonly string[]
  /** What the patient calls it. */
  readonly lay?: string | undefined
}

export interface TierInfo {
  readonly id: Tier
  readonly name: string
  readonly hours: number | null
  readonly holes: number
  /** What each tier too slow costs when this one was needed, in tiers too fast. */
  readonly tooLate: number
  readonly meaning: string
  readonly review: string
  readonly safetyNet: string
  /** What the parents of a child are told as well. */
  readonly safetyNetChild?: string
  /** Destination of a patient whose priority a clinician raised to it. */
  readonly to?: string
  /** Minutes after which a team that has not answered is called again. */
  readonly callAgain?: number
}

export interface Destination {
  readonly id: string
  readonly name: string
  /** The most urgent tier that it can take. */
  readonly sees: Tier
  /** What its letter must say beyond the core, and the items (any region's) that say it. */
  readonly letter: readonly { readonly says: string; readonly items: readonly string[] }[]
}

export interface Action {
  readonly id: string
  /** As a list or a letter names it. */
  readonly name: string
  /** What is done, in full. */
  readonly text: string
  readonly print: readonly string[]
}

/** The way of a suspicion: which picture first, which when that is normal and doubt stays, when to look again, which clock runs. */
export interface Pathway {
  readonly id: string
  readonly title: string
  /** Concepts of the flags that it is for. */
  readonly concepts: readonly string[]
  readonly first: string
  readonly then?: string
  readonly pregnant?: string
  readonly review?: string
  readonly clock?: { readonly title: string; readonly hours: number; readonly from: 'onset' | 'injury' | 'seen' }
  readonly source?: string
}

/** What the note says of a joint in words of its own, instead of a list of names. */
export interface Phrase {
  readonly id: string
  readonly region: string
  readonly says: string
  /** Items that must all have been examined and be normal on the side that it is said of. */
  readonly covers: readonly string[]
  /** What must be met besides; by itself for a rule whose outcome the note tells. */
  readonly when?: RuleNode
}

export interface Scale {
  readonly id: string
  readonly grades: readonly string[]
  readonly words: readonly string[]
  readonly calm: readonly string[]
}

/** What an item is in one region: the same test may be core here and prompted there. */
export type RegionalItem = Pick<Item, 'depth' | 'answeredAlone'> & Partial<Pick<Item, 'why' | 'key' | 'seconds' | 'label'>>

export interface Region {
  readonly id: string
  readonly name: string
  /** False for neck and back: judged for both sides, shown without one. */
  readonly side: boolean
  /** Where it is tapped on the drawn figure, percent of its width and height, for the patient's right or the middle. */
  readonly figure: readonly FigurePoint[]
  /** Whom it is offered to, in years; everybody when left out. */
  readonly ages?: AgeBand
  /** Numbers of the card of an ordinary patient of this region, for proofs and reports: 40 years unless said otherwise. */
  readonly ordinary: Readonly<Record<string, number>>
  readonly stops: readonly Stop[]
  readonly core: readonly string[]
  readonly minimum: readonly string[]
  readonly complaint: readonly { readonly label: string; readonly item: string; readonly value: string }[]
  readonly items: Readonly<Record<string, RegionalItem>>
}

/** From this age on, and up to but without that one, years. */
export interface AgeBand {
  readonly from?: number
  readonly under?: number
}

export interface FigurePoint {
  readonly view: 'front' | 'back'
  readonly x: number
  readonly y: number
}

/** One place of the examination: the items examined together, in the order of the chosen route. */
export interface Stop {
  readonly id: string
  readonly title: string
  readonly position: Position
  readonly advice: string
  readonly items: readonly string[]
}

/** Where good practitioners differ, and what this pack goes by. */
export interface PracticeVariant {
  readonly region: string
  readonly topic: string
  readonly choices: readonly string[]
  readonly default: string
  /** The choice that this pack goes by: the default, or what the local profile says. */
  readonly chosen: string
  /** The choices that change what rules read or rows show; the others are a matter of hands. */
  readonly switches: readonly string[]
}

/** Whose usual ranges of movement are meant. `under`: of children younger than so many years, shown for them whatever was chosen. */
export interface ReferenceRange {
  readonly id: string
  readonly name: string
  readonly basis: string
  readonly under?: number
}

interface PackContents {
  readonly id: string
  readonly version: string
  readonly hash: string
  readonly tiers: readonly TierInfo[]
  readonly destinations: readonly Destination[]
  readonly actions: readonly Action[]
  readonly scales: readonly Scale[]
  readonly regions: readonly Region[]
  readonly items: readonly Item[]
  readonly calcs: readonly Calc[]
  readonly flags: readonly Flag[]
  readonly prompts: readonly Prompt[]
  readonly holds: readonly Hold[]
  readonly modifiers: readonly Modifier[]
  readonly pathways: readonly Pathway[]
  readonly conditions: readonly Condition[]
  readonly practiceVariants: readonly PracticeVariant[]
  readonly phrases: readonly Phrase[]
  readonly plates: readonly Plate[]
  readonly pictures: readonly Picture[]
  readonly nerveLesions: NerveLesions
  readonly sets: Readonly<Record<string, readonly string[]>>
  readonly cautions: readonly string[]
  /** What ends a test or the routine examination, and what then. */
  readonly stopRules: readonly { readonly when: string; readonly then: string }[]
  readonly referenceRanges: readonly ReferenceRange[]
  /** From this site to the team that takes a patient over, in hours. */
  readonly journeyHours: number
  /** Facts that every letter gives, or says that nobody asked. */
  readonly everyLetter: readonly string[]
  /** Classes of flags in the order in which they lead among equals. */
  readonly leadOrder: readonly string[]
  /** What a step of a test's burden costs, in the unit of `TierInfo.tooLate`. */
  readonly burdenCost: number
  /** When what is said of pregnancy holds as well; nothing says so when left out. */
  /** Classes of flags whose window a journey of more than so many hours is taken off. */
  readonly spoilsOnTheWay: { readonly classes: readonly string[]; readonly beyondHours: number }
  readonly mayBePregnant?: { readonly item: string; readonly values: readonly string[] }
  readonly formerly: Formerly
  /** Abbreviations that names use, each with what it is short for. */
  readonly abbreviations: Words
}

/**
 * The whole compiled pack: everything clinical the program knows, as plain data. `compilePack` makes it once from the YAML under `content/`; it
 * travels as JSON, is stored and is hashed. Nothing is judged or worded with it: that takes a `RegionPack` (`viewOf`).
 */
export interface Pack extends PackContents {
  readonly isView?: never
}

/** The pack as one region sees it, with its own labels, depths and keys: what an examination is judged with, shown and written about. */
export interface RegionPack extends PackContents {
  readonly isView: true
  readonly regions: readonly [Region]
}

/** Where it makes no difference which of the two is meant. */
export type AnyPack = Pack | RegionPack
