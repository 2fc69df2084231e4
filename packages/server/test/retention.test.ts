import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { verifyAudit } from '../src/audit/queries.js'
import { verifySeals } from '../src/examinations/seals.js'
import { ROOT } from './database.js'
import { entry, newServer, type Detail, type Server } from './server.js'

let server: Server
beforeAll(async () => {
  server = await newServer('retention')
})
afterAll(() => server.close())

/** Everything of a patient, as if it had been so many years ago. */
async function age(patient: string, years: number): Promise<void> {
  const db = await server.owner.connect()
  const shifted: readonly (readonly [string, readonly string[], string])[] = [
    ['patient', ['created_at'], 'id = $1'],
    ['correction', ['at'], 'patient_id = $1'],
    ['examination', ['started_at', 'signed_at'], 'patient_id = $1'],
    ['entry', ['received_at'], 'examination_id in (select id from examination where patient_id = $1)'],
    ['verdict', ['at'], 'examination_id in (select id from examination where patient_id = $1)'],
    ['referral_event', ['at'], 'referral_id in (select id from referral where patient_id = $1)'],
  ]
  await db.query("set session_replication_role = 'replica'")
  for (const [table, columns, where] of shifted)
    await db.query(`update ${table} set ${columns.map((column) => `${column} = ${column} - make_interval(years => ${years})`).join(', ')} where ${where}`, [
      patient,
    ])
  await db.query("set session_replication_role = 'origin'")
  db.release()
}
/** A patient with a signed examination, a correction and a referral, all of it so many years ago. */
async function past(name: string, birthDate: string, years: number, isClosed = true): Promise<string> {
  const id = await server.begin({ patient: { name, birthDate, isNew: true } })
  await server.record(id, entry('vascular.pulse-dorsalis-pedis', 'absent', { side: 'right' }))
  expect((await server.sign(id)).statusCode).toBe(200)
  const { patientId } = (await server.call('GET', `/api/examinations/${id}`)).json<Detail>()
  const referral = (await server.call('POST', `/api/examinations/${id}/referrals`, {})).json<{ id: string }>()
  if (isClosed) await server.call('POST', `/api/referrals/${referral.id}/events`, { kind: 'accepted', note: 'Dr Gale, vascular' })
  await server.call('POST', `/api/patients/${patientId}/corrections`, { contact: 'the lighthouse', reason: 'moved house' })
  await age(patientId, years)
  return patientId
}
const retention = (...args: string[]) =>
  spawnSync(process.execPath, [join(ROOT, 'packages/server/dist/commands/retention.js'), ...args], {
    encoding: 'utf8',
    env: { ...process.env, AWL_OWNER_URL: server.ownerUrl, AWL_AUDIT_KEY: auditKey, AWL_ANCHORS: server.sealer.anchorFile },
  })
let auditKey = ''
const RULE = ['--years', '10', '--minors-until', '28']
const isThere = async (id: string): Promise<boolean> => (await server.owner.query('select 1 from patient where id = $1', [id])).rowCount === 1

describe('npm run retention', () => {
  const people: Record<string, string> = {}
  beforeAll(async () => {
    auditKey = (await server.cluster.start()).auditKey
    people.old = await past('Odd Longago', '1950-01-01', 12)
    people.recent = await past('Nils Lately', '1950-01-02', 9)
    people.minor = await past('Young Longago', '2008-01-01', 12)
    people.open = await past('Open Longago', '1950-01-03', 12, false)
    people.merged = await past('Merged Longago', '1950-01-04', 12)
    people.stands = (await server.call('POST', '/api/patients', { name: 'Stands Lately', birthDate: '1950-01-04', isNew: true })).json<{ id: string }>().id
    await server.call('POST', `/api/patients/${people.stands}/merge`, { patient: people.merged, reason: 'the same passport' }, 'quill')
  })

  it('asks for the rule: there is none by default', () => {
    const { status, stdout } = retention()
    expect([status, stdout]).toEqual([2, expect.stringContaining('there is no default')])
  })
  it('tells by number whose records are past the rule, and changes nothing', async () => {
    const { status, stdout } = retention(...RULE)
    expect([status, stdout]).toEqual([0, expect.stringContaining('1 patients are past the rule of 10 years (minors until 28); nothing was changed')])
    expect(stdout).toMatch(/H\d+ +last recorded 20\d\d-\d\d-\d\d, 1 examinations\n/)
    expect(stdout).toContain('kept: a referral is open')
    expect(stdout).not.toMatch(/Longago|Lately/)
    for (const id of Object.values(people)) expect(await isThere(id)).toBe(true)
  })
  it('erases them, whole: nothing of theirs is left but ids in the audit, whose chain and whose seals stay whole', async () => {
    const before = people.old ?? ''
    const examinations = (await server.owner.query<{ id: string }>('select id from examination where patient_id = $1', [before])).rows.map(({ id }) => id)
    expect(examinations).toHaveLength(1)
    const { status, stdout } = retention(...RULE, '--erase')
    expect([status, stdout]).toEqual([0, expect.stringContaining('and were erased')])
    expect(await isThere(before)).toBe(false)
    for (const kept of ['recent', 'minor', 'open', 'merged', 'stands']) expect([kept, await isThere(people[kept] ?? '')]).toEqual([kept, true])
    for (const table of ['entry', 'verdict', 'referral', 'standing_range', 'entry_count', 'range_job'])
      expect((await server.owner.query(`select 1 from ${table} where examination_id = any($1)`, [examinations])).rowCount).toBe(0)
    expect((await server.owner.query("select about from audit where action = 'patient erased by rule'")).rows).toEqual([
      { about: `${before} after 10 years, minors until 28` },
    ])
    expect((await verifyAudit(server.owner, server.sealer)).faults).toEqual([])
    // Those that were made older here are not what was sealed.
    const aged = (await server.owner.query<{ id: string }>('select id from examination where patient_id = any($1)', [Object.values(people)])).rows.map(
      ({ id }) => id,
    )
    expect((await verifySeals(server.owner, server.sealer)).altered.filter((id) => !aged.includes(id))).toEqual([])
    // What is only added to is kept again.
    await expect(server.owner.query('delete from entry')).rejects.toThrow('append-only')
  })
})
