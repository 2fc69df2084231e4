import type { FastifyInstance } from 'fastify'
import { judgement, publicVerdict, readExamination } from '@kneecap-awl/core'
import { badInput, HttpProblem, notFound } from '../http/problem.js'

/** The content pack for the browser, and judging for programs. */
export async function packs(app: FastifyInstance): Promise<void> {
  app.get('/api/packs/current', async (request) => {
    signedIn(request)
    return { hash: app.shelf.current.hash }
  })
  app.get(
    '/api/packs/:hash',
    { schema: { params: { type: 'object', properties: { hash: { type: 'string', pattern: '^[0-9a-f]{16}$' } } } } },
    async (request, reply) => {
      signedIn(request)
      const pack = await app.shelf.byHash(app.pool, (request.params as { hash: string }).hash)
      if (!pack) throw notFound('content pack')
      return reply.header('cache-control', 'private, max-age=31536000, immutable').send(pack)
    },
  )
  app.post('/api/judge', async (request) => {
    app.allow(request, 'judge')
    const read = readExamination(request.body, app.shelf.current)
    if ('faults' in read) throw badInput(read.faults)
    return publicVerdict(app.shelf.current, read.examination, judgement(app.shelf.current, read.examination))
  })
}

const signedIn = (request: { account: unknown }): void => {
  if (!request.account) throw new HttpProblem(401, 'not-signed-in', 'Sign in first.')
}
