/** What the server says when it cannot do something: a code, a sentence, and for bad input one fault a field. */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem'
  constructor(
    readonly status: number,
    message: string,
    readonly faults: readonly { readonly path: string; readonly reason: string; readonly expected: string }[] = [],
  ) {
    super(message)
  }
}

/** Speaks JSON with the server. @throws ApiProblem, or TypeError when there is no connection */
export async function api<R>(method: 'GET' | 'POST' | 'DELETE', path: string, body?: unknown): Promise<R> {
  const response = await fetch(path, {
    method,
    credentials: 'same-origin',
    ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  })
  if (response.status === 204) return undefined as R
  const answer = (await response.json().catch(() => ({}))) as { title?: string; faults?: ApiProblem['faults'] }
  if (!response.ok) throw new ApiProblem(response.status, answer.title ?? `The server answered ${response.status}.`, answer.faults)
  return answer as R
}
