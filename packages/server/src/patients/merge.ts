import type { Merge } from '@kneecap-awl/contract'
import { isReason, LEAST_WORDS, plainText, type Pack } from '@kneecap-awl/core'
import type { Account } from '../accounts/queries.js'
import type { Db } from '../db/connect.js'
import { keepEntries } from '../examinations/entries.js'
import { draftsOfPatient } from '../examinations/queries.js'
import { addRangeJob } from '../examinations/ranges.js'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import { personEntries } from './personEntries.js'
import { addMerge, lockNewPatients, mergedInto, patientById, personOf, setMerged } from './queries.js'

type Who = Pick<Account, 'id' | 'site' | 'name' | 'zone'>

/**
 * Two records are of one person: one stands for both from now on. Nothing is moved, so that what was signed stays as it was sealed; drafts are told
 * the age and sex of the record that stands.
 * @throws HttpProblem 400 without a reason or for the same record twice, 404, 409 where one of them is merged already
 */
export async function mergePatient(db: Db, pack: Pack, id: string, { patient: duplicate, reason }: Merge, by: Who): Promise<void> {
  const { into, patient } = await pair(db, id, duplicate, reason, by)
  if ((await personOf(db, id))?.id !== id || (await personOf(db, duplicate))?.id !== duplicate)
    throw new HttpProblem(409, 'bad-input', 'One of the two is merged already. Open the record that stands for it.')
  if ((await mergedInto(db, duplicate)).length > 0)
    throw new HttpProblem(409, 'bad-input', `${patient.localNumber} stands for other records already: merge this one into ${patient.localNumber} instead.`)
  const drafts = await draftsOfPatient(db, duplicate)
  await setMerged(db, duplicate, id)
  await addMerge(db, { site: by.site, patient: duplicate, into: id, kind: 'merged', reason: plainText(reason), was: { patient, into }, by: by.id })
  if (patient.birthDate !== into.birthDate || patient.sex !== into.sex)
    for (const draft of drafts) await keepEntries(db, pack, draft, personEntries(into, by), by)
  await judgeAnew(db, [id])
}

/**
 * Two records were not of one person: each stands for itself again, with the examinations that were begun with it.
 * @throws HttpProblem 400 without a reason, 404, 409 where they are not merged
 */
export async function separatePatient(db: Db, pack: Pack, id: string, { patient: duplicate, reason }: Merge, by: Who): Promise<void> {
  const { into, patient } = await pair(db, id, duplicate, reason, by)
  if (!(await mergedInto(db, id)).some((one) => one.id === duplicate))
    throw new HttpProblem(409, 'bad-input', 'These two are not merged: there is nothing to separate.')
  await setMerged(db, duplicate, null)
  await addMerge(db, { site: by.site, patient: duplicate, into: id, kind: 'separated', reason: plainText(reason), was: { patient, into }, by: by.id })
  if (patient.birthDate !== into.birthDate || patient.sex !== into.sex)
    for (const draft of await draftsOfPatient(db, duplicate)) await keepEntries(db, pack, draft, personEntries(patient, by), by)
  await judgeAnew(db, [id, duplicate])
}

/** Both records, held until the transaction ends. */
async function pair(db: Db, id: string, duplicate: string, reason: string, { site }: Who) {
  const faults = [
    ...(isReason(reason) ? [] : [{ path: '/reason', reason: 'says no reason', expected: LEAST_WORDS }]),
    ...(duplicate === id ? [{ path: '/patient', reason: 'is this record', expected: 'another record of the same person' }] : []),
  ]
  if (faults.length > 0) throw badInput(faults)
  await lockNewPatients(db, site)
  const [into, patient] = [await patientById(db, id), await patientById(db, duplicate)]
  if (!into || !patient) throw notFound('patient')
  return { into, patient }
}

/** What was found earlier at the same joint is another record than it was. */
async function judgeAnew(db: Db, people: readonly string[]): Promise<void> {
  for (const person of people) for (const draft of await draftsOfPatient(db, person)) await addRangeJob(db, draft)
}
