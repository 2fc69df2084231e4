import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import compress from '@fastify/compress'
import cookie from '@fastify/cookie'
import helmet from '@fastify/helmet'
import rateLimit from '@fastify/rate-limit'
import fastifyStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import { packs as contract } from '@kneecap-awl/contract'
import addFormats from 'ajv-formats'
import Fastify, { type FastifyInstance, type FastifyReply } from 'fastify'
import type pg from 'pg'
import { people } from './accounts/people.js'
import { accounts } from './accounts/routes.js'
import { refusals } from './audit/refusals.js'
import { Shown } from './audit/shown.js'
import { Ranges } from './examinations/ranges.js'
import { examinations } from './examinations/routes.js'
import { onlyHosts } from './http/hosts.js'
import { LOGGING } from './http/log.js'
import { answerBadAddress, answerProblems } from './http/problem.js'
import { serve } from './http/serve.js'
import { privacy } from './http/privacy.js'
import { refuseUnstorable } from './http/unstorable.js'
import type { Changes } from './live/changes.js'
import { live } from './live/routes.js'
import { packs } from './packs/routes.js'
import type { PackStore } from './packs/service.js'
import { patients } from './patients/routes.js'
import { referrals } from './referrals/routes.js'

declare module 'fastify' {
  interface FastifyInstance {
    pool: pg.Pool
    packStore: PackStore
    signInTries: number
    idleMinutes: number
    requestsPerMinute: number
    /** Where unsigned examinations stand. */
    ranges: Ranges
    /** Which lists were shown to whom a moment ago. */
    shown: Shown
    /** What any server changes. */
    changes: Changes | undefined
  }
}

export interface AppOptions {
  readonly pool: pg.Pool
  readonly packStore: PackStore
  /** What other servers change; without it nothing is told but what is asked. */
  readonly changes?: Changes
  /** Tries of one name from one address in a quarter of an hour. */
  readonly signInTries?: number
  /** Of one account, or of one address where nobody is signed in. */
  readonly requestsPerMinute?: number
  /** After so long without a request a session is locked. */
  readonly idleMinutes?: number
  /** Names that the server answers to, besides those of its own machine. */
  readonly hosts?: readonly string[]
  /** Addresses of proxies, comma-separated, whose word is taken for where a request came from. */
  readonly trustProxy?: string
  readonly tls?: { readonly cert: Buffer; readonly key: Buffer }
  /** Where the log goes; none keeps none. */
  readonly log?: { write(line: string): void }
}

const WEB = fileURLToPath(new URL('../../web/dist/', import.meta.url))
const ABOUT = 'What programs and the web application say to the server. A session cookie says who asks; an error is a problem (RFC 9457).'
/** Pages are no part of what programs call. */
const NOT_API = { schema: { hide: true } }
const NONCE_MARK = '__CSP_NONCE__'

/** What an error and its line in the log have in common: short enough to be read out on the telephone. */
const reference = (): string => randomBytes(4).toString('hex')

/** The whole server as one Fastify instance: one plugin a capability, and the built web application. */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const { pool, packStore, changes, signInTries = 10, requestsPerMinute = 1200, idleMinutes = 15, hosts = [], trustProxy = false, tls, log } = options
  const app: FastifyInstance = Fastify({
    logger: log ? { ...LOGGING, stream: log } : false,
    genReqId: reference,
    trustProxy,
    ...(tls ? { https: tls } : {}),
    bodyLimit: 2 * 1024 * 1024,
    frameworkErrors: answerBadAddress,
    requestTimeout: 30_000,
    connectionTimeout: 60_000,
    ajv: { customOptions: { allowUnionTypes: true, coerceTypes: false, removeAdditional: false, discriminator: true }, plugins: [addFormats.default as never] },
  })
  app.decorate('pool', pool)
  app.decorate('packStore', packStore)
  app.decorate('signInTries', signInTries)
  app.decorate('idleMinutes', idleMinutes)
  app.decorate('requestsPerMinute', requestsPerMinute)
  const ranges = new Ranges(pool, packStore, app.log)
  app.decorate('ranges', ranges)
  app.decorate('changes', changes)
  app.decorate('shown', new Shown())
  app.addHook('onReady', async () => {
    ranges.start()
    await changes?.start()
  })
  app.addHook('onClose', async () => {
    await changes?.stop()
    await ranges.settled()
  })
  answerProblems(app)
  refuseUnstorable(app)
  await app.register(onlyHosts(hosts))
  await app.register(helmet, { contentSecurityPolicy: false })
  await app.register(privacy)
  await app.register(compress, { global: true })
  await app.register(cookie)
  await app.register(rateLimit, { max: requestsPerMinute, timeWindow: '1 minute', hook: 'preHandler', keyGenerator: ({ account, ip }) => account?.id ?? ip })
  await app.register(swagger, { openapi: { openapi: '3.0.3', info: { title: 'Kneecap Awl', description: ABOUT, version: '1' } } })
  await app.register(accounts)
  await app.register(people)
  await app.register(refusals)
  await app.register(packs)
  await app.register(patients)
  await app.register(examinations)
  await app.register(referrals)
  await app.register(live)
  serve(app, contract.health, async () => {
    await pool.query('select 1')
    return { ok: true, pack: packStore.current.hash }
  })
  serve(app, contract.openApi, async () => app.swagger())
  await serveWeb(app)
  return app
}

/** The page carries a fresh nonce for its styles with every answer; no inline script is allowed at all. */
async function serveWeb(app: FastifyInstance): Promise<void> {
  if (!existsSync(`${WEB}index.html`)) return
  const page = readFileSync(`${WEB}index.html`, 'utf8')
  const sendPage = (reply: FastifyReply): FastifyReply => {
    const nonce = randomBytes(16).toString('base64')
    const policy = `default-src 'self'; script-src 'self'; style-src 'self' 'nonce-${nonce}'; style-src-attr 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'`
    return reply.header('content-security-policy', policy).header('cache-control', 'no-store').type('text/html').send(page.replaceAll(NONCE_MARK, nonce))
  }
  await app.register(fastifyStatic, { root: WEB, index: false, wildcard: false, immutable: true, maxAge: '365d' })
  app.get('/', NOT_API, (_request, reply) => sendPage(reply))
  app.get('/*', NOT_API, (request, reply) => {
    if (request.url.startsWith('/api/') || request.url.startsWith('/assets/')) return reply.callNotFound()
    return sendPage(reply)
  })
}
