import { conclusionsOf } from '../judge/conclusions.js'
import type { Judgement } from '../judge/judgement.js'
import { isMet } from '../judge/metBy.js'
import { priorityOf } from '../judge/priorityOf.js'
import { oncePer } from '../model/oncePer.js'
import type { CarePlan, DaySpan } from '../pack/pack.js'
import { itemsById } from '../pack/itemsById.js'
import { onsetOf } from './pathways.js'
import { dayOnly } from './times.js'
import { sideWord } from './words.js'

/** The item in which a clinician sets the day on which the patient is seen again. */
export const REVIEW_ITEM = 'plan.review-on'

/** Something that does not count yet, and when it is done again. */
export interface Again {
  readonly what: string
  /** ISO 8601. */
  readonly from: string
  readonly to: string
}

export interface Plan {
  /** When the patient is seen again, ISO 8601: as a clinician set it, or as it is proposed. */
  readonly review?: { readonly on: string; readonly isSet: boolean; readonly because: string }
  readonly again: readonly Again[]
  /** What is done meanwhile; nothing of it where the priority sends the patient on today. */
  readonly care: readonly (CarePlan & { readonly id: string; readonly source: string })[]
  /** What the patient is told, in plain words. */
  readonly told: readonly string[]
}

const DAY_MS = 86_400_000
/** Swelling and guarding hide laxity in the first days; after these they have eased, and no repair is late yet (expert). */
const WHEN_CALMER: DaySpan = { from: 5, to: 7 }
const ACUTE_DAYS = 7

/**
 * What follows besides the referral: what is examined again and when, interim care, and what the patient is told.
 * @example planOf(judgement(pack, guardedKneeOfYesterday)).again[0] // { what: 'Lachman test right', from: '2026-12-04T…', to: '2026-12-06T…' }
 */
export const planOf = oncePer((judged: Judgement): Plan => {
  const { compiled, record } = judged
  const concluded = concludedAgain(judged)
  const again = [...concluded, ...notValidAgain(judged, concluded)]
  const isHere = ['weeks', 'routine', 'here'].includes(priorityOf(judged).tier)
  const care = isHere ? compiled.sayings.plans.filter(({ rule }) => isMet(rule, judged)).map(({ id, source, plan }) => ({ id, source, ...plan })) : []
  const set = record.finding(REVIEW_ITEM, 'none')
  const proposed = proposedReview(judged, again, care)
  const review = set?.state === 'examined' ? { on: String(set.value), isSet: true, because: `set by ${set.by}` } : proposed
  return {
    ...(review === undefined ? {} : { review }),
    again,
    care,
    told: compiled.sayings.told.filter(({ rule }) => isMet(rule, judged)).map(({ tells }) => tells),
  }
})

/** What a conclusion says does not count yet. */
const concludedAgain = (judged: Judgement): Again[] =>
  conclusionsOf(judged).flatMap(({ items, side, again }) =>
    again === undefined ? [] : [{ what: again.what ?? nameOf(judged, items.at(-1) ?? '', side), ...between(judged, again) }],
  )

/** Tests of an acute joint that could not be done or do not count, but what is concluded already: all of them on the same days. */
function notValidAgain(judged: Judgement, concluded: readonly Again[]): Again[] {
  const { pack, record, examination, sides } = judged
  const onset = onsetOf(record)
  if (onset === undefined || Date.parse(examination.asOf) - Date.parse(onset) > ACUTE_DAYS * DAY_MS || sides.length === 0) return []
  const items = itemsById(pack)
  const isSore = (side: string): boolean => side === 'none' || examination.complaint.sides.some((one) => one === side || one === 'none')
  const told = new Set(concluded.map(({ what }) => what))
  const tests = record.findings.flatMap(({ item, side, state }) => {
    const isOpen = state === 'not-valid' || state === 'could-not'
    return isOpen && isSore(side) && items.get(item)?.stage === 'test' ? [nameOf(judged, item, side)] : []
  })
  const open = [...new Set(tests)].filter((name) => !told.has(name))
  return open.length === 0 ? [] : [{ what: open.join('; '), ...between(judged, WHEN_CALMER) }]
}

const nameOf = ({ pack }: Judgement, id: string, side: string): string => `${itemsById(pack).get(id)?.label ?? ''}${sideWord(side) === '' ? '' : `, ${side}`}`

/** Never before tomorrow, and never over before it begins. */
function between({ record, examination }: Judgement, { from, to }: DaySpan): { readonly from: string; readonly to: string } {
  const seen = Date.parse(examination.asOf)
  const start = Date.parse(onsetOf(record) ?? examination.asOf)
  const first = Math.max(start + from * DAY_MS, seen + DAY_MS)
  return { from: new Date(first).toISOString(), to: new Date(Math.max(start + to * DAY_MS, first)).toISOString() }
}

/** The first day on which something can be examined again, else the last by which its plan wants it seen. */
function proposedReview(judged: Judgement, again: readonly Again[], care: readonly CarePlan[]): Plan['review'] {
  const [first] = [...again].sort((a, b) => a.from.localeCompare(b.from))
  if (first !== undefined) return { on: first.from, isSet: false, because: first.what }
  const [soonest] = care.flatMap(({ review, plans }) => (review === undefined ? [] : [{ review, plans }])).sort((a, b) => a.review.to - b.review.to)
  if (soonest === undefined) return undefined
  const on = new Date(Date.parse(judged.examination.asOf) + soonest.review.to * DAY_MS).toISOString()
  return { on, isSet: false, because: 'response to treatment' }
}

/** @example againWords({ what: 'Lachman test, right', from, to }, 'UTC') // 'Examine again between 3 Dec 2026 and 5 Dec 2026: Lachman test, right' */
export function againWords({ what, from, to }: Again, zone: string | undefined): string {
  const [first, last] = [dayOnly(from, zone), dayOnly(to, zone)]
  return `Examine again ${first === last ? `on ${first}` : `between ${first} and ${last}`}: ${what}`
}

/** The plan as a physician writes it: in note and letter. A day that is only proposed says so. */
export function planLines(judged: Judgement, zone: string | undefined): readonly string[] {
  const { review, again, care } = planOf(judged)
  return [
    ...(review === undefined ? [] : [`Review ${review.isSet ? 'on' : 'proposed for'} ${dayOnly(review.on, zone)} (${review.because})`]),
    ...again.map((one) => againWords(one, zone)),
    ...care.flatMap(({ plans, support, returns }) => [
      plans,
      ...(support === undefined ? [] : [`Support: ${support}`]),
      ...(returns === undefined ? [] : [`Return to activity: ${returns.join(', then ')}`]),
    ]),
  ]
}
