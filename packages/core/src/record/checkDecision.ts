import { oncePer } from '../content/oncePer.js'
import { TIERS, tierRank, type AnyPack, type Tier } from '../content/types.js'
import type { Fault } from './checkEntry.js'
import type { Entry } from './entry.js'

/** What an entry that sets the priority names in place of an item. */
export const PRIORITY = 'priority'
/** What an entry names that leaves the range open. */
export const RANGE = 'range'

/** Fewer letters are no reason. */
export const LEAST_REASON = 4
export const LEAST_WORDS = `at least ${LEAST_REASON} letters`

/** A reason is read by somebody: spaces, dashes and signs without a letter are none. @example isReason('…  -') // false */
export const isReason = (text: string | undefined): boolean => (text?.match(/[\p{L}\p{N}]/gu) ?? []).length >= LEAST_REASON

const holdIds = oncePer((pack: AnyPack): ReadonlySet<string> => new Set(pack.holds.map((hold) => hold.id)))
const flagIds = oncePer((pack: AnyPack): ReadonlySet<string> => new Set(pack.flags.map((flag) => flag.id)))

const DECISIONS: readonly Entry['state'][] = ['lifted', 'released', 'chosen', 'accepted']

/** Whether an entry is no finding but says what a clinician decides: lifts a flag, sets the priority, accepts an open range, or takes it back. */
export const isDecision = (pack: AnyPack, { state, item }: Entry): boolean =>
  isDecided(state) || (state === 'not-examined' && (item === PRIORITY || item === RANGE || flagIds(pack).has(item) || holdIds(pack).has(item)))

/** Whether the state is of a decision. Each is made in the name of whoever makes it. */
export const isDecided = (state: Entry['state']): boolean => DECISIONS.includes(state)

/** @returns one fault for each thing that keeps a decision from being taken */
export function checkDecision(pack: AnyPack, entry: Entry, path: string): Fault[] {
  if (entry.state === 'chosen') return checkChoice(entry, path)
  if (entry.state === 'accepted') return checkAcceptance(entry, path)
  if (entry.state === 'not-examined') return []
  const [what, done, ids] = entry.state === 'released' ? ['hold', 'released', holdIds(pack)] : ['flag', 'lifted', flagIds(pack)]
  const faults: Fault[] = []
  if (!ids.has(entry.item))
    faults.push({ path: `${path}/item`, reason: `"${entry.item}" is not a ${what} of this pack`, expected: `the id of the ${what} that is ${done}` })
  if (!hasReason(entry))
    faults.push({ path: `${path}/reason`, reason: `a ${what} is not ${done} without a reason`, expected: `why it no longer holds, ${LEAST_WORDS}` })
  if (entry.value !== undefined) faults.push({ path: `${path}/value`, reason: 'such a decision has no value', expected: 'a reason only' })
  return faults
}

/** Raising needs nothing more; lowering a reason, and from Now or Today a senior who agreed, with the time. */
function checkChoice(entry: Entry, path: string): Fault[] {
  const { value, qualifiers = {} } = entry
  const faults: Fault[] = []
  const tiers = `one of: ${TIERS.join(', ')}`
  if (entry.item !== PRIORITY) faults.push({ path: `${path}/item`, reason: `"${entry.item}" is not what is set`, expected: PRIORITY })
  if (entry.side !== 'none') faults.push({ path: `${path}/side`, reason: 'a priority has no side', expected: 'none' })
  if (!isTier(value)) faults.push({ path: `${path}/value`, reason: `${JSON.stringify(value)} is no priority`, expected: tiers })
  if (!isTier(qualifiers.from)) faults.push({ path: `${path}/qualifiers/from`, reason: 'does not say what the findings gave', expected: tiers })
  for (const name of Object.keys(qualifiers))
    if (!['from', 'senior', 'senior-at'].includes(name))
      faults.push({ path: `${path}/qualifiers/${name}`, reason: `a priority has no "${name}"`, expected: 'from, senior, senior-at' })
  if (!isTier(value) || !isTier(qualifiers.from) || !isSlower(value, qualifiers.from)) return faults
  if (!hasReason(entry)) faults.push({ path: `${path}/reason`, reason: 'a priority is not lowered without a reason', expected: LEAST_WORDS })
  if (!needsSenior(value, qualifiers.from)) return faults
  if (typeof qualifiers.senior !== 'string' || !/\p{L}{2}/u.test(qualifiers.senior) || isSamePerson(qualifiers.senior, entry.by))
    faults.push({
      path: `${path}/qualifiers/senior`,
      reason: 'Now and Today are not lowered by one alone',
      expected: 'the name of the senior who agreed, who is somebody else',
    })
  if (typeof qualifiers['senior-at'] !== 'string' || Number.isNaN(Date.parse(qualifiers['senior-at'])))
    faults.push({ path: `${path}/qualifiers/senior-at`, reason: 'does not say when the senior agreed', expected: 'ISO 8601 with zone' })
  return faults
}

function checkAcceptance(entry: Entry, path: string): Fault[] {
  const { qualifiers = {} } = entry
  const faults: Fault[] = []
  if (entry.item !== RANGE || entry.side !== 'none')
    faults.push({ path: `${path}/item`, reason: `"${entry.item}" is not what is left open`, expected: `${RANGE}, side none` })
  if (!hasReason(entry)) faults.push({ path: `${path}/reason`, reason: 'a range is not left open without a reason', expected: LEAST_WORDS })
  if (typeof qualifiers.plan !== 'string' || !isReason(qualifiers.plan))
    faults.push({ path: `${path}/qualifiers/plan`, reason: 'a range is not left open without a plan', expected: LEAST_WORDS })
  if (!isTier(qualifiers.ceiling))
    faults.push({ path: `${path}/qualifiers/ceiling`, reason: 'does not say how urgent it could still be', expected: `one of: ${TIERS.join(', ')}` })
  return faults
}

export const isTier = (value: unknown): value is Tier => TIERS.includes(value as Tier)

const isSlower = (tier: Tier, than: Tier): boolean => tierRank(tier) > tierRank(than)

/** Whether a senior has to agree: Now and Today are not lowered by one alone. @example needsSenior('days', 'today') // true */
export const needsSenior = (tier: Tier, from: Tier): boolean => isSlower(tier, from) && (from === 'now' || from === 'today')

/** Whether it may not be set without a reason. */
export const needsReason = isSlower

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

const hasReason = ({ reason }: Entry): boolean => isReason(reason)
