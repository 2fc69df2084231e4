import type { RuleSource } from '../rules/parseRule.js'
import type { Accuracy, Alternative, Item, Needs, NormalSpan, Kind, Position, Qualifier, Scope, Stage } from '../model/item.js'
import type {
  AgeBand,
  Evidence,
  FigurePoint,
  Flag,
  Modifier,
  Pack,
  Stop,
  TierInfo,
  Destination,
  Action,
  PracticeVariant,
  Reviewed,
  Presentation,
} from './pack.js'
import type { Picture, Plate } from './plate.js'
import type { Tier } from '../model/tier.js'

/** One YAML file of the pack, already read from wherever it is kept. */
export interface SourceFile {
  readonly path: string
  readonly text: string
}

/** An item as the clinical reviewer writes it. What is left out is filled in by the compiler. */
export interface ItemSource {
  readonly id: string
  readonly label: string
  readonly hint?: string
  readonly kind: Kind
  readonly scope?: Scope
  readonly scale?: string
  readonly options?: readonly string[]
  readonly calm?: readonly string[]
  readonly ordered?: boolean
  readonly unit?: string
  readonly min?: number
  readonly max?: number
  readonly step?: number
  readonly readings?: readonly string[]
  readonly qualifiers?: Readonly<Record<string, Qualifier>>
  readonly normal?: string | number | Readonly<Record<string, string | number | boolean>>
  readonly normalSpan?: Partial<NormalSpan>
  readonly needs?: Needs
  readonly gaps?: readonly string[]
  readonly askedAlone?: boolean
  readonly group?: string
  readonly mustBeTold?: boolean
  readonly position?: Position
  readonly burden?: 1 | 2 | 3
  readonly adverseIfPain?: string
  readonly positive?: string
  readonly trap?: string
  readonly technique?: readonly string[]
  readonly lost?: readonly string[]
  readonly carried?: boolean
  readonly opens?: string
  readonly alongside?: string
  readonly alternatives?: readonly Alternative[]
  readonly holdSeconds?: number
  readonly also?: readonly string[]
  readonly structure?: string
  readonly accuracy?: readonly (Omit<Accuracy, 'checked'> & { readonly checked?: boolean })[]
  readonly source?: string
  readonly derive?: { readonly measure: string; readonly from: Readonly<Record<string, string>> }
  readonly sets?: readonly string[]
  readonly norm?: number
  readonly normText?: string
  readonly norms?: Item['norms']
}

/** `items` files hold one stage each, of a region or shared. */
export interface ItemsFile {
  readonly stage: Stage
  readonly position?: Position
  readonly items: readonly ItemSource[]
}

interface PointsSource {
  readonly points: number
  readonly when: RuleSource
}

export interface CalcSource {
  readonly id: string
  readonly label: string
  readonly also?: readonly string[]
  readonly when?: RuleSource
  readonly validWhen?: RuleSource
  readonly ladder?: readonly { readonly value: string | number; readonly when: RuleSource }[]
  readonly points?: readonly (PointsSource | { readonly oneOf: readonly PointsSource[] })[]
  readonly source: string
  readonly note?: string
  readonly because?: string
}

/** A flag. What is left out in a region stands in the shared flag of the same id. */
export interface FlagSource {
  readonly id: string
  readonly concept: string
  readonly title: string
  readonly classes?: readonly string[]
  readonly to: readonly string[]
  readonly inPlay: RuleSource
  readonly clauses?: readonly {
    readonly tier: Tier
    readonly when: RuleSource
    readonly note?: string
    readonly to?: readonly string[]
    readonly because?: string
  }[]
  readonly asks?: readonly string[]
  readonly why: string
  readonly doNow: readonly string[]
  readonly avoid: readonly string[]
  readonly excludedBy: string
  readonly clock?: Flag['clock']
  readonly because?: string
  readonly reviewed?: Reviewed
  readonly source: string
}

export interface PromptSource {
  readonly id: string
  readonly title: string
  readonly when: RuleSource
  readonly ask: readonly string[]
  readonly because: string
}

export interface HoldSource {
  readonly id: string
  readonly title: string
  readonly when: RuleSource
  readonly stops: readonly string[]
  readonly allowed: string
  readonly reason: string
  readonly source?: string
}

export interface PhraseSource {
  readonly id: string
  readonly says: string
  readonly covers?: readonly string[]
  readonly when?: RuleSource
}

export interface RegionSource {
  readonly id: string
  readonly name: string
  readonly side: boolean
  readonly figure?: readonly FigurePoint[]
  readonly ages?: AgeBand
  readonly ordinary?: Readonly<Record<string, number>>
  /** The core set, in the order of the brief: item, its key in the quick line, and why it is asked. */
  readonly core: readonly {
    readonly item: string
    readonly seconds: number
    readonly why: 'threat' | 'decides' | 'common'
    readonly key: string
    readonly label?: string
  }[]
  readonly stops: readonly Stop[]
  readonly minimum: readonly string[]
  readonly complaint: readonly { readonly label: string; readonly item: string; readonly value: string }[]
  readonly sets?: Readonly<Record<string, readonly string[]>>
}

/** A test that several conditions use: once, with where it comes from, and used by name as `criterion(id)`. */
export interface CriterionSource {
  readonly id: string
  /** What it says, in words. */
  readonly says: string
  readonly when: RuleSource
  readonly source: string
  /** Why it is drawn there. */
  readonly reason?: string
}

export interface ConditionSource {
  readonly id: string
  readonly name: string
  readonly picture: string
  readonly prior: { readonly 'primary-care': string; readonly emergency: string }
  readonly flag?: string
  readonly presentations?: readonly (Omit<Presentation, 'when'> & { readonly when: RuleSource })[]
  readonly gate?: RuleSource
  readonly evidence?: readonly (Omit<Evidence, 'when'> & { readonly when: RuleSource })[]
  readonly defaultTier: Tier
  readonly tierNote?: string
  readonly reviewed?: Reviewed
}

/** Where good practitioners differ in one joint; the default is one of the choices. */
export interface PracticeVariantSource extends Omit<PracticeVariant, 'region' | 'chosen' | 'switches'> {
  /** What a choice other than the default changes, by the choice. */
  readonly changes?: Readonly<Record<string, readonly ChangeSource[]>>
}

/** Names a calculated value, flag, prompt, hold or item of the region, and the parts of it that read otherwise. */
export type ChangeSource =
  | ({ readonly calc: string } & Partial<CalcSource>)
  /** `tiers` moves every clause of one tier to another. */
  | ({ readonly flag: string; readonly tiers?: Readonly<Partial<Record<Tier, Tier>>> } & Partial<FlagSource>)
  | ({ readonly group: string } & Partial<PromptSource>)
  | ({ readonly hold: string } & Partial<HoldSource>)
  /** What a row shows and asks: its label, angle, landmark, norm, technique. */
  | ({ readonly item: string } & Partial<ItemSource>)

/** What a site goes by, where it is not the default. */
export interface LocalChoice {
  readonly region: string
  readonly topic: string
  readonly choice: string
}

export interface ProfileSource {
  readonly choices: readonly LocalChoice[]
  /** Hours that a tier may wait here. */
  readonly windows?: Readonly<Partial<Record<Tier, number>>>
  /** From this site to the team that takes a patient over. */
  readonly journeyHours?: number
}

export interface PackSource {
  readonly id: string
  readonly version: string
  readonly cautions: readonly string[]
  readonly tiers: readonly TierInfo[]
  readonly destinations: readonly (Omit<Destination, 'letter'> & { readonly letter: readonly (string | Destination['letter'][number])[] })[]
  readonly actions: readonly Action[]
  readonly scales: readonly {
    readonly id: string
    readonly grades: readonly (string | number)[]
    readonly words: readonly string[]
    readonly calm: readonly (string | number)[]
  }[]
  readonly sets?: Readonly<Record<string, readonly string[]>>
  /** Published sources whose figures are least certain: kept by name, never used in a probability. */
  readonly unverified: readonly string[]
  readonly stopRules?: Pack['stopRules']
  readonly referenceRanges?: Pack['referenceRanges']
  readonly everyLetter?: Pack['everyLetter']
  readonly abbreviations?: Pack['abbreviations']
  readonly leadOrder: Pack['leadOrder']
  readonly burdenCost: number
  readonly priorBands: Readonly<Record<string, readonly [number, number]>>
  readonly mayBePregnant: NonNullable<Pack['mayBePregnant']>
  readonly spoilsOnTheWay: Pack['spoilsOnTheWay']
}

export type PlateSource = Omit<Plate, 'region'>
export type PictureSource = Omit<Picture, 'region'>

export interface ModifierSource extends Omit<Modifier, 'when' | 'region' | 'classes' | 'concepts'> {
  readonly classes?: readonly string[]
  readonly concepts?: readonly string[]
  readonly when: RuleSource
}

/** Names of a thing beside its own: to be found by, parted by ";", and the plain words of it for the patient. */
export interface NamesSource {
  readonly also?: string
  readonly lay?: string
}

/** Earlier words, each with the word of today, and the earlier name of what they are words of. */
export interface FormerWordsSource {
  readonly id?: string
  readonly words?: Readonly<Record<string, string>>
}

/** What a thing was called before: its id, the words of its options, its qualifiers. */
export interface FormerlySource extends Omit<FormerWordsSource, 'id'> {
  /** Several where what each joint had for itself became one. */
  readonly id?: string | readonly string[]
  /** By the qualifier's name of today. */
  readonly qualifiers?: Readonly<Record<string, FormerWordsSource>>
}
