import { schemaFaults, type Fault } from '@kneecap-awl/core'
import type { FastifyError, FastifyInstance } from 'fastify'
import { isLostDatabase } from '../db/connect.js'

/** Every code that a problem answer may carry (RFC 9457 `type`, after `/problems/`). */
export type ProblemCode =
  | 'bad-input'
  | 'not-signed-in'
  | 'not-allowed'
  | 'not-found'
  | 'already-signed'
  | 'verdict-differs'
  | 'record-differs'
  | 'discarded'
  | 'possible-duplicate'
  | 'range-open'
  | 'wrong-origin'
  | 'too-many-tries'
  | 'database-lost'
  | 'fault'

/** Thrown by a capability; answered as problem details. Nothing was stored. */
export class HttpProblem extends Error {
  override readonly name = 'HttpProblem'
  constructor(
    readonly status: number,
    readonly code: ProblemCode,
    message: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
  }
}

export const badInput = (faults: readonly Fault[]): HttpProblem =>
  new HttpProblem(
    400,
    'bad-input',
    `Nothing was stored: ${faults
      .map((f) => `${f.path} ${f.reason}`)
      .slice(0, 3)
      .join('; ')}`,
    { faults },
  )
export const notFound = (what: string): HttpProblem => new HttpProblem(404, 'not-found', `There is no such ${what} here.`)

/** Answers every error as `application/problem+json`. */
export function answerProblems(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError | HttpProblem, request, reply) => {
    const problem = asProblem(error)
    if (problem.status >= 500) request.log.error(error)
    if (problem.status === 503) void reply.header('retry-after', '2')
    return reply
      .code(problem.status)
      .type('application/problem+json')
      .send({ type: `/problems/${problem.code}`, title: problem.message, status: problem.status, ...problem.more })
  })
  app.setNotFoundHandler((_request, reply) =>
    reply.code(404).type('application/problem+json').send({ type: '/problems/not-found', title: 'There is nothing at this address.', status: 404 }),
  )
}

function asProblem(error: FastifyError | HttpProblem): HttpProblem {
  if (error instanceof HttpProblem) return error
  if (isLostDatabase(error))
    return new HttpProblem(503, 'database-lost', 'The database cannot be reached just now. Go on: what you record is kept and sent again.')
  if (error.validation) return badInput(schemaFaults(error.validation))
  if (error.statusCode === 429) return new HttpProblem(429, 'too-many-tries', 'Too many tries. Wait a minute.')
  if (error.statusCode !== undefined && error.statusCode < 500) return new HttpProblem(error.statusCode, 'bad-input', error.message)
  return new HttpProblem(500, 'fault', 'Something failed on the server. Nothing was stored.')
}
