import { accounts as contract } from '@kneecap-awl/contract'
import type { FastifyInstance } from 'fastify'
import QRCode from 'qrcode'
import { addAudit, sealerOf } from '../audit/queries.js'
import { asOne, asSite } from '../db/connect.js'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import { serve } from '../http/serve.js'
import { invitedBy, takeUp } from './invitations.js'
import { hashOf, isPasswordOf, passwordFault } from './passwords.js'
import { endSessions, sessionsOf, setPassword, setSecondFactor, type Account } from './queries.js'
import { addressOf, codeHash, encrypted, newRecoveryCodes, newSecret, stepOf } from './secondFactor.js'

/** What everybody does with their own account: sessions, password, second factor; and taking up an invitation. */
export async function own(app: FastifyInstance): Promise<void> {
  const { pool } = app
  /** @throws HttpProblem 400 */
  const checkPassword = async (account: Account, password: string): Promise<void> => {
    if (!(await isPasswordOf(pool, account, password)))
      throw badInput([{ path: '/password', reason: 'is not your password', expected: 'the one with which you signed in' }])
  }
  const audited = (account: Account, action: string, about = '') => ({ site: account.site, account: account.id, action, about })

  serve(app, contract.readSessions, async ({ account, request }) => ({
    sessions: (await sessionsOf(pool, account.id)).map(({ createdAt, seenAt, ...one }) => ({
      ...one,
      createdAt: createdAt.toISOString(),
      seenAt: seenAt.toISOString(),
      isThis: one.id === request.session?.id,
    })),
  }))
  serve(app, contract.endSession, async ({ account, params: { id } }) => {
    await asOne(pool, async (db) => {
      if ((await endSessions(db, account.id, { one: id })) === 0) throw notFound('session')
      addAudit(db, audited(account, 'session ended', id))
    })
    return null
  })
  serve(app, contract.changePassword, async ({ account, request, body: { password, next } }) => {
    await checkPassword(account, password)
    const fault = passwordFault(next, account.signIn, '/next')
    if (fault) throw badInput([fault])
    const passwordHash = await hashOf(next)
    await asSite(pool, account.site, async (db) => {
      await setPassword(db, account.id, passwordHash)
      await endSessions(db, account.id, request.session ? { but: request.session.tokenHash } : {})
      addAudit(db, audited(account, 'password changed'))
    })
    return null
  })
  serve(app, contract.beginSecondFactor, async ({ account, body: { password } }) => {
    await checkPassword(account, password)
    const secret = newSecret()
    const address = addressOf(secret, account.signIn)
    return { secret, address, picture: await QRCode.toString(address, { type: 'svg', margin: 2 }) }
  })
  serve(app, contract.confirmSecondFactor, async ({ account, request, body: { secret, code } }) => {
    if (!/^[A-Z2-7]{16,64}$/.test(secret)) throw badInput([{ path: '/secret', reason: 'is none', expected: 'the secret that was given' }])
    if ((await stepOf(secret, code.trim())) === undefined)
      throw badInput([{ path: '/code', reason: 'does not fit', expected: 'the six digits that the authenticator shows now' }])
    if (account.hasSecondFactor)
      throw new HttpProblem(409, 'not-allowed', 'There is a second factor already. Ask your administrator for a reset to set up another.')
    const recoveryCodes = newRecoveryCodes()
    await asSite(pool, account.site, async (db) => {
      await setSecondFactor(db, account, encrypted(sealerOf(pool), secret), recoveryCodes.map(codeHash))
      await endSessions(db, account.id, request.session ? { but: request.session.tokenHash } : {})
      addAudit(db, audited(account, 'second factor set up'))
    })
    return { recoveryCodes }
  })
  serve(app, contract.acceptInvitation, async ({ body: { code, password } }) => {
    const account = await invitedBy(pool, code)
    if (!account) throw badInput([{ path: '/code', reason: 'is not known, was used, or has expired', expected: 'a code that your administrator gives you' }])
    const fault = passwordFault(password, account.signIn, '/password')
    if (fault) throw badInput([fault])
    const passwordHash = await hashOf(password)
    await asSite(pool, account.site, async (db) => {
      await takeUp(db, code)
      await setPassword(db, account.id, passwordHash)
      addAudit(db, audited(account, 'password set with a code'))
    })
    return { signIn: account.signIn }
  })
}
