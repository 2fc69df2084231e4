import fp from 'fastify-plugin'
import { asOne } from '../db/connect.js'
import { addAudit } from './queries.js'

/** Not allowed, not here (or of another site), in conflict with what stands. */
const REFUSED: ReadonlySet<number> = new Set([403, 404, 409])
const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

/** What somebody who is signed in asked for and was refused: with the route and the ids in it, never with what was sent. */
export const refusals = fp(async (app) => {
  app.addHook('onResponse', async (request, reply) => {
    const { account, method, routeOptions, params } = request
    const route = routeOptions.url
    if (!account || !route?.startsWith('/api/') || !REFUSED.has(reply.statusCode)) return
    const ids = Object.values((params ?? {}) as Readonly<Record<string, unknown>>).filter((value) => typeof value === 'string' && ID.test(value))
    const line = { site: account.site, account: account.id, action: `refused ${reply.statusCode}`, about: [method, route, ...ids].join(' ') }
    // The answer is out already: a database that is lost now leaves nothing but a line in the log.
    await asOne(app.pool, async (db) => addAudit(db, line)).catch((error: unknown) => request.log.warn({ err: error }, 'a refusal was not audited'))
  })
})
