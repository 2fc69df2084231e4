import type { AnswerOf, BodyOf, FaultForm, ParamsOf, ProblemForm, QueryOf, Route } from '@kneecap-awl/contract'
import { learnServerTime } from './clock'
import { signedOut } from './signedOut'

/** What the server says when it cannot do something: a code, a sentence, and for bad input one fault a field. */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem'
  constructor(
    readonly status: number,
    message: string,
    readonly faults: readonly FaultForm[] = [],
    readonly code: string = '',
    /** Everything the answer said. */
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
  }
}

/** What a route takes: each part only where the route has it. */
type Sent<R extends Route> = (R extends { readonly params: object } ? { readonly params: ParamsOf<R> } : unknown) &
  (R extends { readonly query: object } ? { readonly query: QueryOf<R> } : unknown) &
  (R extends { readonly body: object } ? { readonly body: BodyOf<R> } : unknown)

/**
 * Calls a route of the contract and answers in its type.
 * @throws ApiProblem, or TypeError when there is no connection
 * @example call(examinations.readExamination, { params: { id } })
 */
export async function call<R extends Route>(route: R, ...[sent]: unknown extends Sent<R> ? [] : [Sent<R>]): Promise<AnswerOf<R>> {
  const { params = {}, query, body } = (sent ?? {}) as { params?: Record<string, string>; query?: Record<string, string>; body?: unknown }
  const path = route.url.replaceAll(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''))
  const started = Date.now()
  const response = await fetch(query ? `${path}?${new URLSearchParams(query).toString()}` : path, {
    method: route.method,
    credentials: 'same-origin',
    ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  })
  // An answer that was kept bears the time of when it was made.
  if (response.headers.get('cache-control')?.includes('immutable') !== true) learnServerTime(response.headers.get('date'), started, Date.now())
  if (response.status === 204) return null as AnswerOf<R>
  const answer: unknown = await response.json().catch(() => ({}))
  if (response.ok) return answer as AnswerOf<R>
  const problem = problemOf(response.status, answer as Partial<ProblemForm>)
  if (response.status === 401 && !path.startsWith('/api/session')) signedOut.tell(problem.code === 'locked' ? 'locked' : 'out')
  throw problem
}

const problemOf = (status: number, answer: Partial<ProblemForm>): ApiProblem =>
  new ApiProblem(status, answer.title ?? `The server answered ${status}.`, answer.faults, (answer.type ?? '').replace('/problems/', ''), { ...answer })
