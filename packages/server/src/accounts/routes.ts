import { createHash, randomBytes } from 'node:crypto'
import { accounts as contract, type Account as PublicAccount, type Action } from '@kneecap-awl/contract'
import { hash, verify } from '@node-rs/argon2'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import fp from 'fastify-plugin'
import { addAudit } from '../audit/queries.js'
import { asOne } from '../db/connect.js'
import { HttpProblem } from '../http/problem.js'
import { serve } from '../http/serve.js'
import { accountBySession, accountBySignIn, addSession, endSession, type Account } from './queries.js'
import { may } from './roles.js'

const COOKIE = 'awl_session'
const HOURS = 12
/** Of a name that was tried, so much is kept. */
const LONGEST_NAME = 40
const tokenHash = (token: string): Buffer => createHash('sha256').update(token).digest()

declare module 'fastify' {
  interface FastifyRequest {
    account: Account | null
  }
  interface FastifyInstance {
    /** The signed-in account, if its role may do this. @throws HttpProblem 401 or 403 */
    allow(request: FastifyRequest, action: Action): Account
  }
}

/** Signing in and out, and who is asking. Other capabilities call `app.allow`. */
export const accounts = fp(async (app: FastifyInstance) => {
  const decoy = await hash('no such account')
  app.decorateRequest('account', null)
  app.decorate('allow', (request: FastifyRequest, action: Action) => {
    if (!request.account) throw new HttpProblem(401, 'not-signed-in', 'Sign in first.')
    if (!may(request.account.role, action)) throw new HttpProblem(403, 'not-allowed', `A ${request.account.role} may not do this.`)
    return request.account
  })
  app.addHook('onRequest', async (request) => {
    const token = request.cookies[COOKIE]
    if (token && request.url.startsWith('/api/')) request.account = (await accountBySession(app.pool, tokenHash(token))) ?? null
  })
  app.addHook('onRequest', async (request) => {
    const { origin, host } = request.headers
    if (request.method !== 'GET' && request.method !== 'HEAD' && origin !== undefined && !isFrom(origin, request.protocol, host)) {
      throw new HttpProblem(403, 'wrong-origin', 'This request came from another page.')
    }
  })

  serve(
    app,
    contract.signIn,
    async ({ body: { signIn, password }, request, reply }) => {
      const account = await accountBySignIn(app.pool, signIn.trim().toLowerCase())
      const right = await verify(account?.passwordHash ?? decoy, password)
      if (!account || !right) {
        await asOne(app.pool, async (db) =>
          addAudit(db, {
            site: account?.site ?? null,
            account: account?.id ?? null,
            action: 'sign-in refused',
            about: `${request.ip} ${signIn.trim().slice(0, LONGEST_NAME)}`,
          }),
        )
        throw new HttpProblem(401, 'not-signed-in', 'That name and password do not fit together.')
      }
      const token = randomBytes(32).toString('base64url')
      await asOne(app.pool, async (db) => {
        await addSession(db, tokenHash(token), account.id, HOURS)
        addAudit(db, { site: account.site, account: account.id, action: 'signed in', about: request.ip })
      })
      reply.setCookie(COOKIE, token, { path: '/', httpOnly: true, sameSite: 'strict', maxAge: HOURS * 3600 })
      return { account: publicAccount(account) }
    },
    { config: { rateLimit: { max: app.signInTries, timeWindow: '1 minute' } } },
  )
  serve(app, contract.readSession, async ({ account }) => ({ account: account && publicAccount(account) }))
  serve(app, contract.signOut, async ({ request, reply }) => {
    const token = request.cookies[COOKIE]
    if (token) {
      await asOne(app.pool, async (db) => {
        await endSession(db, tokenHash(token))
        if (request.account) addAudit(db, { site: request.account.site, account: request.account.id, action: 'signed out' })
      })
    }
    reply.clearCookie(COOKIE, { path: '/' })
    return null
  })
})

/** Whether an Origin header names this server, by scheme and host. A page that hides where it comes from (`null`, nothing, or what is no address) does not. */
const isFrom = (origin: string, protocol: string, host: string | undefined): boolean =>
  URL.canParse(origin) && new URL(origin).origin === `${protocol}://${host ?? ''}`

const publicAccount = ({ id, name, role, signIn, siteName, zone }: Account): PublicAccount => ({ id, name, role, signIn, site: siteName, zone })
