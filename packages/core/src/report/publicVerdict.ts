import { localChoices } from '../pack/profile.js'
import { earlierFlags } from '../judge/pastFlags.js'
import { priorityOf, rangeToAccept } from '../judge/priorityOf.js'
import { openItems } from '../judge/openItems.js'
import { calcVerdicts } from '../judge/calcVerdicts.js'
import { adviceOf } from '../judge/advice.js'
import { conclusionsOf } from '../judge/conclusions.js'
import { contradictionsOf } from '../judge/contradictions.js'
import { standingHolds } from '../judge/holds.js'
import { planOf } from './plan.js'
import { toldProof } from './proofWords.js'
import type { Judgement } from '../judge/judgement.js'
import { conditionRanges } from '../reason/conditions.js'

/** The verdict as other programs read it: what `npm run judge` prints and `POST /api/judge` answers. */
export function publicVerdict(judged: Judgement): object {
  const { pack, examination, verdict } = judged
  const advice = adviceOf(judged)
  return {
    pack: { id: pack.id, version: pack.version, hash: pack.hash },
    localChoices: localChoices(pack.practiceVariants, examination.complaint.region).map(({ topic, chosen }) => ({ topic, chosen })),
    floor: verdict.floor,
    ceiling: verdict.ceiling,
    priority: priorityOf(judged),
    rangeToAccept: rangeToAccept(judged) ?? null,
    flags: [...verdict.flags, ...verdict.openFlags.filter((flag) => flag.truth !== 'met')].map((flag) => ({
      id: flag.id,
      side: flag.side,
      truth: flag.truth,
      tier: flag.tier ?? null,
      couldBe: flag.ceiling ?? null,
      destination: flag.to[0] ?? null,
      heldSince: flag.retained?.until ?? null,
      proof: flag.proof ? toldProof(pack, flag.proof) : null,
    })),
    earlier: earlierFlags(judged).map(({ flag, tier, until, isRetained, lifted }) => ({
      id: flag.id,
      side: flag.side,
      tier,
      until,
      isHeld: isRetained,
      lifted: lifted ? { by: lifted.by, at: lifted.at, reason: lifted.reason } : null,
      proof: flag.proof ? toldProof(pack, flag.proof) : null,
    })),
    holds: standingHolds(judged).map((hold) => ({ id: hold.id, side: hold.side, reason: hold.reason, stops: hold.stops, awaits: hold.awaits })),
    disagreements: judged.disagreements.map(({ stands, other }) => ({ item: stands.item, side: stands.side, stands: stands.id, other: other.id })),
    contradictions: contradictionsOf(judged),
    conclusions: conclusionsOf(judged),
    plan: planOf(judged),
    open: openItems(judged).map((one) => ({ ...one, held: one.onHold })),
    advice,
    counsels: advice,
    measures: calcVerdicts(judged),
    conditions: conditionRanges(judged),
  }
}
