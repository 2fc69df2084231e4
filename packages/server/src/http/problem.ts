import { schemaFaults, type Fault } from '@kneecap-awl/core'
import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { isBusyDatabase, isLostDatabase } from '../db/connect.js'

/** Every code that a problem answer may carry (RFC 9457 `type`, after `/problems/`). */
export type ProblemCode =
  | 'bad-input'
  | 'not-signed-in'
  | 'locked'
  | 'second-factor'
  | 'second-factor-needed'
  | 'wrong-host'
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
  | 'too-long-to-judge'
  | 'busy'
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

/** An address that is no address, or too long for one, is refused before there is a route that could answer: as a problem all the same. */
export function answerBadAddress(error: FastifyError, _request: FastifyRequest, reply: FastifyReply): void {
  const fault = { path: '/', reason: 'is no address that there can be', expected: 'an address of docs/formats/openapi.json' }
  const status = error.statusCode ?? 400
  void reply
    .code(status)
    .type('application/problem+json')
    .send({ type: '/problems/bad-input', title: 'There is nothing at this address.', status, faults: [fault] })
}

/** Answers every error as `application/problem+json`. */
export function answerProblems(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError | HttpProblem, request, reply) => {
    const problem = asProblem(error)
    if (problem.status >= 500) request.log.error(error)
    if (problem.status === 503) void reply.header('retry-after', '2')
    return reply
      .code(problem.status)
      .type('application/problem+json')
      .send({
        type: `/problems/${problem.code}`,
        title: problem.status === 500 ? `${problem.message} Reference ${request.id}.` : problem.message,
        status: problem.status,
        ...problem.more,
      })
  })
  app.setNotFoundHandler((_request, reply) =>
    reply.code(404).type('application/problem+json').send({ type: '/problems/not-found', title: 'There is nothing at this address.', status: 404 }),
  )
}

/** What the database itself does not take (SQLSTATE classes 22 and 23): it never came to be stored, and is no failure of the server. */
function refusedByDatabase(error: unknown): HttpProblem | undefined {
  const { code, column, constraint } = error as { readonly code?: unknown; readonly column?: string; readonly constraint?: string }
  if (typeof code !== 'string' || !/^2[23][0-9A-Z]{3}$/.test(code)) return undefined
  const path = `/${column ?? constraint ?? ''}`
  if (code === '23505' || code === '23503')
    return new HttpProblem(409, 'bad-input', 'Nothing was stored: it stands here already, or what it belongs to is not here.', {
      faults: [{ path, reason: 'does not fit what is stored', expected: 'what is not here yet, of something that is' }],
    })
  return badInput([{ path, reason: 'cannot be stored', expected: 'a value that the database can hold' }])
}

function asProblem(error: FastifyError | HttpProblem): HttpProblem {
  if (error instanceof HttpProblem) return error
  if (isLostDatabase(error))
    return new HttpProblem(503, 'database-lost', 'The database cannot be reached just now. Go on: what you record is kept and sent again.')
  if (isBusyDatabase(error)) return new HttpProblem(503, 'database-lost', 'The database is busy just now. Go on: what you record is kept and sent again.')
  const refused = refusedByDatabase(error)
  if (refused) return refused
  if (error.validation) return badInput(schemaFaults(error.validation))
  if (error.statusCode === 429) return new HttpProblem(429, 'too-many-tries', 'Too many requests. Wait a minute.')
  if (error.statusCode !== undefined && error.statusCode < 500) return new HttpProblem(error.statusCode, 'bad-input', error.message)
  return new HttpProblem(500, 'fault', 'Something failed on the server. Nothing was stored.')
}
