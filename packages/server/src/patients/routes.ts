import type { FastifyInstance } from 'fastify'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { examinationsOfPatient } from '../examinations/queries.js'
import { withRange } from '../examinations/service.js'
import { notFound } from '../http/problem.js'
import { correctionsOf, findPatients, patientById } from './queries.js'
import { correctPatient, createPatient, likePatients, type Correction, type NewPatient } from './service.js'

const PERSON = {
  name: { type: 'string', minLength: 1, maxLength: 120 },
  birthDate: { type: 'string', format: 'date' },
  sex: { enum: ['female', 'male', 'other or unknown'] },
  contact: { type: 'string', maxLength: 200 },
} as const

export const PATIENT_BODY = {
  type: 'object',
  required: ['name', 'birthDate'],
  additionalProperties: false,
  properties: { ...PERSON, isNew: { type: 'boolean' } },
} as const

const CORRECTION_BODY = {
  type: 'object',
  required: ['reason'],
  additionalProperties: false,
  properties: { ...PERSON, reason: { type: 'string', maxLength: 300 } },
} as const

const LIKE_QUERY = {
  type: 'object',
  required: ['name', 'birthDate'],
  properties: { name: { type: 'string', maxLength: 120 }, birthDate: { type: 'string', format: 'date' } },
} as const

const params = { type: 'object', properties: { id: { type: 'string', format: 'uuid' } } }

export async function patients(app: FastifyInstance): Promise<void> {
  app.get('/api/patients', { schema: { querystring: { type: 'object', properties: { search: { type: 'string', maxLength: 80 } } } } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    const { search } = request.query as { search?: string }
    return { patients: await asSite(app.pool, account.site, (db) => findPatients(db, search ?? '')) }
  })
  app.post('/api/patients', { schema: { body: PATIENT_BODY } }, async (request, reply) => {
    const account = app.allow(request, 'examine')
    const patient = await asSite(app.pool, account.site, async (db) => {
      const made = await createPatient(db, account, request.body as NewPatient, '')
      await addAudit(db, { site: account.site, account: account.id, action: 'patient added', about: made.id })
      return made
    })
    return reply.code(201).send(patient)
  })
  /** Those who may be the person that is about to be added. */
  app.get('/api/patients/like', { schema: { querystring: LIKE_QUERY } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    return { patients: await asSite(app.pool, account.site, (db) => likePatients(db, request.query as { name: string; birthDate: string })) }
  })
  app.post('/api/patients/:id/corrections', { schema: { params, body: CORRECTION_BODY } }, async (request) => {
    const account = app.allow(request, 'examine')
    const { id } = request.params as { id: string }
    return asSite(app.pool, account.site, async (db) => {
      const patient = await correctPatient(db, app.shelf.current, id, request.body as Correction, account)
      await addAudit(db, { site: account.site, account: account.id, action: 'patient corrected', about: id })
      return { patient }
    })
  })
  app.get('/api/patients/:id', { schema: { params } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    const { id } = request.params as { id: string }
    return asSite(app.pool, account.site, async (db) => {
      const patient = await patientById(db, id)
      if (!patient) throw notFound('patient')
      await addAudit(db, { site: account.site, account: account.id, action: 'patient read', about: id })
      return { patient, examinations: await withRange(db, app.shelf, await examinationsOfPatient(db, id)), corrections: await correctionsOf(db, id) }
    })
  })
}
