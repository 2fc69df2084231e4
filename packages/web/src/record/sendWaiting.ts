import { examinations, type Outcome } from '@kneecap-awl/contract'
import type { Entry } from '@kneecap-awl/core'
import { serverNow } from '../api/clock'
import { ApiProblem, call } from '../api/http'
import { outbox } from './outbox'

/** Most entries that go to the server at once. */
const BATCH = 200

export interface Sent {
  /** The time under which each entry stands on the server, by its id. */
  readonly times: ReadonlyMap<string, string>
  /** Entries that the server did not take. They are kept, with the reason. */
  readonly refused: readonly string[]
}

/**
 * Sends what waits in the outbox for one examination until nothing is left to send. Sending an entry twice stores it once; one that is
 * refused stays in the outbox with its reason and holds up none of the others.
 * @throws ApiProblem when the server takes nothing at all (401, 409, 503), TypeError when it cannot be reached; all that was not acknowledged stays
 */
export async function sendWaiting(examination: string, onSending: (count: number) => void = () => undefined): Promise<Sent> {
  const times = new Map<string, string>()
  const refused: string[] = []
  for (;;) {
    const batch = (await outbox.waiting(examination)).slice(0, BATCH)
    if (batch.length === 0) return { times, refused }
    onSending(batch.length)
    for (const outcome of await send(examination, batch)) {
      if (outcome.state === 'refused') refused.push(outcome.id)
      else if (outcome.at) times.set(outcome.id, outcome.at)
    }
  }
}

/** Sends a batch and keeps or lets go of each entry as the server says. */
async function send(examination: string, batch: readonly Entry[]): Promise<readonly Outcome[]> {
  const outcomes = await outcomesOf(examination, batch)
  await outbox.refuse(new Map(outcomes.flatMap((one) => (one.state === 'refused' ? [[one.id, one.reason ?? 'refused']] : []))))
  await outbox.done(outcomes.filter((one) => one.state !== 'refused').map((one) => one.id))
  return outcomes
}

async function outcomesOf(examination: string, batch: readonly Entry[]): Promise<readonly Outcome[]> {
  try {
    const body = { entries: batch, sentAt: new Date(serverNow()).toISOString() }
    return (await call(examinations.sendEntries, { params: { id: examination }, body })).outcomes
  } catch (error) {
    if (!(error instanceof ApiProblem) || (error.status !== 400 && error.status !== 500)) throw error
    return refusalsOf(examination, batch, error)
  }
}

/** The server named what is wrong with some entries, or failed: those alone are refused, the others go again without them. */
async function refusalsOf(examination: string, batch: readonly Entry[], error: ApiProblem): Promise<readonly Outcome[]> {
  const faulty = new Map<string, string>()
  for (const { path, reason, expected } of error.faults) {
    const entry = batch[Number(/^\/entries\/(\d+)/.exec(path)?.[1] ?? -1)]
    if (entry) faulty.set(entry.id, `${reason}; expected ${expected}`)
  }
  const [only] = batch
  if (faulty.size === 0 && batch.length === 1 && only) faulty.set(only.id, error.message)
  const refusals = [...faulty].map(([id, reason]): Outcome => ({ id, state: 'refused', reason }))
  const rest = batch.filter((entry) => !faulty.has(entry.id))
  if (rest.length === 0) return refusals
  if (faulty.size > 0) return [...refusals, ...(await outcomesOf(examination, rest))]
  const half = Math.ceil(rest.length / 2)
  return [...(await outcomesOf(examination, rest.slice(0, half))), ...(await outcomesOf(examination, rest.slice(half)))]
}

/** An entry under the time that the server gave it, with what its device had said. */
export const underTime = (entry: Entry, at: string | undefined): Entry =>
  at === undefined || at === entry.at ? entry : { ...entry, at, deviceAt: entry.deviceAt ?? entry.at }
