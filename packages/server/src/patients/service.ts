import { ageOn, hasLetters, isReason, isSamePerson, LEAST_WORDS, localDay, plainText, type Fault, type Pack } from '@kneecap-awl/core'
import type { Correction, NewPatient, PatientSummary as Patient } from '@kneecap-awl/contract'
import { v7 as uuid7 } from 'uuid'
import type { Account } from '../accounts/queries.js'
import type { Db } from '../db/connect.js'
import { keepEntries } from '../examinations/entries.js'
import { draftsOfPatient } from '../examinations/queries.js'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import { addCorrection, addPatient, candidates, changePatient, lockNewPatients, nextLocalNumber, patientById } from './queries.js'
import { personEntries } from './personEntries.js'

const OLDEST_YEARS = 125

function personFaults({ name, birthDate }: { readonly name?: string; readonly birthDate?: string }, path: string, zone: string): Fault[] {
  const now = new Date().toISOString()
  return [
    ...(name !== undefined && !hasLetters(plainText(name)) ? [{ path: `${path}/name`, reason: 'is no name', expected: 'a name with letters' }] : []),
    ...(birthDate !== undefined && (birthDate > localDay(now, zone) || ageOn(birthDate, now, zone).years > OLDEST_YEARS)
      ? [{ path: `${path}/birthDate`, reason: 'is not the birth date of someone living', expected: `a date from ${OLDEST_YEARS} years ago until today` }]
      : []),
  ]
}

/** Patients of this site who may be the person: of the same birth date with a like name, or of the same name. */
export async function likePatients(db: Db, { name, birthDate }: Pick<NewPatient, 'name' | 'birthDate'>): Promise<readonly Patient[]> {
  const wanted = plainText(name)
  if (!hasLetters(wanted)) return []
  return (await candidates(db, wanted, birthDate)).filter((one) => isLike(one, wanted, birthDate))
}

function isLike(one: Patient, name: string, birthDate: string): boolean {
  if (isSamePerson(name, one.name) || isSamePerson(one.name, name)) return true
  return one.birthDate === birthDate && initials(one.name).some((letter) => initials(name).includes(letter))
}
const initials = (name: string): string[] =>
  name
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter(Boolean)
    .map((word) => word.slice(0, 3))

/**
 * @throws HttpProblem 400 for a name without letters or a birth date of nobody living
 * @throws HttpProblem 409 `possible-duplicate` with those who may be the same, unless `isNew` says that it is somebody else
 */
export async function createPatient(db: Db, { site, zone }: Pick<Account, 'site' | 'zone'>, body: NewPatient, path = '/patient'): Promise<Patient> {
  const faults = personFaults(body, path, zone)
  if (faults.length > 0) throw badInput(faults)
  await lockNewPatients(db, site)
  const like = body.isNew ? [] : await likePatients(db, body)
  if (like.length > 0)
    throw new HttpProblem(409, 'possible-duplicate', 'Somebody of that name is here already. Choose that patient, or say that it is somebody else.', {
      patients: like,
    })
  const patient: Patient = {
    id: uuid7(),
    localNumber: await nextLocalNumber(db, site),
    name: plainText(body.name),
    birthDate: body.birthDate,
    sex: body.sex ?? null,
    contact: plainText(body.contact ?? ''),
  }
  await addPatient(db, site, patient)
  return patient
}

/**
 * Corrects who a patient is. What it was stays in the trace, and every unsigned examination is told the new age and sex.
 * @returns the patient as corrected
 * @throws HttpProblem 400 without a reason or without a change, 404
 */
export async function correctPatient(
  db: Db,
  pack: Pack,
  id: string,
  correction: Correction,
  by: Pick<Account, 'id' | 'site' | 'name' | 'zone'>,
): Promise<Patient> {
  const before = await patientById(db, id)
  if (!before) throw notFound('patient')
  const { reason, ...wanted } = correction
  const faults = [...personFaults(wanted, '', by.zone), ...(isReason(reason) ? [] : [{ path: '/reason', reason: 'says no reason', expected: LEAST_WORDS }])]
  if (faults.length > 0) throw badInput(faults)
  const after: Patient = {
    ...before,
    ...(wanted.name === undefined ? {} : { name: plainText(wanted.name) }),
    ...(wanted.birthDate === undefined ? {} : { birthDate: wanted.birthDate }),
    ...(wanted.sex === undefined ? {} : { sex: wanted.sex }),
    ...(wanted.contact === undefined ? {} : { contact: plainText(wanted.contact) }),
  }
  const changed = FIELDS.filter((field) => before[field] !== after[field])
  if (changed.length === 0) throw badInput([{ path: '/', reason: 'changes nothing', expected: 'a name, birth date, sex or contact that differs' }])
  await changePatient(db, after)
  for (const field of changed)
    await addCorrection(db, {
      id: uuid7(),
      site: by.site,
      patient: id,
      field,
      was: before[field] ?? 'not asked',
      becomes: after[field] ?? 'not asked',
      reason: plainText(reason),
      by: by.id,
    })
  if (changed.includes('birthDate') || changed.includes('sex'))
    for (const draft of await draftsOfPatient(db, id)) await keepEntries(db, pack, draft, personEntries(after, by), by)
  return after
}
const FIELDS = ['name', 'birthDate', 'sex', 'contact'] as const
