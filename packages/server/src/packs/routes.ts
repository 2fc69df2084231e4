import { packs as contract } from '@kneecap-awl/contract'
import type { FastifyInstance } from 'fastify'
import { libraryIndex, oncePer, viewOf } from '@kneecap-awl/core'
import { badInput, notFound } from '../http/problem.js'
import { serve } from '../http/serve.js'

/** Made when it is first asked for. */
const libraryOf = oncePer(libraryIndex)

/** Judging what a program sends counts as so many requests: one that judges many records does so with `npm run judge`. */
const JUDGING_COUNTS = 10

/** The content pack for the browser, and judging for programs. */
export async function packs(app: FastifyInstance): Promise<void> {
  serve(app, contract.currentPack, async () => {
    const { hash, version, regions, destinations, tiers, cautions } = app.packStore.current
    return {
      hash,
      version,
      destinations,
      tiers,
      cautions,
      regions: regions.map(({ id, name, side, figure, ages, complaint }) => ({ id, name, side, figure, ages, complaint })),
    }
  })
  serve(app, contract.regionPack, async ({ params: { hash, region }, reply }) => {
    const pack = await app.packStore.byHash(app.pool, hash)
    if (!pack?.regions.some((one) => one.id === region)) throw notFound('content pack')
    reply.header('cache-control', 'private, max-age=31536000, immutable')
    return viewOf(pack, region)
  })
  serve(app, contract.readLibrary, async () => {
    const pack = app.packStore.current
    return { hash: pack.hash, entries: libraryOf(pack), formerly: pack.formerly.ids }
  })
  serve(
    app,
    contract.judge,
    async ({ body }) => {
      const { current, judge } = app.packStore
      const judged = await judge.document(current, body)
      if ('faults' in judged) throw badInput(judged.faults)
      return judged.verdict
    },
    { config: { rateLimit: { max: Math.ceil(app.requestsPerMinute / JUDGING_COUNTS), timeWindow: '1 minute' } } },
  )
}
