import { SEXES, type BodyOf, type examinations as contract, type Told } from '@kneecap-awl/contract'
import { checkEntries, itemsById, readExamination, sidesOf, type Entry, type FindingEntry, type Pack, type Side } from '@kneecap-awl/core'
import { v7 as uuid7 } from 'uuid'
import type { Account } from '../accounts/queries.js'
import type { Db } from '../db/connect.js'
import { badInput, notFound } from '../http/problem.js'
import { personEntries } from '../patients/personEntries.js'
import { personOf } from '../patients/queries.js'
import type { PackStore } from '../packs/service.js'
import { createPatient } from '../patients/service.js'
import { keepEntries, ownDecisions, storeEntries } from './entries.js'
import { addExamination, examinationById, type NewExamination } from './queries.js'
import { checkSides } from './service.js'
import { addJoint } from './visit.js'

/**
 * Begins a visit of a patient who is known or new: its first joint with what the patient's own record says and what was told at once,
 * then the other joints with what they share. All of it begins, or nothing.
 * @returns the ids of its examinations, the first joint's first
 * @throws HttpProblem 400 when nobody is named, a joint does not suit, or what was told cannot be; 404; 409 for a possible duplicate
 */
export async function startExamination(
  db: Db,
  packStore: PackStore,
  body: BodyOf<typeof contract.startExamination>,
  by: Account,
): Promise<readonly [string, ...string[]]> {
  const pack = packStore.current
  checkSides(pack, body)
  const { region, sides, setting, told = [], also = [] } = body
  // Its answer was lost, and it is sent again: it has begun.
  const begun = body.id === undefined ? undefined : await examinationById(db, body.id)
  if (begun) return [begun.id]
  const heard = entriesOf(pack, told, sides, by)
  const faults = checkEntries(pack, heard, '/told')
  if (faults.length > 0) throw badInput(faults)
  const patient = body.patientId ? await personOf(db, body.patientId) : body.patient ? await createPatient(db, by, body.patient) : undefined
  if (!patient)
    throw body.patientId
      ? notFound('patient')
      : badInput([{ path: '/patient', reason: 'says nobody', expected: 'patientId, or patient with name and birthDate' }])
  const id = await begin(
    db,
    pack,
    { ...(body.id ? { id: body.id } : {}), patient: patient.id, region, sides, setting, startedAt: new Date().toISOString() },
    by,
  )
  await keepEntries(db, pack, id, [...personEntries(patient, by), ...heard], by)
  const others: string[] = []
  for (const joint of also) others.push(await addJoint(db, packStore, id, joint, by))
  return [id, ...others]
}

/** What was told of a joint as it is begun, as entries: of each side in question, a list where the item takes several words. */
function entriesOf(pack: Pack, told: readonly Told[], asked: readonly Side[], by: Pick<Account, 'name'>): FindingEntry[] {
  const items = itemsById(pack)
  const at = new Date().toISOString()
  const heard = new Map<string, FindingEntry>()
  for (const { item: id, side: about, value } of told) {
    const item = items.get(id)
    const sides: readonly Side[] = about !== undefined ? [about] : item ? sidesOf(item, asked) : ['none']
    for (const side of sides) {
      const before = heard.get(`${id} ${side}`)?.value
      const words = item?.kind === 'multi' ? [...new Set([before ?? [], value].flat().map(String))] : value
      heard.set(`${id} ${side}`, { id: uuid7(), item: id, side, state: 'examined', value: words, by: by.name, at })
    }
  }
  return [...heard.values()]
}

/**
 * A draft from an examination file, of a new patient. What was found is taken over; decisions in the name of others are not.
 * @throws HttpProblem 400 with every fault of the file
 */
export async function readBack(db: Db, pack: Pack, document: unknown, by: Account): Promise<{ readonly id: string; readonly notTaken: readonly Entry[] }> {
  const read = readExamination(document, pack)
  if ('faults' in read) throw badInput(read.faults)
  const { examination } = read
  const { name, birthDate, sex } = examination.patient ?? {}
  if (!name || !birthDate) throw badInput([{ path: '/patient', reason: 'has no name and birth date', expected: 'patient.name and patient.birthDate' }])
  const known = SEXES.find((one) => one === sex)
  const patient = await createPatient(db, by, { name, birthDate, isNew: true, ...(known ? { sex: known } : {}) })
  const { complaint, asOf: startedAt, setting = 'primary-care' } = examination
  const id = await begin(db, pack, { patient: patient.id, ...complaint, setting, startedAt }, by)
  const { own, ofOthers } = ownDecisions(examination.entries, by.name)
  const entries = own.map((entry) => ({ ...entry, id: uuid7() }))
  const row = { id, startedAt, signedAt: null, discardedAt: null }
  if (entries.length > 0) await storeEntries(db, pack, row, { entries }, by)
  return { id, notTaken: ofOthers }
}

/** The first joint of a visit, judged with the pack in use. @returns its id */
async function begin(
  db: Db,
  pack: Pack,
  about: Partial<Pick<NewExamination, 'id'>> & Pick<NewExamination, 'patient' | 'region' | 'sides' | 'setting' | 'startedAt'>,
  by: Pick<Account, 'id' | 'site'>,
): Promise<string> {
  const { id = uuid7() } = about
  await addExamination(db, { ...about, id, site: by.site, by: by.id, packHash: pack.hash })
  return id
}
