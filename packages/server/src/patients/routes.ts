import { patients as contract } from '@kneecap-awl/contract'
import type { FastifyInstance } from 'fastify'
import { addAudit, idsOf } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { examinationsOfPatient } from '../examinations/queries.js'
import { notFound } from '../http/problem.js'
import { serve } from '../http/serve.js'
import { patientFile } from './file.js'
import { mergePatient, separatePatient } from './merge.js'
import { correctionsOf, findPatients, mergedInto, mergesOf, patientById, personOf } from './queries.js'
import { correctPatient, createPatient, likePatients } from './service.js'

/** Who the patients of a site are, and what was corrected of them. */
export async function patients(app: FastifyInstance): Promise<void> {
  serve(app, contract.findPatients, ({ account, query }) =>
    asSite(app.pool, account.site, async (db) => {
      const patients = await findPatients(db, query.search ?? '')
      addAudit(db, { site: account.site, account: account.id, action: 'patients searched', about: idsOf(patients) })
      return { patients }
    }),
  )
  serve(app, contract.addPatient, ({ account, body }) =>
    asSite(app.pool, account.site, async (db) => {
      const made = await createPatient(db, account, body, '')
      addAudit(db, { site: account.site, account: account.id, action: 'patient added', about: made.id })
      return made
    }),
  )
  serve(app, contract.likePatients, ({ account, query }) =>
    asSite(app.pool, account.site, async (db) => {
      const patients = await likePatients(db, query)
      addAudit(db, { site: account.site, account: account.id, action: 'like patients searched', about: idsOf(patients) })
      return { patients: [...patients] }
    }),
  )
  serve(app, contract.correctPatient, ({ account, params: { id }, body }) =>
    asSite(app.pool, account.site, async (db) => {
      const patient = await correctPatient(db, app.packStore.current, id, body, account)
      addAudit(db, { site: account.site, account: account.id, action: 'patient corrected', about: id })
      return { patient }
    }),
  )
  serve(app, contract.readPatient, async ({ account, params: { id } }) => {
    const known = await asSite(app.pool, account.site, async (db) => {
      const patient = await patientById(db, id)
      if (!patient) throw notFound('patient')
      addAudit(db, { site: account.site, account: account.id, action: 'patient read', about: id })
      const person = await personOf(db, id)
      return {
        patient,
        examinations: await examinationsOfPatient(db, id),
        corrections: await correctionsOf(db, id),
        mergedInto: person && person.id !== id ? person : null,
        merged: await mergedInto(db, id),
        merges: await mergesOf(db, id),
      }
    })
    return { ...known, examinations: await app.ranges.ranged(account.site, known.examinations) }
  })
  for (const [route, work, action] of [
    [contract.mergePatient, mergePatient, 'patients merged'],
    [contract.separatePatient, separatePatient, 'patients separated'],
  ] as const)
    serve(app, route, async ({ account, params: { id }, body }) => {
      await asSite(app.pool, account.site, async (db) => {
        await work(db, app.packStore.current, id, body, account)
        addAudit(db, { site: account.site, account: account.id, action, about: `${id} ${body.patient}` })
      })
      return null
    })
  serve(app, contract.exportPatient, async ({ account, params: { id }, reply }) => {
    const file = await asSite(app.pool, account.site, async (db) => {
      const file = await patientFile(db, app.packStore, id)
      addAudit(db, { site: account.site, account: account.id, action: 'patient exported', about: id })
      return file
    })
    reply.header('content-disposition', `attachment; filename="patient-${file.patient.localNumber}.json"`)
    return file
  })
}
