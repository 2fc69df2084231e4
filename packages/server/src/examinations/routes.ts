import type { FastifyInstance } from 'fastify'
import { ENTRY_SCHEMA, examinationFile, readExamination, type ShownVerdict } from '@kneecap-awl/core'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { v7 as uuid7 } from 'uuid'
import { badInput, notFound } from '../http/problem.js'
import { personEntries } from '../patients/personEntries.js'
import { patientById } from '../patients/queries.js'
import { PATIENT_BODY } from '../patients/routes.js'
import { createPatient, type NewPatient } from '../patients/service.js'
import { amendVerdict } from './amend.js'
import { keepEntries, ownDecisions, storeEntries, type SentEntries } from './entries.js'
import { addExamination, lastVerdict, lockVisit, type DeskList } from './queries.js'
import { addJoint, otherJoints, shareEntries, type AddedJoint } from './visit.js'
import { checkSides, correctSides, deskPage, discardDraft, loadExamination, signExamination } from './service.js'

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
    checkSides(app.shelf.current, body)
    const id = uuid7()
    await asSite(app.pool, account.site, async (db) => {
      const patient = body.patientId ? await patientById(db, body.patientId) : body.patient ? await createPatient(db, account, body.patient) : undefined
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
      await keepEntries(db, app.shelf.current, id, personEntries(patient, account), account.site)
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

  const listQuery = {
    type: 'object',
    properties: {
      search: { type: 'string', maxLength: 80, default: '' },
      region: { type: 'string', maxLength: 40, default: '' },
      state: { enum: ['draft', 'signed'], default: 'draft' },
      limit: { type: 'string', pattern: '^([1-9][0-9]?|100)$', default: '20' },
      offset: { type: 'string', pattern: '^[0-9]{1,7}$', default: '0' },
    },
  }
  app.get('/api/desk', { schema: { querystring: listQuery } }, async (request) => {
    const account = app.allow(request, 'read-patients')
    const { limit, offset, ...about } = request.query as Pick<DeskList, 'state' | 'search' | 'region'> & { limit: string; offset: string }
    const list: DeskList = { ...about, limit: Number(limit), offset: Number(offset) }
    return asSite(app.pool, account.site, (db) => deskPage(db, app.shelf, list))
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

  const sentBody = {
    type: 'object',
    required: ['entries'],
    additionalProperties: false,
    properties: {
      entries: { type: 'array', minItems: 1, maxItems: 500, items: ENTRY_SCHEMA },
      sentAt: { type: 'string', format: 'date-time', description: 'the time by the clock that stamped the entries' },
    },
  }
  app.post('/api/examinations/:id/entries', { schema: { params, body: sentBody } }, async (request) => {
    const receivedAt = new Date()
    const account = app.allow(request, 'examine')
    const { id } = request.params as { id: string }
    return asSite(app.pool, account.site, async (db) => {
      await lockVisit(db, id)
      const { row, pack } = await loadExamination(db, app.shelf, id)
      const { outcomes, stored } = await storeEntries(db, pack, row, request.body as SentEntries, account, receivedAt)
      if (!row.signedAt) await shareEntries(db, pack, row, stored, account.site)
      await addAudit(db, {
        site: account.site,
        account: account.id,
        action: row.signedAt ? 'examination amended' : 'entries added',
        about: `${id} ${stored.length}`,
      })
      if (row.signedAt && stored.length > 0) await amendVerdict(db, app.shelf, id, stored, account)
      return { outcomes }
    })
  })

  const shown = {
    type: 'object',
    required: ['record', 'floor', 'ceiling', 'priority', 'flags'],
    additionalProperties: false,
    properties: {
      record: { type: 'string', pattern: '^[0-9a-f]{64}$' },
      floor: { type: 'string' },
      ceiling: { type: 'string' },
      priority: { type: 'string' },
      flags: { type: 'array', items: { type: 'string' } },
    },
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

  const discardBody = { type: 'object', required: ['reason'], additionalProperties: false, properties: { reason: { type: 'string', maxLength: 300 } } }
  app.post('/api/examinations/:id/discard', { schema: { params, body: discardBody } }, async (request) => {
    const account = app.allow(request, 'examine')
    const { id } = request.params as { id: string }
    await asSite(app.pool, account.site, async (db) => {
      await discardDraft(db, id, (request.body as { reason: string }).reason, account)
      await addAudit(db, { site: account.site, account: account.id, action: 'draft discarded', about: id })
    })
    return { discarded: true }
  })

  const sidesBody = {
    type: 'object',
    required: ['sides', 'reason'],
    additionalProperties: false,
    properties: { sides, reason: { type: 'string', maxLength: 300 } },
  }
  app.post('/api/examinations/:id/sides', { schema: { params, body: sidesBody } }, async (request) => {
    const account = app.allow(request, 'examine')
    const { id } = request.params as { id: string }
    await asSite(app.pool, account.site, async (db) => {
      await correctSides(db, app.shelf, id, request.body as { sides: string[]; reason: string }, account)
      await addAudit(db, { site: account.site, account: account.id, action: 'side corrected', about: id })
    })
    return { corrected: true }
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
        ...(patient
          ? {
              patient: {
                name: patient.name,
                birthDate: patient.birthDate,
                localNumber: patient.localNumber,
                ...(patient.sex === null ? {} : { sex: patient.sex }),
              },
            }
          : {}),
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
    const { own, ofOthers } = ownDecisions(examination.entries, account.name)
    const id = uuid7()
    await asSite(app.pool, account.site, async (db) => {
      const patient = await createPatient(db, account, { name, birthDate, isNew: true, ...(sex ? { sex } : {}) })
      const row = { id, startedAt: examination.asOf, signedAt: null, discardedAt: null }
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
      const entries = own.map((entry) => ({ ...entry, id: uuid7() }))
      if (entries.length > 0) await storeEntries(db, app.shelf.current, row, { entries }, account)
      await addAudit(db, { site: account.site, account: account.id, action: 'examination read back from a file', about: id })
    })
    return reply.code(201).send({ id, notTaken: ofOthers.map(({ item, state, by, reason }) => ({ item, state, by, reason: reason ?? '' })) })
  })
}
