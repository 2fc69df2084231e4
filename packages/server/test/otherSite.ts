import { hash } from '@node-rs/argon2'
import { v7 as uuid7 } from 'uuid'
import { DEMO_PASSWORD } from '../src/demo/load.js'
import type { Server } from './server.js'

/** The next harbour: a site of its own in the same database, with a clinician, an administrator, a patient and an examination. */
export interface OtherSite {
  readonly site: string
  /** Sign-in names. */
  readonly clinician: string
  readonly lead: string
  readonly admin: string
  readonly account: string
  readonly patient: string
  readonly examination: string
}

export async function otherSite({ owner, pack }: Server): Promise<OtherSite> {
  const [site, account, patient, examination] = [uuid7(), uuid7(), uuid7(), uuid7()]
  const [clinician, lead, admin] = ['skua', 'guillemot', 'petrel'].map((name) => `${name}-${site.slice(-6)}`) as [string, string, string]
  const passwordHash = await hash(DEMO_PASSWORD)
  await owner.query('insert into site (id, name) values ($1, $2)', [site, 'The next harbour'])
  const people = [
    [account, clinician, 'Dr Enid Skua', 'clinician'],
    [uuid7(), lead, 'Dr Una Guillemot', 'lead'],
    [uuid7(), admin, 'Gil Petrel', 'admin'],
  ]
  for (const [id, signIn, name, role] of people)
    await owner.query('insert into account (id, site_id, sign_in, name, role, password_hash, is_demo) values ($1, $2, $3, $4, $5, $6, true)', [
      id,
      site,
      signIn,
      name,
      role,
      passwordHash,
    ])
  await owner.query("insert into patient (id, site_id, local_number, name, birth_date) values ($1, $2, 'H1', 'Magnus Fulmar', '1960-06-06')", [patient, site])
  await owner.query(
    `insert into examination (id, site_id, patient_id, region, sides, setting, started_at, started_by, pack_hash, visit)
     values ($1, $2, $3, 'knee', '{right}', 'emergency', now(), $4, $5, $1)`,
    [examination, site, patient, account, pack.hash],
  )
  return { site, clinician, lead, admin, account, patient, examination }
}
