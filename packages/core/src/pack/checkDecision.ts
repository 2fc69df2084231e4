import { oncePer } from '../model/oncePer.js'
import { TIERS, type Tier } from '../model/tier.js'
import { type AnyPack } from './pack.js'
import type { Entry } from '../record/entry.js'
import { isDecided, isReason, isSamePerson, isSlower, LEAST_WORDS, needsSenior, PRIORITY, RANGE } from '../record/decisions.js'
import type { Fault } from '../model/fault.js'
const holdIds = oncePer((pack: AnyPack): ReadonlySet<string> => new Set(pack.holds.map((hold) => hold.id)))

const flagIds = oncePer((pack: AnyPack): ReadonlySet<string> => new Set(pack.flags.map((flag) => flag.id)))

/** Whether an entry is no finding but says what a clinician decides: lifts a flag, sets the priority, accepts an open range, or takes it back. */
export const isDecision = (pack: AnyPack, { state, item }: Entry): boolean =>
  isDecided(state) || (state === 'not-examined' && (item === PRIORITY || item === RANGE || flagIds(pack).has(item) || holdIds(pack).has(item)))

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

const hasReason = ({ reason }: Entry): boolean => isReason(reason)
