/**
 * The compiled content pack: everything clinical the program knows, as plain data.
 * It is made once by `compilePack` from the YAML under `content/`, travels as JSON, and is what a signed examination is judged with.
 */

export const TIERS = ['now', 'today', 'days', 'weeks', 'routine', 'here'] as const
/** Urgency of a referral, most urgent first. Windows are in `Pack.tiers`. */
export type Tier = (typeof TIERS)[number]
/** 0 is the most urgent. @example tierRank('today') // 1 */
export const tierRank = (tier: Tier): number => TIERS.indexOf(tier)

export const SIDES = ['right', 'left', 'none'] as const
/** `none` is the side of everything that has no side: facts about the person, general look. */
export type Side = (typeof SIDES)[number]
export type LimbSide = 'right' | 'left'

export const STAGES = ['story', 'screen', 'look', 'feel', 'move', 'strength', 'test', 'neuro', 'vascular', 'function', 'neighbours', 'result'] as const
export type Stage = (typeof STAGES)[number] | 'patient'

export const POSITIONS = ['asking', 'as-found', 'held', 'walking', 'standing', 'sitting', 'supine', 'side-lying', 'prone'] as const
/** Where the patient is while an item is examined. `asking` and `as-found` need no change of position; an infant is `held`. */
export type Position = (typeof POSITIONS)[number]

export const KINDS = ['sign', 'grade', 'choice', 'multi', 'angle', 'length', 'time', 'count', 'pressure', 'ratio', 'number', 'laxity', 'moment'] as const
export type Kind = (typeof KINDS)[number]

/**
 * What only a reading can tell: of an instrument (or counted against the clock), a report, the laboratory, or the patient's own telling.
 * The key for "examined and normal" never answers it.
 */
export const NEEDS = ['instrument', 'report', 'laboratory', 'telling'] as const
export type Needs = (typeof NEEDS)[number]

/** What stands in place of a number when a range was found normal without measuring it. Rules read it as the item's `normalSpan`. */
export const NORMAL = 'normal'

/** What "normal" of a range says in note and letter, and the span that rules read it as, in the item's unit. */
export interface NormalSpan {
  readonly says: string
  readonly low: number
  readonly high: number
}

/** How many records an item has: one for the patient, the episode or the visit, or one for each side. */
export type Scope = 'patient' | 'episode' | 'body' | 'joint' | 'limb-end' | 'sided'

export type Certainty = 'review' | 'study' | 'expert'

/** A published figure. `checked` is false until a clinical reviewer has held it against the paper. */
export interface Accuracy {
  readonly finding: string
  readonly sens?: number
  readonly spec?: number
  readonly lrPositive?: number
  readonly lrNegative?: number
  readonly source: string
  readonly certainty: Certainty
  readonly checked: boolean
  /** True when the source is among the least certain: shown, and never used for a probability. */
  readonly unverified?: boolean
}

export interface Qualifier {
  readonly label: string
  readonly kind: 'choice' | 'multi' | 'number' | 'sign' | 'text'
  readonly options?: readonly string[]
  readonly unit?: string
  readonly min?: number
  readonly max?: number
  /** Options that say that nothing was found out. */
  readonly gaps?: readonly string[]
  /** Asked in the row itself, not behind it. */
  readonly inRow?: boolean
}

export type Scalar = string | number | boolean
/** What was found: one word, one number, or several words of a multi-choice. */
export type Value = Scalar | readonly string[]

export interface Finding {
  readonly value?: Value
  readonly qualifiers?: Readonly<Record<string, Scalar | readonly string[]>>
}

export interface Derivation {
  readonly measure: string
  /** Parameter of the measure to the term it is fed with (`item`, `item.qualifier`, `other(item)`). */
  readonly from: Readonly<Record<string, string>>
}

export interface Item {
  readonly id: string
  readonly owner: string
  /** Regions that a shared item is meant for; every region when left out. */
  readonly only?: readonly string[] | undefined
  readonly scope: Scope
  readonly sided: boolean
  readonly stage: Stage
  readonly label: string
  readonly hint?: string | undefined
  readonly kind: Kind
  readonly scale?: string | undefined
  /** Words of a choice or multi-choice; labels of a grade in rising order. */
  readonly options: readonly string[]
  /** The option that means "nothing found". */
  readonly empty?: string | undefined
  /** Options that are normal; the rest are shown as abnormal. */
  readonly calm: readonly string[]
  readonly ordered: boolean
  readonly unit?: string | undefined
  readonly min?: number | undefined
  readonly max?: number | undefined
  readonly step?: number | undefined
  readonly readings: readonly string[]
  readonly qualifiers: Readonly<Record<string, Qualifier>>
  /** The finding that is normal. The key for "examined and normal" records it, unless the item needs a reading. */
  readonly normal?: Finding | undefined
  readonly normalSpan?: NormalSpan | undefined
  readonly needs?: Needs | undefined
  /** Options that say that nothing was found out: "not done", "not known". They are neither normal nor abnormal. */
  readonly gaps: readonly string[]
  /** True for a fact that changes the urgency: it is asked by itself, and "none of the rest" never denies it. */
  readonly askedAlone: boolean
  /** Heading under which a fact of the patient card stands. */
  readonly group?: string | undefined
  /** True when no answer means "absent" (a place, a speed): "none of the rest" never fills it in. */
  readonly mustBeTold: boolean
  readonly position: Position
  readonly seconds: number
  readonly burden: 1 | 2 | 3
  readonly depth: 'core' | 'prompted' | 'on-demand' | 'card'
  readonly why?: 'threat' | 'decides' | 'common' | undefined
  readonly key?: string | undefined
  readonly adverseIfPain?: string | undefined
  readonly positive: string
  readonly trap?: string | undefined
  readonly technique: readonly string[]
  /** Other names in common use, to be found by. */
  readonly also: readonly string[]
  /** Ways in which the technique fails and the result does not count, each offered by itself: "grip of C2 lost". */
  readonly lost: readonly string[]
  /** True when it says the same whichever joint is examined (the person, a named artery or muscle): in one visit it is asked once. */
  readonly carried: boolean
  /** A look at a neighbouring joint names its region: what is found there can be gone into in one step. */
  readonly opens?: string | undefined
  readonly structure?: string | undefined
  readonly accuracy: readonly Accuracy[]
  readonly source: string
  readonly derive?: Derivation | undefined
  readonly sets: readonly string[]
  /** True when this item could exclude a flag of tier now or today: it is always answered by itself. */
  readonly answeredAlone: boolean
  readonly normText?: string | undefined
  /** The usual range as each school gives it, by the school's id. */
  readonly norms?: Readonly<Record<string, string>> | undefined
  readonly norm?: number | undefined
}

export type RuleNode =
  | { readonly op: 'all' | 'any'; readonly of: readonly RuleNode[] }
  | { readonly op: 'atLeast'; readonly n: number; readonly of: readonly RuleNode[] }
  | { readonly op: 'not' | 'proven'; readonly of: readonly [RuleNode] }
  | { readonly op: 'leaf'; readonly leaf: Leaf }

export type Comparator = '=' | '!=' | '<' | '<=' | '>' | '>=' | 'in' | 'has' | 'has-any' | 'has-all' | 'is'

/** A term is what stands left of the comparison: an item, a qualifier of it, or a function of both sides. */
export interface Term {
  readonly fn: 'value' | 'other' | 'diff' | 'deficit' | 'gap' | 'worst' | 'change'
  readonly item: string
  readonly qualifier?: string
  /** Further items of `worst`. */
  readonly more?: readonly string[]
  /** How far back `change` looks, hours; any time when left out. */
  readonly window?: number
}

export type Leaf =
  | {
      readonly type: 'compare'
      readonly text: string
      readonly over: 'this' | 'either' | 'both'
      readonly term: Term
      readonly cmp: Comparator
      readonly operand: readonly string[]
    }
  | {
      readonly type: 'calc'
      readonly text: string
      readonly over: 'this' | 'either' | 'both'
      readonly calc: string
      readonly cmp: Comparator
      readonly operand: readonly string[]
    }
  | { readonly type: 'weak'; readonly text: string; readonly item: string }
  | { readonly type: 'differs'; readonly text: string; readonly item: string }
  | { readonly type: 'unseen' | 'not-valid'; readonly text: string; readonly item: string }
  | { readonly type: 'rechecked'; readonly text: string; readonly item: string; readonly window?: number }
  | { readonly type: 'could-not'; readonly text: string; readonly item: string; readonly reason?: string }
  | { readonly type: 'all-examined'; readonly text: string; readonly items: readonly string[] }
  | { readonly type: 'flag' | 'hold' | 'in-play'; readonly text: string; readonly ref: string }
  | { readonly type: 'any-flag'; readonly text: string; readonly self: string }
  | { readonly type: 'always'; readonly text: string }

/** Points of a score. Parts with the same `oneOf` are levels of one component: at most one of them counts. */
export interface ScorePart {
  readonly points: number
  readonly when: RuleNode
  readonly oneOf?: number
}

/** A value worked out from findings and never entered: a truth, a word of a ladder, or a score with a range. */
export interface Calc {
  readonly id: string
  readonly region: string
  readonly label: string
  readonly also: readonly string[]
  readonly kind: 'truth' | 'ladder' | 'score'
  readonly when?: RuleNode
  /** When this is not met the calc is not known, whatever its rule says. */
  readonly validWhen?: RuleNode
  readonly ladder: readonly { readonly value: string; readonly when: RuleNode }[]
  readonly points: readonly ScorePart[]
  readonly source: string
  readonly note?: string
}

export interface Clause {
  readonly tier: Tier
  readonly when: RuleNode
  readonly note?: string
}

export interface RepairClock {
  /** The fact that the clock runs from: a moment item. */
  readonly from: string
  readonly windowDays: number
  readonly leadDays: number
}

export interface Flag {
  readonly id: string
  readonly region: string
  readonly concept: string
  readonly title: string
  readonly classes: readonly string[]
  readonly to: readonly string[]
  readonly inPlay: RuleNode
  readonly clauses: readonly Clause[]
  readonly asks: readonly { readonly group?: string; readonly item?: string; readonly conditional: boolean }[]
  readonly why: string
  readonly doNow: readonly string[]
  readonly avoid: readonly string[]
  readonly excludedBy: string
  readonly clock?: RepairClock
  readonly source: string
  /** Other names, to be found by. */
  readonly also: readonly string[]
}

export interface PromptGroup {
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

/** What moves the tier of other flags: by their class, or two findings together by the concept of one of them. */
export interface Modifier {
  readonly id: string
  readonly region: string
  readonly title: string
  readonly classes: readonly string[]
  readonly concepts: readonly string[]
  readonly when: RuleNode
  /** A step or a least tier for the flags it names; or words about what else it changes: where the patient goes, who must know. */
  readonly effect: { readonly step: true; readonly onlyFrom?: readonly Tier[] } | { readonly atLeast: Tier } | { readonly says: string }
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

export interface Condition {
  readonly id: string
  readonly region: string
  readonly name: string
  readonly picture: string
  readonly prior: { readonly 'primary-care': readonly [number, number]; readonly emergency: readonly [number, number] }
  readonly gate?: RuleNode
  readonly evidence: readonly Evidence[]
  readonly defaultTier: Tier
  /** When it holds, or what else does, in words. */
  readonly tierNote?: string
  readonly source: string
  /** Other names, to be found by. */
  readonly also: readonly string[]
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
  /** What its letter must say beyond the core, and the items (any region's) that say it. */
  readonly letter: readonly { readonly says: string; readonly items: readonly string[] }[]
}

export interface Action {
  readonly id: string
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

/** A place where a nerve may be hurt, and what is lost when it is. */
export interface Lesion {
  readonly id: string
  readonly name: string
  readonly kind: 'root' | 'plexus' | 'nerve'
  readonly limb: 'arm' | 'leg'
  /** Items that are abnormal when this place is hurt. */
  readonly expected: readonly string[]
  /** Items that may share in it. */
  readonly shared: readonly string[]
}

export interface Lesions {
  readonly lesions: readonly Lesion[]
  readonly neighbouringRoots: readonly (readonly [string, string])[]
  readonly ties: readonly { readonly between: readonly [string, string]; readonly next: readonly string[]; readonly reading: string }[]
  readonly pointers: readonly {
    readonly item?: string
    readonly value?: string
    readonly calc?: string
    readonly add: number
    readonly to: readonly string[]
  }[]
  readonly quick: Readonly<Record<'arm' | 'leg', readonly string[]>>
  /** A count that stands for a graded movement: below `lost` it is weak, below `severe` hardly there. */
  readonly readAs: readonly { readonly item: string; readonly as: string; readonly lost: number; readonly severe: number }[]
  /** Calculated values that are a pattern over both sides, and those that are a sign of the cord. */
  readonly patterns: readonly string[]
  readonly cordSigns: readonly string[]
  /** What is said when single nerves of two limbs are each the best explanation. */
  readonly severalNerves?: { readonly name: string; readonly meaning: string }
}

/** Where good practitioners differ, and what this pack goes by. */
export interface School {
  readonly region: string
  readonly topic: string
  readonly choices: readonly string[]
  readonly default: string
  /** The choice that this pack goes by: the default, or what the local profile says. */
  readonly chosen: string
  /** The choices that change what rules read; the others are a matter of hands. */
  readonly switches: readonly string[]
}

/** Whose usual ranges of movement are meant. `under`: of children younger than so many years, shown for them whatever was chosen. */
export interface NormSchool {
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
  readonly groups: readonly PromptGroup[]
  readonly holds: readonly Hold[]
  readonly modifiers: readonly Modifier[]
  readonly pathways: readonly Pathway[]
  readonly conditions: readonly Condition[]
  readonly schools: readonly School[]
  readonly phrases: readonly Phrase[]
  readonly lesions: Lesions
  readonly sets: Readonly<Record<string, readonly string[]>>
  readonly cautions: readonly string[]
  /** What ends a test or the routine examination, and what then. */
  readonly stopRules: readonly { readonly when: string; readonly then: string }[]
  readonly normSchools: readonly NormSchool[]
  /** From this site to the team that takes a patient over, in hours. */
  readonly journeyHours: number
  /** Facts that every letter gives, or says that nobody asked. */
  readonly everyLetter: readonly string[]
  /** Classes of flags in the order in which they lead among equals. */
  readonly leadOrder: readonly string[]
  /** What a step of a test's burden costs, in the unit of `TierInfo.tooLate`. */
  readonly burdenCost: number
  /** When what is said of pregnancy holds as well; nothing says so when left out. */
  readonly mayBePregnant?: { readonly item: string; readonly values: readonly string[] }
}

/** The whole compiled pack: what travels, is stored and is hashed. Nothing is judged or worded with it: that takes a `RegionPack` (`viewOf`). */
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
