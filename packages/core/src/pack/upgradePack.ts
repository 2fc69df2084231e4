import { NOTHING_RENAMED } from './formerly.js'
import { normalMeaning } from './normalMeaning.js'
import { TIERS, type Tier } from '../model/tier.js'
import { type Item } from '../model/item.js'
import { type Pack } from './pack.js'
import type { NerveLesions } from './nerves.js'

export const NO_LESIONS: NerveLesions = {
  lesions: [],
  neighbouringRoots: [],
  ties: [],
  pointers: [],
  quick: { arm: [], leg: [] },
  readAs: [],
  patterns: [],
  cordSigns: [],
}

/** What earlier versions had built in and a pack now says itself. */
const TOO_LATE: Readonly<Record<Tier, number>> = { now: 20, today: 10, days: 5, weeks: 5, routine: 5, here: 5 }
const BUILT_IN: Pick<Pack, 'leadOrder' | 'burdenCost' | 'mayBePregnant' | 'spoilsOnTheWay'> = {
  leadOrder: ['V', 'N', 'I', 'F', 'T', 'B', 'C', 'P', 'S'],
  burdenCost: 0.05,
  spoilsOnTheWay: { classes: ['V', 'I', 'N'], beyondHours: 1 },
  mayBePregnant: { item: 'patient.pregnant', values: ['possible', 'yes', 'postpartum-6w'] },
}
const PATTERNS = ['cord', 'cauda', 'gbs', 'stocking', 'mixed', 'arm-plexus', 'thigh-plexus', 'motor-neurone', 'muscle', 'junction', 'brain']
const NERVES_BUILT_IN: Pick<NerveLesions, 'patterns' | 'cordSigns' | 'severalNerves'> = {
  patterns: PATTERNS.map((pattern) => `calc.pattern-${pattern}`),
  cordSigns: ['neck.calc.umn', 'back.calc.umn'],
  severalNerves: {
    name: 'Several single nerves',
    meaning: 'Vasculitis until shown otherwise: skin, urine, CRP, and the nerves of the other limbs.',
  },
}
/** What the parts of a pack were called before. */
const CALLED_BEFORE: Readonly<Record<string, string>> = {
  groups: 'prompts',
  schools: 'practiceVariants',
  normSchools: 'referenceRanges',
  lesions: 'nerveLesions',
}

/** A pack stored by an earlier version, its parts under the names of today. @example inTodaysKeys({ groups: [] }) // { prompts: [] } */
export const inTodaysKeys = (stored: unknown): unknown =>
  typeof stored === 'object' && stored !== null ? Object.fromEntries(Object.entries(stored).map(([key, part]) => [CALLED_BEFORE[key] ?? key, part])) : stored

/** The same pack with its parts under their earlier names as well, for programs that read these. */
export const inEarlierKeysToo = (pack: Pack): object => ({
  ...pack,
  ...Object.fromEntries(Object.entries(CALLED_BEFORE).map(([before, now]) => [before, pack[now as keyof Pack]])),
})

/** The tier that an earlier condition's text began with ("days if first"). */
const tierOf = (text: string): Tier => TIERS.find((tier) => text.startsWith(tier)) ?? 'here'

/**
 * A pack stored by an earlier version, with what that version did not know yet left empty: a signed examination is judged with its own
 * pack for as long as it is kept. Rules and findings are never touched, so the verdict stays what it was.
 */
export function upgradePack(stored: Pack): Pack {
  return {
    ...filled(
      {
        ...BUILT_IN,
        pathways: [],
        stopRules: [],
        referenceRanges: [],
        everyLetter: [],
        phrases: [],
        plates: [],
        pictures: [],
        journeyHours: 0,
        formerly: NOTHING_RENAMED,
        abbreviations: {},
      },
      stored,
    ),
    actions: stored.actions.map((action) => filled({ name: action.text }, action)),
    tiers: stored.tiers.map((tier) => filled({ tooLate: TOO_LATE[tier.id] }, tier)),
    nerveLesions: filled(NERVES_BUILT_IN, (stored as Partial<Pack>).nerveLesions ?? NO_LESIONS),
    regions: stored.regions.map((region) => filled({ ordinary: {} }, region)),
    items: stored.items.map((item) => withMeaning(filled({ lost: [], also: [], carried: item.scope === 'patient', askedAlone: false }, item))),
    modifiers: stored.modifiers.map((modifier) => filled({ concepts: [] }, modifier)),
    // Before every joint had its own, all practice variants were of the knee.
    practiceVariants: stored.practiceVariants.map((variant) => filled({ region: 'knee', chosen: variant.default, switches: [] }, variant)),
    calcs: stored.calcs.map((calc) => filled({ also: [] }, calc)),
    flags: stored.flags.map((flag) => filled({ also: [] }, flag)),
    conditions: stored.conditions.map((condition) => ({ ...filled({ also: [], presentations: [] }, condition), defaultTier: tierOf(condition.defaultTier) })),
  }
}

/**
 * A pack of before "normal" was a value of its own: what the key for normal writes follows today's rule. Its words for "not done" stay plain
 * words, for its rules were written for them.
 */
const withMeaning = (item: Item): Item => ((item as Partial<Item>).gaps === undefined ? { ...item, gaps: [], ...normalMeaning(item, {}) } : item)

/** What was stored stands; what it does not say is taken from the defaults. */
const filled = <T>(defaults: Partial<T>, stored: T): T => ({ ...defaults, ...stored })
