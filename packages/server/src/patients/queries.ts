import type { Corrected, Merged, PatientSummary as Patient } from '@kneecap-awl/contract'
import { v7 as uuid7 } from 'uuid'
import type { Db } from '../db/connect.js'
import { isoTime } from '../db/isoTime.js'

const COLUMNS = `id, local_number as "localNumber", name, to_char(birth_date, 'YYYY-MM-DD') as "birthDate", sex, contact`

export async function findPatients(db: Db, search: string): Promise<Patient[]> {
  const { rows } = await db.query<Patient>(
    `select ${COLUMNS} from patient where id in (select person from patient where name ilike '%' || $1 || '%' or local_number ilike $1 || '%') order by name collate "en-x-icu" limit 30`,
    [search],
  )
  return rows
}

/** A record by its id, also one that another stands for. */
export async function patientById(db: Db, id: string): Promise<Patient | undefined> {
  const { rows } = await db.query<Patient>(`select ${COLUMNS} from patient where id = $1`, [id])
  return rows[0]
}

/** The record that stands for the person of a record: mostly itself. */
export async function personOf(db: Db, id: string): Promise<Patient | undefined> {
  const { rows } = await db.query<Patient>(`select ${COLUMNS} from patient where id = (select person from patient where id = $1)`, [id])
  return rows[0]
}

/** The records that one stands for, and none of its own. */
export async function mergedInto(db: Db, id: string): Promise<Patient[]> {
  const { rows } = await db.query<Patient>(`select ${COLUMNS} from patient where merged_into = $1 order by local_number`, [id])
  return rows
}

/** @param into null parts them again */
export async function setMerged(db: Db, id: string, into: string | null): Promise<void> {
  await db.query('update patient set merged_into = $2 where id = $1', [id, into])
}

export interface NewMerge {
  readonly site: string
  readonly patient: string
  readonly into: string
  readonly kind: 'merged' | 'separated'
  readonly reason: string
  /** Both records as they were. */
  readonly was: { readonly patient: Patient; readonly into: Patient }
  readonly by: string
}
export async function addMerge(db: Db, { site, patient, into, kind, reason, was, by }: NewMerge): Promise<void> {
  await db.query('insert into merge (id, site_id, patient_id, into_patient, kind, reason, was, by_account) values ($1, $2, $3, $4, $5, $6, $7, $8)', [
    uuid7(),
    site,
    patient,
    into,
    kind,
    reason,
    JSON.stringify(was),
    by,
  ])
}

/** What was merged into a record and separated from it, the newest first. */
export async function mergesOf(db: Db, id: string): Promise<Merged[]> {
  const { rows } = await db.query<Merged>(
    `select m.kind, m.patient_id as patient, m.was -> 'patient' ->> 'localNumber' as "localNumber", m.was -> 'patient' ->> 'name' as name,
       m.was -> 'patient' ->> 'birthDate' as "birthDate", m.reason, a.name as by, ${isoTime('m.at')} as at
     from merge m join account a on a.id = m.by_account where m.into_patient = $1 or m.patient_id = $1 order by m.at desc, m.id desc`,
    [id],
  )
  return rows
}

export async function addPatient(db: Db, site: string, patient: Patient): Promise<void> {
  await db.query('insert into patient (id, site_id, local_number, name, birth_date, sex, contact) values ($1, $2, $3, $4, $5, $6, $7)', [
    patient.id,
    site,
    patient.localNumber,
    patient.name,
    patient.birthDate,
    patient.sex,
    patient.contact,
  ])
}

/** Makes new patients of a site one after the other until the transaction ends: two at once would get the same number, or be the same person. */
export async function lockNewPatients(db: Db, site: string): Promise<void> {
  await db.query("select pg_advisory_xact_lock(hashtextextended('new patient ' || $1, 0))", [site])
}

/** The next number of a site's own sequence: however many are given out at once, each is given once. */
export async function nextLocalNumber(db: Db, site: string): Promise<string> {
  const { rows } = await db.query<{ last: number }>('update patient_number set last = last + 1 where site_id = $1 returning last', [site])
  const [number] = rows
  if (!number) throw new Error(`the site ${site} has no sequence of patient numbers`)
  return `H${number.last}`
}

/** Those of the same birth date, and those of whose name some part is the same. */
export async function candidates(db: Db, name: string, birthDate: string): Promise<Patient[]> {
  const parts = name.split(/[^\p{L}]+/u).filter((part) => part.length > 1)
  const { rows } = await db.query<Patient>(
    `select ${COLUMNS} from patient where id in (select person from patient where birth_date = $1 or name ilike any($2)) order by name collate "en-x-icu" limit 60`,
    [birthDate, parts.map((part) => `%${part}%`)],
  )
  return rows
}

export async function changePatient(db: Db, { id, name, birthDate, sex, contact }: Patient): Promise<void> {
  await db.query('update patient set name = $2, birth_date = $3, sex = $4, contact = $5 where id = $1', [id, name, birthDate, sex, contact])
}

export interface NewCorrection {
  readonly id: string
  readonly site: string
  /** One of the two. */
  readonly patient?: string
  readonly examination?: string
  readonly field: string
  readonly was: string
  readonly becomes: string
  readonly reason: string
  readonly by: string
}

export async function addCorrection(db: Db, c: NewCorrection): Promise<void> {
  await db.query(
    'insert into correction (id, site_id, patient_id, examination_id, field, was, becomes, reason, by_account) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
    [c.id, c.site, c.patient ?? null, c.examination ?? null, c.field, c.was, c.becomes, c.reason, c.by],
  )
}

/** What was corrected of a patient and of the patient's examinations, the newest first. */
export async function correctionsOf(db: Db, patient: string): Promise<Corrected[]> {
  const { rows } = await db.query<Corrected>(
    `select c.field, c.was, c.becomes, c.reason, a.name as by, ${isoTime('c.at')} as at
     from correction c join account a on a.id = c.by_account left join examination e on e.id = c.examination_id
     where coalesce(c.patient_id, e.patient_id) in (select id from patient where person = $1) order by c.at desc limit 200`,
    [patient],
  )
  return rows
}
