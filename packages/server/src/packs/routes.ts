import type { FastifyInstance } from 'fastify'
import { judgement, libraryIndex, oncePer, publicVerdict, readExamination, viewOf } from '@kneecap-awl/core'
import { badInput, HttpProblem, notFound } from '../http/problem.js'

/** The content pack for the browser, and judging for programs. */
/** Made when it is first asked for. */
const libraryOf = oncePer(libraryIndex)

export async function packs(app: FastifyInstance): Promise<void> {
  app.get('/api/packs/current', async (request) => {
    signedIn(request)
    const { hash, version, regions, destinations, tiers, cautions } = app.shelf.current
    return {
      hash,
      version,
      destinations,
      tiers,
      cautions,
      regions: regions.map(({ id, name, side, figure, ages, complaint }) => ({ id, name, side, figure, ages, complaint })),
    }
  })
  const params = { type: 'object', properties: { hash: { type: 'string', pattern: '^[0-9a-f]{16}$' }, region: { type: 'string', pattern: '^[a-z-]{2,40}$' } } }
  /** The pack as one region sees it: what a workspace needs. */
  app.get('/api/packs/:hash/:region', { schema: { params } }, async (request, reply) => {
    signedIn(request)
    const { hash, region } = request.params as { hash: string; region: string }
    const pack = await app.shelf.byHash(app.pool, hash)
    if (!pack?.regions.some((one) => one.id === region)) throw notFound('content pack')
    return reply.header('cache-control', 'private, max-age=31536000, immutable').send(viewOf(pack, region))
  })
  /** What can be looked up in the pack in use: one line each. */
  app.get('/api/library', async (request) => {
    signedIn(request)
    return { hash: app.shelf.current.hash, entries: libraryOf(app.shelf.current) }
  })
  app.post('/api/judge', async (request) => {
    app.allow(request, 'judge')
    const read = readExamination(request.body, app.shelf.current)
    if ('faults' in read) throw badInput(read.faults)
    return publicVerdict(judgement(app.shelf.current, read.examination))
  })
}

const signedIn = (request: { account: unknown }): void => {
  if (!request.account) throw new HttpProblem(401, 'not-signed-in', 'Sign in first.')
}
