import type { Fault } from '../model/fault.js'
import { oncePer } from '../model/oncePer.js'
import { isReason, isSamePerson, isSlower, LEAST_WORDS, needsSenior } from '../record/decisions.js'
import type { Decision, EntryOf } from '../record/entry.js'
import { type AnyPack } from './pack.js'

const holdIds = oncePer((pack: AnyPack): ReadonlySet<string> => new Set(pack.holds.map((hold) => hold.id)))

const flagIds = oncePer((pack: AnyPack): ReadonlySet<string> => new Set(pack.flags.map((flag) => flag.id)))

/** @returns one fault for each thing that keeps a decision from being taken */
export function checkDecision(pack: AnyPack, decision: Decision, path: string): Fault[] {
  switch (decision.state) {
    case 'lifted':
      return [
        ...(flagIds(pack).has(decision.flag) ? [] : [unknown(`${path}/flag`, decision.flag, 'flag', 'lifted')]),
        ...reasonFaults(decision, path, 'a flag is not lifted without a reason', `why it no longer holds, ${LEAST_WORDS}`),
      ]
    case 'released':
      return [
        ...(holdIds(pack).has(decision.hold) ? [] : [unknown(`${path}/hold`, decision.hold, 'hold', 'released')]),
        ...reasonFaults(decision, path, 'a hold is not released without a reason', `why it no longer holds, ${LEAST_WORDS}`),
      ]
    case 'chosen':
      return checkChoice(decision, path)
    case 'accepted':
      return [
        ...reasonFaults(decision, path, 'a range is not left open without a reason', LEAST_WORDS),
        ...(isReason(decision.plan) ? [] : [{ path: `${path}/plan`, reason: 'a range is not left open without a plan', expected: LEAST_WORDS }]),
      ]
    case 'withdrawn':
      return []
  }
}

const unknown = (path: string, id: string, what: string, done: string): Fault => ({
  path,
  reason: `"${id}" is not a ${what} of this pack`,
  expected: `the id of the ${what} that is ${done}`,
})

const reasonFaults = ({ reason }: { readonly reason: string }, path: string, says: string, expected: string): Fault[] =>
  isReason(reason) ? [] : [{ path: `${path}/reason`, reason: says, expected }]

/** Raising needs nothing more; lowering a reason, and from Now or Today a senior who agreed, with the time. */
function checkChoice({ tier, from, reason, senior, seniorAt, by }: EntryOf<'chosen'>, path: string): Fault[] {
  if (!isSlower(tier, from)) return []
  const faults = reasonFaults({ reason: reason ?? '' }, path, 'a priority is not lowered without a reason', LEAST_WORDS)
  if (!needsSenior(tier, from)) return faults
  if (senior === undefined || !/\p{L}{2}/u.test(senior) || isSamePerson(senior, by))
    faults.push({
      path: `${path}/senior`,
      reason: 'Now and Today are not lowered by one alone',
      expected: 'the name of the senior who agreed, who is somebody else',
    })
  if (seniorAt === undefined || Number.isNaN(Date.parse(seniorAt)))
    faults.push({ path: `${path}/seniorAt`, reason: 'does not say when the senior agreed', expected: 'ISO 8601 with zone' })
  return faults
}
