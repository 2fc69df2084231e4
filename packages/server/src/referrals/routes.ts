import { referrals as contract } from '@kneecap-awl/contract'
import type { FastifyInstance } from 'fastify'
import { hasLetters, plainText } from '@kneecap-awl/core'
import { v7 as uuid7 } from 'uuid'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { loadExamination } from '../examinations/service.js'
import { badInput, notFound } from '../http/problem.js'
import { serve } from '../http/serve.js'
import { addReferralEvent, hasReferral, openReferrals, referralsOfExamination } from './queries.js'
import { makeReferral } from './service.js'

/** Referrals with a clock: made from a signed examination, due by the window of its tier. */
export async function referrals(app: FastifyInstance): Promise<void> {
  serve(app, contract.openReferrals, ({ account, request }) =>
    asSite(app.pool, account.site, async (db) => {
      const referrals = await openReferrals(db)
      app.shown.note(db, request, account, 'open referrals read', referrals)
      return { referrals }
    }),
  )
  serve(app, contract.referralsOf, async ({ account, params: { id } }) => ({
    referrals: await asSite(app.pool, account.site, (db) => referralsOfExamination(db, id)),
  }))
  serve(app, contract.refer, ({ account, params, body: { added } }) =>
    asSite(app.pool, account.site, async (db) => {
      const loaded = await loadExamination(db, app.packStore, params.id)
      const id = await makeReferral(db, app.packStore.judge, loaded, account, added && plainText(added))
      addAudit(db, { site: account.site, account: account.id, action: 'referral made', about: id })
      return { id }
    }),
  )
  serve(app, contract.addReferralEvent, async ({ account, params: { id }, body: { kind, note = '' } }) => {
    if ((kind === 'accepted' || kind === 'refused' || kind === 'told') && !hasLetters(note))
      throw badInput([{ path: '/note', reason: 'does not say who', expected: 'the name and role of whoever was told or answered' }])
    await asSite(app.pool, account.site, async (db) => {
      if (!(await hasReferral(db, id))) throw notFound('referral')
      await addReferralEvent(db, { id: uuid7(), referral: id, site: account.site, kind, note: plainText(note), by: account.id })
      addAudit(db, { site: account.site, account: account.id, action: `referral ${kind}`, about: id })
    })
    return { kind }
  })
}
