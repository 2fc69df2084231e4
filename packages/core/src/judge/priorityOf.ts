import { moreUrgent, tierRank, type Tier } from '../model/tier.js'
import { type RegionPack } from '../pack/pack.js'
import type { Judgement } from './judgement.js'
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

/** Where a patient goes whose priority was raised past the findings, which do not say where; empty when it was not. */
export function raisedTo({ tiers }: Pick<RegionPack, 'tiers'>, { tier, computed }: Priority): readonly string[] {
  const to = tiers.find((one) => one.id === tier)?.to
  return to !== undefined && tierRank(tier) < tierRank(computed) ? [to] : []
}

/**
 * How urgent it could still be, when that is Now or Today, more urgent than what the patient is seen by, and nobody has accepted it yet.
 * Such an examination is not left without a reason, a plan and a name.
 * @example rangeToAccept(judgement(pack, nothingExamined)) // 'now'
 */
export function rangeToAccept(judged: Pick<Judgement, 'verdict' | 'record'>): Tier | undefined {
  const { ceiling } = judged.verdict
  if ((ceiling !== 'now' && ceiling !== 'today') || tierRank(ceiling) >= tierRank(priorityOf(judged).tier)) return undefined
  const accepted = judged.record.decisions.acceptance?.ceiling
  return accepted !== undefined && tierRank(accepted) <= tierRank(ceiling) ? undefined : ceiling
}

/**
 * The priority that counts: what the findings give, unless a clinician set another. A priority that was raised never holds back a more urgent
 * finding; one that was lowered lapses when the findings become more urgent than they were when it was set.
 * @example priorityOf(judgement(pack, todaySetToDays)).tier // 'days'
 */
export function priorityOf({ verdict, record }: Pick<Judgement, 'verdict' | 'record'>): Priority {
  const computed = verdict.floor
  const { choice } = record.decisions
  if (!choice) return { tier: computed, computed }
  const { tier, from, by, at, reason, senior, seniorAt } = choice
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
      ...(senior === undefined ? {} : { senior }),
      ...(seniorAt === undefined ? {} : { seniorAt }),
    },
  }
}
