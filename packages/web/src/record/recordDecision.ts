import { plainEntry, type Entry } from '@kneecap-awl/core'
import { timeOfFinding } from '../api/clock'
import { ApiProblem } from '../api/http'
import type { ExaminationDetail } from '../api/queries'
import { thisDevice } from './device'
import { v7 as newId } from 'uuid'
import { outbox } from './outbox'
import { sendWaiting, underTime } from './sendWaiting'
import type { Draft } from './useRecord'

/**
 * Records what a clinician decides away from the sheet. It waits on this device until the server has it; of a signed examination it is an amendment.
 * @returns the entry as the server has it, or as it waits here
 * @throws ApiProblem when the server refuses it: then it waits no longer
 */
export async function recordDecision(detail: Pick<ExaminationDetail, 'id' | 'signedAt'>, by: string, draft: Draft): Promise<Entry> {
  const amends = detail.signedAt ? { amends: 'reason' in draft && draft.reason ? draft.reason : 'decided after signing' } : {}
  const entry = plainEntry({ ...draft, id: newId(), by, at: timeOfFinding(), device: thisDevice(), ...amends })
  await outbox.add(detail.id, [entry])
  try {
    const { refused, times } = await sendWaiting(detail.id)
    if (!refused.includes(entry.id)) return underTime(entry, times.get(entry.id))
    const [mine] = (await outbox.refused(detail.id)).filter((one) => one.entry.id === entry.id)
    await outbox.done([entry.id])
    throw new ApiProblem(400, `Not taken: ${mine?.reason ?? 'no reason given'}`)
  } catch (error) {
    if (!(error instanceof ApiProblem)) return entry
    if (error.status === 409) await outbox.done([entry.id])
    throw error
  }
}
