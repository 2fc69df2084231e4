import { learnServerTime } from './clock'
import { signedOut } from './signedOut'

/** What the server says when it cannot do something: a code, a sentence, and for bad input one fault a field. */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem'
  constructor(
    readonly status: number,
    message: string,
    readonly faults: readonly { readonly path: string; readonly reason: string; readonly expected: string }[] = [],
    readonly code: string = '',
    /** Everything the answer said. */
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
  }
}

/** Speaks JSON with the server. @throws ApiProblem, or TypeError when there is no connection */
export async function api<R>(method: 'GET' | 'POST' | 'DELETE', path: string, body?: unknown): Promise<R> {
  const sent = Date.now()
  const response = await fetch(path, {
    method,
    credentials: 'same-origin',
    ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  })
  // An answer that was kept bears the time of when it was made.
  if (response.headers.get('cache-control')?.includes('immutable') !== true) learnServerTime(response.headers.get('date'), sent, Date.now())
  if (response.status === 204) return undefined as R
  const answer = (await response.json().catch(() => ({}))) as { title?: string; faults?: ApiProblem['faults']; type?: string }
  if (response.ok) return answer as R
  if (response.status === 401 && path !== '/api/session') signedOut.tell()
  throw new ApiProblem(
    response.status,
    answer.title ?? `The server answered ${response.status}.`,
    answer.faults,
    (answer.type ?? '').replace('/problems/', ''),
    answer,
  )
}
