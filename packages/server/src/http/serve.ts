import type { AnswerOf, BodyOf, ParamsOf, QueryOf, Route } from '@kneecap-awl/contract'
import { ProblemForm } from '@kneecap-awl/contract'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import type { Account } from '../accounts/queries.js'
import { HttpProblem } from './problem.js'

/** A request as its route describes it: checked, and from somebody who may. */
export interface Call<R extends Route> {
  readonly params: ParamsOf<R>
  readonly query: QueryOf<R>
  readonly body: BodyOf<R>
  /** Who asks; null only where anyone may. */
  readonly account: R['may'] extends 'anyone' ? Account | null : Account
  readonly request: FastifyRequest
  readonly reply: FastifyReply
}

/**
 * Answers a route of the contract: what comes in is checked by its forms, whoever asks by what the route asks for, and what goes out is
 * written by its form.
 * @param more what Fastify needs to know besides: a larger body, a limit of calls
 */
export function serve<R extends Route>(
  app: FastifyInstance,
  route: R,
  answer: (call: Call<R>) => Promise<AnswerOf<R>>,
  more: { readonly bodyLimit?: number; readonly config?: object } = {},
): void {
  app.route({
    ...more,
    ...described(app, route),
    handler: async (request, reply) => reply.code(route.status ?? 200).send(await answer(callOf<R>(request, reply))),
  })
}

/** Answers a route with server-sent events, for as long as they are heard. @param begin begins to send; what was sent is the answer */
export function serveStream<R extends Route>(app: FastifyInstance, route: R, begin: (call: Call<R>) => Promise<void>): void {
  app.route({
    ...described(app, route),
    sse: 'manual',
    handler: async (request, reply) => {
      if (!/text\/(event-stream|\*)|\*\/\*/.test(request.headers.accept ?? '*/*'))
        throw new HttpProblem(406, 'bad-input', 'Changes are told as server-sent events alone: ask with "accept: text/event-stream".')
      await begin(callOf<R>(request, reply))
    },
  })
}

const described = (app: FastifyInstance, route: Route) => {
  const { method, url, summary, params, query, body, status = 200 } = route
  return {
    method,
    url,
    schema: {
      summary,
      ...(params ? { params } : {}),
      ...(query ? { querystring: query } : {}),
      ...(body ? { body } : {}),
      response: {
        ...(status === 204 || ('type' in route.answer && route.answer.type === 'string') ? {} : { [status]: route.answer }),
        '4xx': ProblemForm,
        '5xx': ProblemForm,
      },
    },
    // Who may not is told so before anything that was sent is read.
    onRequest: async (request: FastifyRequest) => refuseWhoMayNot(app, request, route),
  }
}

/** Who asks and the forms of the route have been checked: the request has their types. */
const callOf = <R extends Route>(request: FastifyRequest, reply: FastifyReply): Call<R> => {
  const { params, query, body, account } = request
  return { params, query, body, account, request, reply } as Call<R>
}

/** @throws HttpProblem 401 or 403 */
function refuseWhoMayNot(app: FastifyInstance, request: FastifyRequest, { may }: Route): void {
  if (may === 'anyone') return
  app.allow(request, may)
}
