import type { Pack, Tier } from '../content/types.js'
import { isTier, PRIORITY } from '../record/checkDecision.js'
import type { Entry } from '../record/entry.js'
import { isLater } from '../record/fold.js'
import type { Judgement } from './judge.js'
import { tierRank } from './prepare.js'
import { moreUrgent } from './priorityTier.js'

/** A priority that a clinician set in place of the one that the findings give. */
export interface SetPriority {
  readonly tier: Tier
  /** What the findings gave when it was set. */
  readonly from: Tier
  readonly by: string
  readonly at: string
  readonly reason?: string
  /** Who agreed to lower Now or Today, and when. */
  readonly senior?: string
  readonly seniorAt?: string
  /** It no longer holds: the findings have become more urgent since. */
  readonly hasLapsed: boolean
}

export interface Priority {
  /** What the patient is seen by. */
  readonly tier: Tier
  /** What the findings give: the floor of the verdict. It stays visible. */
  readonly computed: Tier
  readonly set?: SetPriority
}

/** Where a patient goes whose priority was raised to this tier, when no finding says where. */
export const raisedTo = (pack: Pick<Pack, 'tiers'>, tier: Tier): readonly string[] => pack.tiers.flatMap((one) => (one.id === tier && one.to ? [one.to] : []))

/** The entry by which the priority is set, if one stands. */
export function choiceOf(entries: readonly Entry[]): Entry | undefined {
  let last: Entry | undefined
  for (const entry of entries) if (entry.item === PRIORITY && (last === undefined || isLater(entry, last))) last = entry
  return last?.state === 'chosen' ? last : undefined
}

/**
 * The priority that counts: what the findings give, unless a clinician set another. A priority that was raised never holds back a more urgent
 * finding; one that was lowered lapses when the findings become more urgent than they were when it was set.
 * @example priorityOf(judgement(pack, todaySetToDays)).tier // 'days'
 */
export function priorityOf({ verdict, choice }: Pick<Judgement, 'verdict' | 'choice'>): Priority {
  const computed = verdict.floor
  const from = choice?.qualifiers?.from
  if (!choice || !isTier(choice.value) || !isTier(from)) return { tier: computed, computed }
  const { value: tier, by, at, reason, qualifiers } = choice
  const isRaised = tierRank(tier) <= tierRank(from)
  const hasLapsed = isRaised ? tierRank(computed) < tierRank(tier) : tierRank(computed) < tierRank(from)
  return {
    tier: isRaised ? moreUrgent(tier, computed) : hasLapsed ? computed : tier,
    computed,
    set: {
      tier,
      from,
      by,
      at,
      hasLapsed,
      ...(reason === undefined ? {} : { reason }),
      ...(typeof qualifiers?.senior === 'string' ? { senior: qualifiers.senior } : {}),
      ...(typeof qualifiers?.['senior-at'] === 'string' ? { seniorAt: qualifiers['senior-at'] } : {}),
    },
  }
}
