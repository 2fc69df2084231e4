import type { FastifyInstance } from 'fastify'
import { hasLetters, judgement, plainText } from '@kneecap-awl/core'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { v7 as uuid7 } from 'uuid'
import { loadExamination } from '../examinations/service.js'
import { badInput, notFound } from '../http/problem.js'
import { addReferralEvent, hasReferral, openReferrals, referralsOfExamination } from './queries.js'
import { makeReferral } from './service.js'

const params = { type: 'object', properties: { id: { type: 'string', format: 'uuid' } } }

/** Referrals with a clock: made from a signed examination, due by the window of its tier. */
export async function referrals(app: FastifyInstance): Promise<void> {
  app.get('/api/referrals', async (request) => {
    const account = app.allow(request, 'read-patients')
    return { referrals: await asSite(app.pool, account.site, openReferrals) }
  })
  app.get('/api/examinations/:id/referrals', { schema: { params } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    return { referrals: await asSite(app.pool, account.site, (db) => referralsOfExamination(db, (request.params as { id: string }).id)) }
  })

  const body = { type: 'object', additionalProperties: false, properties: { added: { type: 'string', maxLength: 2000 } } }
  app.post('/api/examinations/:id/referrals', { schema: { params, body } }, async (request, reply) => {
    const account = app.allow(request, 'refer')
    const { id: examinationId } = request.params as { id: string }
    const { added } = request.body as { added?: string }
    const id = await asSite(app.pool, account.site, async (db) => {
      const loaded = await loadExamination(db, app.shelf, examinationId)
      const made = await makeReferral(db, loaded, judgement(loaded.pack, loaded.examination), account, added && plainText(added))
      await addAudit(db, { site: account.site, account: account.id, action: 'referral made', about: made })
      return made
    })
    return reply.code(201).send({ id })
  })

  const eventBody = {
    type: 'object',
    required: ['kind'],
    additionalProperties: false,
    properties: { kind: { enum: ['told', 'accepted', 'refused', 'closed', 'reopened'] }, note: { type: 'string', maxLength: 1000 } },
  }
  app.post('/api/referrals/:id/events', { schema: { params, body: eventBody } }, async (request, reply) => {
    const account = app.allow(request, 'refer')
    const { kind, note } = request.body as { kind: string; note?: string }
    const { id } = request.params as { id: string }
    if ((kind === 'accepted' || kind === 'refused' || kind === 'told') && !hasLetters(note ?? ''))
      throw badInput([{ path: '/note', reason: 'does not say who', expected: 'the name and role of whoever was told or answered' }])
    await asSite(app.pool, account.site, async (db) => {
      if (!(await hasReferral(db, id))) throw notFound('referral')
      await addReferralEvent(db, { id: uuid7(), referral: id, site: account.site, kind, note: plainText(note ?? ''), by: account.id })
      await addAudit(db, { site: account.site, account: account.id, action: `referral ${kind}`, about: id })
    })
    return reply.code(201).send({ kind })
  })
}
