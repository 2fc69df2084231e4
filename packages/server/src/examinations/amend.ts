import { type Entry } from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import type { Account } from '../accounts/queries.js'
import type { PackStore } from '../packs/service.js'
import { followAmendment } from '../referrals/service.js'
import { loadExamination, storeVerdict } from './service.js'

/**
 * After an amendment the verdict is reached and sealed again with every reason that was given; the earlier one stays. A referral that is not
 * closed follows it.
 */
export async function amendVerdict(db: Db, packStore: PackStore, id: string, stored: readonly Entry[], by: Account): Promise<void> {
  const amended = await loadExamination(db, packStore, id)
  const judged = await packStore.judge.verdict(amended.pack, amended.examination)
  const reasons = [...new Set(stored.flatMap((entry) => entry.amends ?? []))]
  await storeVerdict(db, amended, judged, 'amended', reasons.join('; '), by)
  await followAmendment(db, packStore.judge, amended, by)
}
