import { createHash, randomBytes } from 'node:crypto'
import { accounts as contract, live, type Account as PublicAccount, type Action } from '@kneecap-awl/contract'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import fp from 'fastify-plugin'
import { addAudit, sealerOf } from '../audit/queries.js'
import { again, asOne, asSite } from '../db/connect.js'
import { HttpProblem } from '../http/problem.js'
import { serve } from '../http/serve.js'
import { own } from './own.js'
import { fits, isPasswordOf } from './passwords.js'
import {
  addSession,
  endSession,
  lockSession,
  purgeExpired,
  secretsOf,
  seeSession,
  sessionOf,
  useRecoveryCode,
  useStep,
  type Account,
  type Secrets,
} from './queries.js'
import { may } from './roles.js'
import { codeHash, decrypted, stepOf } from './secondFactor.js'
import { noteFailed, noteKnownPlace, refuseTooMany } from './tries.js'

const HOURS = 12
/** Of a name that was tried, and of what a browser calls itself, so much is kept. */
const LONGEST_NAME = 40
const LONGEST_BROWSER = 200
const MINUTE_MS = 60_000
const tokenHashOf = (token: string): Buffer => createHash('sha256').update(token).digest()

declare module 'fastify' {
  interface FastifyRequest {
    account: Account | null
    /** Whose session it is that is locked, where it is. */
    lockedAccount: Account | null
    session: { readonly id: string; readonly tokenHash: Buffer } | null
  }
  interface FastifyInstance {
    /** The signed-in account, if its role may do this. @throws HttpProblem 401 or 403 */
    allow(request: FastifyRequest, action: Action | 'signed-in'): Account
    /** Whether the session of a request that lasts is still open, unlocked and in use. */
    isStillIn(request: FastifyRequest): Promise<boolean>
  }
}

/** An administrator of a real site does nothing before a second factor is set up; the password of a demonstration is known to all anyway. */
const needsSecondFactor = ({ role, isDemo, hasSecondFactor }: Account): boolean => role === 'admin' && !isDemo && !hasSecondFactor

/** Signing in and out, and who is asking. Other capabilities call `app.allow`. */
export const accounts = fp(async (app: FastifyInstance) => {
  const { pool, idleMinutes, signInTries } = app
  app.decorateRequest('account', null)
  app.decorateRequest('lockedAccount', null)
  app.decorateRequest('session', null)
  app.decorate('allow', (request: FastifyRequest, action: Action | 'signed-in') => {
    const { account, lockedAccount } = request
    if (lockedAccount) throw new HttpProblem(401, 'locked', 'The session is locked. Unlock it with your password.')
    if (!account) throw new HttpProblem(401, 'not-signed-in', 'Sign in first.')
    if (action === 'signed-in') return account
    if (!may(account.role, action)) throw new HttpProblem(403, 'not-allowed', `An account with the role "${account.role}" may not do this.`)
    if (needsSecondFactor(account)) throw new HttpProblem(403, 'second-factor-needed', 'Set up a second factor first: an administrator signs in with one.')
    return account
  })
  const isIdle = (seenAt: Date): boolean => Date.now() - seenAt.getTime() > idleMinutes * MINUTE_MS
  app.decorate('isStillIn', async ({ session }: FastifyRequest) => {
    const state = session ? await sessionOf(pool, session.tokenHash) : undefined
    return state !== undefined && state.lockedAt === null && !isIdle(state.seenAt)
  })
  app.addHook('onRequest', async (request) => {
    const token = request.cookies[cookieName(request)]
    if (!token || !request.url.startsWith('/api/')) return
    const tokenHash = tokenHashOf(token)
    const state = await again(() => sessionOf(pool, tokenHash))
    if (!state) return
    const { person, session, lockedAt, seenAt } = state
    request.session = { id: session, tokenHash }
    if (lockedAt !== null || isIdle(seenAt)) {
      request.lockedAccount = person
      if (lockedAt === null) await lockSession(pool, tokenHash, true)
      return
    }
    request.account = person
    // A page that listens is nobody at work.
    if (Date.now() - seenAt.getTime() > MINUTE_MS && request.url !== live.liveChanges.url) await seeSession(pool, tokenHash)
  })
  app.addHook('onRequest', async (request) => {
    const { origin, host } = request.headers
    if (request.method !== 'GET' && request.method !== 'HEAD' && origin !== undefined && !isFrom(origin, request.protocol, host)) {
      throw new HttpProblem(403, 'wrong-origin', 'This request came from another page.')
    }
  })

  /** The account whose password, and code where it has a second factor, these are. @throws HttpProblem 401, 429 */
  async function proven(request: FastifyRequest, name: string, password: string, code: string | undefined): Promise<Account> {
    const signIn = name.trim().toLowerCase()
    await refuseTooMany(pool, signIn, request.ip, signInTries)
    const secrets = await secretsOf(pool, signIn)
    const person = secrets?.person
    if (!(await fits(secrets?.passwordHash, password)) || !secrets || !person) return refused('That name and password do not fit together.')
    if (secrets.secondFactor === null) return person
    // The password was right: to say that a code is asked for tells nobody who did not know it.
    if (!code) throw new HttpProblem(401, 'second-factor', 'Enter the code of your authenticator, or a recovery code.')
    return (await isCode(secrets, code)) ? person : refused('That code does not fit, or was used before.')

    async function refused(why: string): Promise<never> {
      await noteRefused(request, signIn, person, 'sign-in refused', ` ${name.trim().slice(0, LONGEST_NAME)}`)
      throw new HttpProblem(401, 'not-signed-in', why)
    }
  }
  /** Counts a try that failed, and says so in the audit. @param more what is told besides the address */
  const noteRefused = ({ ip }: FastifyRequest, signIn: string, who: Account | undefined, action: string, more = ''): Promise<void> =>
    asOne(pool, async (db) => {
      await noteFailed(db, signIn, ip)
      addAudit(db, { site: who?.site ?? null, account: who?.id ?? null, action, about: `${ip}${more}` })
    })
  const isCode = ({ person: { id, site }, secondFactor }: Secrets, code: string): Promise<boolean> =>
    asSite(pool, site, async (db) => {
      const step = secondFactor === null ? undefined : await stepOf(decrypted(sealerOf(pool), secondFactor), code.trim())
      return step === undefined ? useRecoveryCode(db, id, codeHash(code)) : useStep(db, id, step)
    })
  const deviceKeyOf = ({ id }: Account): string => sealerOf(pool).derive(`device of ${id}`).toString('base64')

  /** A new session with a new token; the one that there was ends. */
  async function begin(request: FastifyRequest, reply: FastifyReply, account: Account, action: string): Promise<{ account: PublicAccount; deviceKey: string }> {
    const token = randomBytes(32).toString('base64url')
    await asOne(pool, async (db) => {
      if (request.session) await endSession(db, request.session.tokenHash)
      const browser = (request.headers['user-agent'] ?? '').slice(0, LONGEST_BROWSER)
      await addSession(db, { tokenHash: tokenHashOf(token), account: account.id, hours: HOURS, address: request.ip, browser })
      await noteKnownPlace(db, account.id, request.ip)
      await purgeExpired(db)
      addAudit(db, { site: account.site, account: account.id, action, about: request.ip })
    })
    reply.setCookie(cookieName(request), token, { path: '/', httpOnly: true, sameSite: 'strict', secure: isSecure(request), maxAge: HOURS * 3600 })
    return { account: publicAccount(account), deviceKey: deviceKeyOf(account) }
  }

  serve(app, contract.signIn, async ({ body: { signIn, password, code }, request, reply }) =>
    begin(request, reply, await proven(request, signIn, password, code), 'signed in'),
  )
  serve(app, contract.readSession, async ({ account, request: { lockedAccount } }) => {
    const who = account ?? lockedAccount
    return { account: who && publicAccount(who), isLocked: lockedAccount !== null, deviceKey: account && deviceKeyOf(account) }
  })
  serve(app, contract.signOut, async ({ request, reply }) => {
    const { session, account, lockedAccount } = request
    const who = account ?? lockedAccount
    if (session)
      await asOne(pool, async (db) => {
        await endSession(db, session.tokenHash)
        if (who) addAudit(db, { site: who.site, account: who.id, action: 'signed out' })
      })
    reply.clearCookie(cookieName(request), { path: '/', secure: isSecure(request) })
    return null
  })
  serve(app, contract.lockSession, async ({ request: { session } }) => {
    if (session) await lockSession(pool, session.tokenHash, true)
    return null
  })
  serve(app, contract.unlockSession, async ({ request, reply, body: { password } }) => {
    const who = request.lockedAccount ?? request.account
    if (!who) throw new HttpProblem(401, 'not-signed-in', 'Sign in first.')
    await refuseTooMany(pool, who.signIn, request.ip, signInTries)
    if (!(await isPasswordOf(pool, who, password))) {
      await noteRefused(request, who.signIn, who, 'unlocking refused')
      throw new HttpProblem(401, 'locked', 'That password does not fit.')
    }
    return begin(request, reply, who, 'unlocked')
  })
  await app.register(own)
})

/** Served by TLS the cookie is bound to this host and never sent in the clear. */
const isSecure = ({ protocol }: FastifyRequest): boolean => protocol === 'https'
const cookieName = (request: FastifyRequest): string => (isSecure(request) ? '__Host-awl_session' : 'awl_session')

/** Whether an Origin header names this server, by scheme and host. A page that hides where it comes from (`null`, nothing, or what is no address) does not. */
const isFrom = (origin: string, protocol: string, host: string | undefined): boolean =>
  URL.canParse(origin) && new URL(origin).origin === `${protocol}://${host ?? ''}`

const publicAccount = (account: Account): PublicAccount => {
  const { id, name, role, signIn, siteName, zone, hasSecondFactor } = account
  return { id, name, role, signIn, site: siteName, zone, hasSecondFactor, needsSecondFactor: needsSecondFactor(account) }
}
