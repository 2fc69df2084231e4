import type { AnswerOf, BodyOf, ParamsOf, QueryOf, Route } from '@kneecap-awl/contract'
import { ProblemForm } from '@kneecap-awl/contract'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import type { Account } from '../accounts/queries.js'

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
  const { method, url, summary, params, query, body, status = 200 } = route
  app.route({
    method,
    url,
    ...more,
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
    onRequest: async (request) => refuseWhoMayNot(app, request, route),
    handler: async (request, reply) => {
      // Who asks and the forms of the route have been checked: from here on the request has their types.
      const { params, query, body, account } = request
      const call = { params, query, body, account, request, reply } as Call<R>
      return reply.code(status).send(await answer(call))
    },
  })
}

/** @throws HttpProblem 401 or 403 */
function refuseWhoMayNot(app: FastifyInstance, request: FastifyRequest, { may }: Route): void {
  if (may === 'anyone') return
  app.allow(request, may)
}
