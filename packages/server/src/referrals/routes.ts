import type { FastifyInstance } from 'fastify'
import { dueHere, isTimeZone, judgement, priorityOf, referralLetter } from '@kneecap-awl/core'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { uuid7 } from '../db/uuid7.js'
import { loadExamination } from '../examinations/service.js'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import { patientById } from '../patients/queries.js'
import { addReferral, addReferralEvent, hasReferral, openReferrals, referralsOfExamination } from './queries.js'

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

  const body = {
    type: 'object',
    additionalProperties: false,
    properties: { added: { type: 'string', maxLength: 2000 }, zone: { type: 'string', pattern: '^[A-Za-z0-9_+/-]{2,40}$' } },
  }
  app.post('/api/examinations/:id/referrals', { schema: { params, body } }, async (request, reply) => {
    const account = app.allow(request, 'refer')
    const { id: examinationId } = request.params as { id: string }
    const { added, zone } = request.body as { added?: string; zone?: string }
    if (zone !== undefined && !isTimeZone(zone))
      throw badInput([{ path: '/zone', reason: `"${zone}" is not a time zone`, expected: 'an IANA name, as Europe/Lisbon' }])
    const id = uuid7()
    await asSite(app.pool, account.site, async (db) => {
      const { row, pack, examination } = await loadExamination(db, app.shelf, examinationId)
      if (!row.signedAt) throw new HttpProblem(409, 'not-allowed', 'Sign the examination before you refer.')
      const patient = await patientById(db, row.patientId)
      if (!patient) throw notFound('patient')
      const judged = judgement(pack, examination)
      const { tier } = priorityOf(judged)
      const letter = referralLetter(pack, examination, judged, {
        patient,
        examiner: row.signedBy ?? account.name,
        site: account.siteName,
        ...(zone ? { zone } : {}),
        ...(added ? { added } : {}),
      })
      // The clock runs from the examination, not from the signature: the earlier of the two never under-triages.
      const flaggedAt = row.startedAt
      await addReferral(db, {
        id,
        examination: examinationId,
        site: account.site,
        patient: patient.id,
        destination: letter.destination,
        tier,
        flaggedAt,
        dueAt: dueHere(pack, flaggedAt, tier, judged.verdict.flags) ?? null,
        letter,
        by: account.id,
      })
      await addReferralEvent(db, {
        id: uuid7(),
        referral: id,
        site: account.site,
        kind: 'made',
        note: '',
        by: account.id,
      })
      await addAudit(db, { site: account.site, account: account.id, action: 'referral made', about: id })
    })
    return reply.code(201).send({ id })
  })

  const eventBody = {
    type: 'object',
    required: ['kind'],
    additionalProperties: false,
    properties: { kind: { enum: ['told', 'accepted', 'refused', 'closed'] }, note: { type: 'string', maxLength: 1000 } },
  }
  app.post('/api/referrals/:id/events', { schema: { params, body: eventBody } }, async (request, reply) => {
    const account = app.allow(request, 'refer')
    const { kind, note } = request.body as { kind: string; note?: string }
    const { id } = request.params as { id: string }
    await asSite(app.pool, account.site, async (db) => {
      if (!(await hasReferral(db, id))) throw notFound('referral')
      await addReferralEvent(db, { id: uuid7(), referral: id, site: account.site, kind, note: note ?? '', by: account.id })
      await addAudit(db, { site: account.site, account: account.id, action: `referral ${kind}`, about: id })
    })
    return reply.code(201).send({ kind })
  })
}
