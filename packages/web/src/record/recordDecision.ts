import type { Entry } from '@kneecap-awl/core'
import { ApiProblem } from '../api/http'
import type { ExaminationDetail } from '../api/queries'
import { newId } from './newId'
import { outbox } from './outbox'
import { sendWaiting } from './sendWaiting'
import type { Draft } from './useRecord'

/**
 * Records what a clinician decides away from the sheet. It waits on this device until the server has it; of a signed examination it is an amendment.
 * @throws ApiProblem when the server refuses it: then it waits no longer
 */
export async function recordDecision(detail: Pick<ExaminationDetail, 'id' | 'signedAt'>, by: string, draft: Draft): Promise<void> {
  const amends = detail.signedAt ? { amends: draft.reason ?? 'decided after signing' } : {}
  const entry: Entry = { ...draft, id: newId(), by, at: new Date().toISOString(), ...amends }
  await outbox.add(detail.id, [entry])
  try {
    await sendWaiting(detail.id)
  } catch (error) {
    if (!(error instanceof ApiProblem)) return
    if (error.status === 400 || error.status === 409) await outbox.done([entry.id])
    throw error
  }
}
