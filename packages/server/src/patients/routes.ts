import type { FastifyInstance } from 'fastify'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { uuid7 } from '../db/uuid7.js'
import { examinationsOfPatient } from '../examinations/queries.js'
import { badInput, notFound } from '../http/problem.js'
import { addPatient, findPatients, nextLocalNumber, patientById, type Patient } from './queries.js'

export const PATIENT_BODY = {
  type: 'object',
  required: ['name', 'birthDate'],
  additionalProperties: false,
  properties: {
    name: { type: 'string', minLength: 1, maxLength: 120 },
    birthDate: { type: 'string', format: 'date' },
    sex: { enum: ['female', 'male', 'other or unknown'] },
    contact: { type: 'string', maxLength: 200 },
  },
} as const

export interface NewPatient {
  readonly name: string
  readonly birthDate: string
  readonly sex?: string
  readonly contact?: string
}

/** @throws HttpProblem 400 when the birth date lies in the future or more than 125 years back */
export function checkBirthDate(birthDate: string, now = Date.now()): void {
  const born = Date.parse(birthDate)
  if (born > now || born < now - 125 * 366 * 86_400_000)
    throw badInput([{ path: '/birthDate', reason: 'is not the birth date of someone living', expected: 'a date from 125 years ago until today' }])
}

export async function createPatient(db: Parameters<typeof addPatient>[0], site: string, body: NewPatient): Promise<Patient> {
  checkBirthDate(body.birthDate)
  const patient = {
    id: uuid7(),
    localNumber: await nextLocalNumber(db),
    name: body.name.trim(),
    birthDate: body.birthDate,
    sex: body.sex ?? 'other or unknown',
    contact: body.contact ?? '',
  }
  await addPatient(db, site, patient)
  return patient
}

export async function patients(app: FastifyInstance): Promise<void> {
  app.get('/api/patients', { schema: { querystring: { type: 'object', properties: { search: { type: 'string', maxLength: 80 } } } } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    const { search } = request.query as { search?: string }
    return { patients: await asSite(app.pool, account.site, (db) => findPatients(db, search ?? '')) }
  })
  app.post('/api/patients', { schema: { body: PATIENT_BODY } }, async (request, reply) => {
    const account = app.allow(request, 'examine')
    const patient = await asSite(app.pool, account.site, async (db) => {
      const made = await createPatient(db, account.site, request.body as NewPatient)
      await addAudit(db, { site: account.site, account: account.id, action: 'patient added', about: made.id })
      return made
    })
    return reply.code(201).send(patient)
  })
  app.get('/api/patients/:id', { schema: { params: { type: 'object', properties: { id: { type: 'string', format: 'uuid' } } } } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    const { id } = request.params as { id: string }
    return asSite(app.pool, account.site, async (db) => {
      const patient = await patientById(db, id)
      if (!patient) throw notFound('patient')
      await addAudit(db, { site: account.site, account: account.id, action: 'patient read', about: id })
      return { patient, examinations: await examinationsOfPatient(db, id) }
    })
  })
}
