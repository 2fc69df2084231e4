import type { FastifyInstance } from 'fastify'
import {
  checkEntries,
  ENTRY_SCHEMA,
  examinationFile,
  isDecided,
  judgement,
  readExamination,
  type Entry,
  type Fault,
  type ShownVerdict,
} from '@kneecap-awl/core'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { uuid7 } from '../db/uuid7.js'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import { createPatient, PATIENT_BODY, type NewPatient } from '../patients/routes.js'
import { patientById, type Patient } from '../patients/queries.js'
import { addEntries, addExamination, lastVerdict, lockVisit } from './queries.js'
import { addJoint, checkJoint, otherJoints, shareEntries, type AddedJoint } from './visit.js'
import { deskExaminations, loadExamination, signExamination, storeVerdict } from './service.js'

const params = { type: 'object', properties: { id: { type: 'string', format: 'uuid' } } }
const sides = { type: 'array', minItems: 1, maxItems: 2, uniqueItems: true, items: { enum: ['right', 'left', 'none'] } }

interface StartBody {
  readonly patientId?: string
  readonly patient?: NewPatient
  readonly region: string
  readonly sides: string[]
  readonly setting: 'primary-care' | 'emergency'
}

export async function examinations(app: FastifyInstance): Promise<void> {
  const startBody = {
    type: 'object',
    required: ['region', 'sides', 'setting'],
    additionalProperties: false,
    properties: {
      patientId: { type: 'string', format: 'uuid' },
      patient: PATIENT_BODY,
      region: { type: 'string' },
      sides,
      setting: { enum: ['primary-care', 'emergency'] },
    },
  }
  app.post('/api/examinations', { schema: { body: startBody } }, async (request, reply) => {
    const account = app.allow(request, 'examine')
    const body = request.body as StartBody
    checkJoint(app.shelf.current, body)
    const id = uuid7()
    await asSite(app.pool, account.site, async (db) => {
      const patient = body.patientId ? await patientById(db, body.patientId) : body.patient ? await createPatient(db, account.site, body.patient) : undefined
      if (!patient)
        throw body.patientId
          ? notFound('patient')
          : badInput([{ path: '/patient', reason: 'says nobody', expected: 'patientId, or patient with name and birthDate' }])
      await addExamination(db, {
        id,
        site: account.site,
        patient: patient.id,
        region: body.region,
        sides: body.sides,
        setting: body.setting,
        startedAt: new Date().toISOString(),
        by: account.id,
        packHash: app.shelf.current.hash,
      })
      await addEntries(db, account.site, id, cardEntries(patient, account.name))
      await addAudit(db, { site: account.site, account: account.id, action: 'examination started', about: id })
    })
    return reply.code(201).send({ id })
  })

  const alsoBody = {
    type: 'object',
    required: ['region', 'sides', 'sameEvent'],
    additionalProperties: false,
    properties: { region: { type: 'string' }, sides, sameEvent: { type: 'boolean' } },
  }
  app.post('/api/examinations/:id/also', { schema: { params, body: alsoBody } }, async (request, reply) => {
    const account = app.allow(request, 'examine')
    const { id } = request.params as { id: string }
    const joint = await asSite(app.pool, account.site, async (db) => {
      const added = await addJoint(db, app.shelf, id, request.body as AddedJoint, account)
      await addAudit(db, { site: account.site, account: account.id, action: 'joint added to a visit', about: `${id} ${added}` })
      return added
    })
    return reply.code(201).send({ id: joint })
  })

  app.get('/api/desk', async (request) => {
    const account = app.allow(request, 'read-patients')
    return { examinations: await asSite(app.pool, account.site, (db) => deskExaminations(db, app.shelf)) }
  })

  app.get('/api/examinations/:id', { schema: { params } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    const { id } = request.params as { id: string }
    return asSite(app.pool, account.site, async (db) => {
      const { row, examination } = await loadExamination(db, app.shelf, id)
      await addAudit(db, { site: account.site, account: account.id, action: 'examination read', about: id })
      return {
        ...row,
        entries: examination.entries,
        previous: examination.previous ?? [],
        verdict: await lastVerdict(db, id),
        visitWith: await otherJoints(db, app.shelf, row),
      }
    })
  })

  const entriesBody = {
    type: 'object',
    required: ['entries'],
    additionalProperties: false,
    properties: { entries: { type: 'array', minItems: 1, maxItems: 500, items: ENTRY_SCHEMA } },
  }
  app.post('/api/examinations/:id/entries', { schema: { params, body: entriesBody } }, async (request) => {
    const account = app.allow(request, 'examine')
    const { id } = request.params as { id: string }
    const { entries } = request.body as { entries: Entry[] }
    return asSite(app.pool, account.site, async (db) => {
      await lockVisit(db, id)
      const { row, pack } = await loadExamination(db, app.shelf, id)
      const faults = [...checkEntries(pack, entries), ...notOwnDecisions(entries, account.name)]
      if (faults.length > 0) throw badInput(faults)
      if (row.signedAt && entries.some((entry) => !entry.amends))
        throw new HttpProblem(409, 'already-signed', 'This examination is signed. Change it by an amendment with a reason.')
      const stored = await addEntries(db, account.site, id, entries)
      if (!row.signedAt)
        await shareEntries(
          db,
          pack,
          row,
          entries.filter((entry) => stored.has(entry.id)),
          account.site,
        )
      await addAudit(db, {
        site: account.site,
        account: account.id,
        action: row.signedAt ? 'examination amended' : 'entries added',
        about: `${id} ${stored.size}`,
      })
      if (row.signedAt && stored.size > 0) {
        const amended = await loadExamination(db, app.shelf, id)
        await storeVerdict(db, amended, judgement(amended.pack, amended.examination), 'amended', entries[0]?.amends ?? '', account)
      }
      return { stored: entries.map((entry) => entry.id), new: stored.size }
    })
  })

  const shown = {
    type: 'object',
    required: ['floor', 'ceiling', 'priority', 'flags'],
    additionalProperties: false,
    properties: { floor: { type: 'string' }, ceiling: { type: 'string' }, priority: { type: 'string' }, flags: { type: 'array', items: { type: 'string' } } },
  }
  app.post('/api/examinations/:id/sign', { schema: { params, body: shown } }, async (request) => {
    const account = app.allow(request, 'sign')
    const { id } = request.params as { id: string }
    return asSite(app.pool, account.site, async (db) => {
      await signExamination(db, app.shelf, id, request.body as ShownVerdict, account)
      await addAudit(db, { site: account.site, account: account.id, action: 'examination signed', about: id })
      return { signed: true, verdict: await lastVerdict(db, id) }
    })
  })

  app.get('/api/examinations/:id/file', { schema: { params } }, async (request, reply) => {
    const account = app.allow(request, 'read-patients')
    const { id } = request.params as { id: string }
    const file = await asSite(app.pool, account.site, async (db) => {
      const { row, pack, examination } = await loadExamination(db, app.shelf, id)
      const patient = await patientById(db, row.patientId)
      const verdict = await lastVerdict(db, id)
      await addAudit(db, { site: account.site, account: account.id, action: 'examination downloaded', about: id })
      return examinationFile(examination, {
        id,
        ...(patient ? { patient: { name: patient.name, birthDate: patient.birthDate, sex: patient.sex, localNumber: patient.localNumber } } : {}),
        pack: { id: pack.id, version: pack.version, hash: pack.hash },
        ...(row.signedAt && verdict ? { signed: { at: row.signedAt, by: row.signedBy ?? '', hash: verdict.recordHash } } : {}),
      })
    })
    return reply.header('content-disposition', `attachment; filename="examination-${id}.json"`).send(file)
  })

  app.post('/api/examinations/read-back', { bodyLimit: 8 * 1024 * 1024 }, async (request, reply) => {
    const account = app.allow(request, 'examine')
    const read = readExamination(request.body, app.shelf.current)
    if ('faults' in read) throw badInput(read.faults)
    const { examination } = read
    const { name, birthDate, sex } = examination.patient ?? {}
    if (!name || !birthDate) throw badInput([{ path: '/patient', reason: 'has no name and birth date', expected: 'patient.name and patient.birthDate' }])
    const id = uuid7()
    await asSite(app.pool, account.site, async (db) => {
      const patient = await createPatient(db, account.site, { name, birthDate, ...(sex ? { sex } : {}) })
      await addExamination(db, {
        id,
        site: account.site,
        patient: patient.id,
        region: examination.complaint.region,
        sides: examination.complaint.sides,
        setting: examination.setting ?? 'primary-care',
        startedAt: examination.asOf,
        by: account.id,
        packHash: app.shelf.current.hash,
      })
      await addEntries(
        db,
        account.site,
        id,
        examination.entries.map((entry) => ({ ...entry, id: uuid7() })),
      )
      await addAudit(db, { site: account.site, account: account.id, action: 'examination read back from a file', about: id })
    })
    return reply.code(201).send({ id })
  })
}

/** A flag is lifted, a priority set and a range accepted by the clinician who is signed in, in nobody else's name. */
const notOwnDecisions = (entries: readonly Entry[], name: string): Fault[] =>
  entries.flatMap(({ state, by }, at) =>
    isDecided(state) && by !== name ? [{ path: `/entries/${at}/by`, reason: `"${by}" is not signed in`, expected: `${name}, who is` }] : [],
  )

/** What the patient's own record already says on the card. */
function cardEntries(patient: Patient, by: string): Entry[] {
  const now = Date.now()
  const at = new Date(now).toISOString()
  const days = (now - Date.parse(patient.birthDate)) / 86_400_000
  const years = days / 365.2425
  const known = (item: string, value: string | number): Entry => ({ id: uuid7(), item, side: 'none', state: 'examined', value, by, at })
  return [
    known('patient.age-years', years < 2 ? Math.round(years * 100) / 100 : Math.floor(years)),
    known('patient.sex', patient.sex),
    ...(years < 2 ? [known('patient.age-days', Math.floor(days))] : []),
  ]
}
