import { tierRank, type Tier } from '../model/tier.js'
import type { Entry } from './entry.js'

/** What an entry that sets the priority names in place of an item. */
export const PRIORITY = 'priority'

/** What an entry names that leaves the range open. */
export const RANGE = 'range'

/** Fewer letters are no reason. */
const LEAST_REASON = 4

export const LEAST_WORDS = `at least ${LEAST_REASON} letters`

/** A reason is read by somebody: spaces, dashes and signs without a letter are none. @example isReason('…  -') // false */
export const isReason = (text: string | undefined): boolean => (text?.match(/[\p{L}\p{N}]/gu) ?? []).length >= LEAST_REASON

const DECISIONS: readonly Entry['state'][] = ['lifted', 'released', 'chosen', 'accepted']

/** Whether the state is of a decision. Each is made in the name of whoever makes it. */
export const isDecided = (state: Entry['state']): boolean => DECISIONS.includes(state)

/** Whether a priority waits longer than another: such a choice may not be made without a reason. */
export const isSlower = (tier: Tier, than: Tier): boolean => tierRank(tier) > tierRank(than)

/** Whether a senior has to agree: Now and Today are not lowered by one alone. @example needsSenior('days', 'today') // true */
export const needsSenior = (tier: Tier, from: Tier): boolean => isSlower(tier, from) && (from === 'now' || from === 'today')

/** Whether two names are of one person, however they are written: with or without a title, in capitals, with another space. */
export function isSamePerson(a: string, b: string): boolean {
  const words = (name: string): string[] => {
    const plain =
      name
        .normalize('NFKD')
        .replace(/\p{M}/gu, '')
        .toLowerCase()
        .match(/\p{L}+/gu) ?? []
    return plain.filter((word) => !TITLES.has(word)).sort()
  }
  const [one, other] = [words(a), words(b)]
  return one.length > 0 && one.every((word) => other.includes(word))
}

const TITLES = new Set(['dr', 'doctor', 'mr', 'mrs', 'ms', 'miss', 'prof', 'professor'])
