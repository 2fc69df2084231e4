import { normalMeaning } from './normalMeaning.js'
import type { Item, Lesions, Pack } from './types.js'

export const NO_LESIONS: Lesions = { lesions: [], neighbouringRoots: [], ties: [], pointers: [], quick: { arm: [], leg: [] }, readAs: [] }

/**
 * A pack stored by an earlier version, with what that version did not know yet left empty: a signed examination is judged with its own
 * pack for as long as it is kept. Rules and findings are never touched, so the verdict stays what it was.
 */
export function upgradePack(stored: Pack): Pack {
  return {
    ...filled({ lesions: NO_LESIONS, pathways: [], stopRules: [], normSchools: [], everyLetter: [], phrases: [], journeyHours: 0 }, stored),
    regions: stored.regions.map((region) => filled({ ordinary: {} }, region)),
    items: stored.items.map((item) => withMeaning(filled({ lost: [], also: [], carried: item.scope === 'patient', askedAlone: false }, item))),
    modifiers: stored.modifiers.map((modifier) => filled({ concepts: [] }, modifier)),
    // Before every joint had its own, all schools were of the knee.
    schools: stored.schools.map((school) => filled({ region: 'knee', chosen: school.default, switches: [] }, school)),
    calcs: stored.calcs.map((calc) => filled({ also: [] }, calc)),
    flags: stored.flags.map((flag) => filled({ also: [] }, flag)),
    conditions: stored.conditions.map((condition) => filled({ also: [] }, condition)),
  }
}

/**
 * A pack of before "normal" was a value of its own: what the key for normal writes follows today's rule. Its words for "not done" stay plain
 * words, for its rules were written for them.
 */
const withMeaning = (item: Item): Item => ((item as Partial<Item>).gaps === undefined ? { ...item, gaps: [], ...normalMeaning(item, {}) } : item)

/** What was stored stands; what it does not say is taken from the defaults. */
const filled = <T>(defaults: Partial<T>, stored: T): T => ({ ...defaults, ...stored })
