import { live as contract, type Change } from '@kneecap-awl/contract'
import { fastifySSE } from '@fastify/sse'
import type { FastifyInstance } from 'fastify'
import fp from 'fastify-plugin'
import { serveStream } from '../http/serve.js'

const HEARTBEAT_MS = 15_000
/** Changes within so long are told together, each once. */
const GATHER_MS = 200

/** Tells whoever is signed in what changes at their site, from whichever server it was changed. */
export async function live(app: FastifyInstance): Promise<void> {
  await app.register(fp(fastifySSE), { heartbeatInterval: HEARTBEAT_MS })
  const open = new Set<() => void>()
  // A stream has no end of its own: one that stood open would keep a server that is to stop.
  app.addHook('preClose', () => open.forEach((end) => end()))
  serveStream(app, contract.liveChanges, async ({ account, request, reply }) => {
    const { sse } = reply
    const waiting = new Map<string, Change>()
    const flush = async (): Promise<void> => {
      const told = [...waiting.values()]
      waiting.clear()
      for (const data of told) await sse.send({ data })
    }
    const hear = (change: Change): void => {
      if (waiting.size === 0) setTimeout(() => void flush().catch(end), GATHER_MS)
      waiting.set(`${change.what} ${change.id}`, change)
    }
    const endHearing = app.changes?.listen(account.site, hear)
    // What is heard names no patient, but whoever is signed out, locked or no longer of the site hears nothing more either.
    const watch = setInterval(() => void app.isStillIn(request).then((isIn) => isIn || end(), end), HEARTBEAT_MS)
    function end(): void {
      clearInterval(watch)
      endHearing?.()
      open.delete(end)
      if (sse.isConnected) sse.close()
    }
    open.add(end)
    sse.onClose(end)
    sse.keepAlive()
    await sse.send({ data: { what: 'all' } satisfies Change, retry: 2000 })
  })
}
