import { DECIDED } from '@kneecap-awl/contract'
import type { Side } from '../model/side.js'
import { tierRank, type Tier } from '../model/tier.js'
import type { Decision, Entry, FindingEntry } from './entry.js'

/** What an entry speaks of: an item on one side, or the flag, the hold, the priority or its range that is decided on. Of what is said of the same the latest stands. */
export function subjectOf(entry: Entry): { readonly about: string; readonly side: Side } {
  switch (entry.state) {
    case 'lifted':
      return { about: entry.flag, side: entry.side }
    case 'released':
      return { about: entry.hold, side: entry.side }
    case 'chosen':
      return PRIORITY
    case 'accepted':
      return RANGE
    case 'withdrawn':
      return entry.decision === 'chosen' ? PRIORITY : entry.decision === 'accepted' ? RANGE : { about: entry.of ?? '', side: entry.side ?? 'none' }
    default:
      return { about: entry.item, side: entry.side }
  }
}

export const PRIORITY = { about: 'priority', side: 'none' } as const
export const RANGE = { about: 'range', side: 'none' } as const

const DECISIONS: ReadonlySet<string> = new Set([...DECIDED, 'withdrawn'])

/** Whether an entry says what a clinician decides. Each is made in the name of whoever makes it. */
export const isDecision = (entry: Entry): entry is Decision => DECISIONS.has(entry.state)

export const isFinding = (entry: Entry): entry is FindingEntry => !isDecision(entry)

/** Fewer letters are no reason. */
const LEAST_REASON = 4

export const LEAST_WORDS = `at least ${LEAST_REASON} letters`

/** A reason is read by somebody: spaces, dashes and signs without a letter are none. @example isReason('…  -') // false */
export const isReason = (text: string | undefined): boolean => (text?.match(/[\p{L}\p{N}]/gu) ?? []).length >= LEAST_REASON

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
