import type { Db } from '../db/connect.js'

export interface Patient {
  readonly id: string
  readonly localNumber: string
  readonly name: string
  readonly birthDate: string
  readonly sex: string
  readonly contact: string
}

const COLUMNS = `id, local_number as "localNumber", name, to_char(birth_date, 'YYYY-MM-DD') as "birthDate", sex, contact`

export async function findPatients(db: Db, search: string): Promise<Patient[]> {
  const { rows } = await db.query<Patient>(
    `select ${COLUMNS} from patient where name ilike '%' || $1 || '%' or local_number ilike $1 || '%' order by name collate "en-x-icu" limit 30`,
    [search],
  )
  return rows
}

export async function patientById(db: Db, id: string): Promise<Patient | undefined> {
  const { rows } = await db.query<Patient>(`select ${COLUMNS} from patient where id = $1`, [id])
  return rows[0]
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

export async function nextLocalNumber(db: Db): Promise<string> {
  const { rows } = await db.query<{ n: number }>(
    "select coalesce(max(nullif(regexp_replace(local_number, '\\D', '', 'g'), '')::int), 4100) + 1 as n from patient",
  )
  return `H${rows[0]?.n ?? 4101}`
}
