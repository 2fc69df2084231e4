import { api } from '../api/http'
import { outbox } from './outbox'

/** Most entries that go to the server at once. */
export const BATCH = 200

/**
 * Sends what waits in the outbox for one examination until nothing is left. Sending an entry twice stores it once.
 * @throws ApiProblem when the server refuses, TypeError when it cannot be reached; what was not acknowledged stays in the outbox
 */
export async function sendWaiting(examination: string, onSending: (count: number) => void = () => undefined): Promise<void> {
  for (;;) {
    const waiting = (await outbox.waiting(examination)).slice(0, BATCH)
    if (waiting.length === 0) return
    onSending(waiting.length)
    await api('POST', `/api/examinations/${examination}/entries`, { entries: waiting })
    await outbox.done(waiting.map((entry) => entry.id))
  }
}
