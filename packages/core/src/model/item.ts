export const STAGES = ['story', 'screen', 'look', 'feel', 'move', 'strength', 'test', 'neuro', 'vascular', 'function', 'neighbours', 'result', 'plan'] as const

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
  /** Words of the item that it belongs to: the views to a radiograph that was taken, the bone to a fracture. With any finding when left out. */
  readonly with?: readonly string[]
  /** The options that a joint has of its own, under the joint's id; `options` holds those of all. */
  readonly optionsIn?: Readonly<Record<string, readonly string[]>>
  /** What an option stands for in a joint, under the joint's id: which views make a full series. */
  readonly meansIn?: Readonly<Record<string, string>>
}

/**
 * Whether a qualifier belongs to what was found: the bone to a fracture, the views to a radiograph that was taken.
 * @example belongs({ label: 'bone', kind: 'choice', with: ['fracture'] }, ['normal']) // false
 */
export const belongs = ({ with: words }: Pick<Qualifier, 'with'>, value: Value | undefined): boolean =>
  words === undefined || (Array.isArray(value) ? value.some((word) => words.includes(String(word))) : value !== undefined && words.includes(String(value)))

/** The options that a qualifier offers in a joint. */
export const optionsHere = ({ options = [], optionsIn }: Qualifier, region: string): readonly string[] => optionsIn?.[region] ?? options

export type Scalar = string | number | boolean

/** What was found: one word, one number, or several words of a multi-choice. */
export type Value = Scalar | readonly string[]

export interface Finding {
  readonly value?: Value
  readonly qualifiers?: Readonly<Record<string, Scalar | readonly string[]>>
}

export interface Alternative {
  readonly name: string
  readonly for: string
  readonly how?: string
  readonly item?: string
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
  /** The thing in the patient's words: how it is asked for, and told. */
  readonly lay?: string | undefined
  /** Ways in which the technique fails and the result does not count, each offered by itself: "grip of C2 lost". */
  readonly lost: readonly string[]
  /** True when it says the same whichever joint is examined (the person, a named artery or muscle): in one visit it is asked once. */
  readonly carried: boolean
  /** A look at a neighbouring joint names its region: what is found there can be gone into in one step. */
  readonly opens?: string | undefined
  /** An item that is asked whenever this one is: the chaperone of an intimate examination. */
  readonly alongside?: string | undefined
  /** Other ways to do it, each with whom it is for: a heavy leg, small hands. One that has an item of its own is recorded there. */
  readonly alternatives?: readonly Alternative[] | undefined
  /** How long it is held before a negative result counts, seconds. */
  readonly holdSeconds?: number | undefined
  readonly structure?: string | undefined
  readonly accuracy: readonly Accuracy[]
  readonly source: string
  readonly derive?: Derivation | undefined
  readonly sets: readonly string[]
  /** True when this item could exclude a flag of tier now or today: it is always answered by itself. */
  readonly answeredAlone: boolean
  readonly normText?: string | undefined
  /** The usual range by each reference, under its id. */
  readonly norms?: Readonly<Record<string, string>> | undefined
  readonly norm?: number | undefined
}
