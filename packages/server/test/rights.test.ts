import type pg from 'pg'
import { v7 as uuid7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { otherSite, type OtherSite } from './otherSite.js'
import { newServer, type Server } from './server.js'

/** What each role may do with each table, written down a second time: what is not here is refused. */
type Statement = 'select' | 'insert' | 'update' | 'delete' | 'truncate'
const STATEMENTS: readonly Statement[] = ['select', 'insert', 'update', 'delete', 'truncate']
const ADDED: readonly Statement[] = ['select', 'insert']
const CHANGED: readonly Statement[] = ['select', 'insert', 'update']
const APPLICATION: Readonly<Record<string, readonly Statement[]>> = {
  account: CHANGED,
  audit: ADDED,
  correction: ADDED,
  entry: ADDED,
  entry_count: ['select'],
  examination: CHANGED,
  failed_sign_in: [],
  invitation: CHANGED,
  known_place: [],
  merge: ADDED,
  pack: ['select'],
  patient: CHANGED,
  patient_number: ['select', 'update'],
  range_job: [],
  recovery_code: ['select', 'insert', 'update', 'delete'],
  referral: ADDED,
  referral_event: ADDED,
  schemaversion: [],
  seal: ADDED,
  session: [],
  site: [],
  standing_range: CHANGED,
  verdict: ADDED,
}
/** Nobody empties, changes or deletes these, the owner of the tables no more than the application. */
const KEPT = ['audit', 'correction', 'entry', 'merge', 'referral', 'referral_event', 'seal', 'verdict']
/** Tables whose rows belong to a site. */
const OF_SITE = Object.keys(APPLICATION).filter(
  (table) => !['failed_sign_in', 'known_place', 'pack', 'range_job', 'schemaversion', 'session', 'site'].includes(table),
)

let server: Server
let other: OtherSite
let home = ''
beforeAll(async () => {
  server = await newServer('rights')
  other = await otherSite(server)
  const id = await server.begin()
  home = (await server.owner.query<{ site: string }>('select site_id as site from examination where id = $1', [id])).rows[0]?.site ?? ''
})
afterAll(() => server.close())

/** Does it as a site, or as none, and takes it back. @returns rows affected, or the SQLSTATE with which it was refused */
async function tried(pool: pg.Pool, sql: string, values: readonly unknown[] = [], site = ''): Promise<number | string> {
  const db = await pool.connect()
  try {
    await db.query('begin')
    if (site) await db.query("select set_config('awl.site', $1, true)", [site])
    return (await db.query(sql, [...values])).rowCount ?? 0
  } catch (error) {
    return (error as { code?: string }).code ?? String(error)
  } finally {
    await db.query('rollback')
    db.release()
  }
}
const DENIED = '42501'

describe('the tables', () => {
  it('are those whose rights are written down here', async () => {
    const { rows } = await server.owner.query<{ name: string }>("select tablename as name from pg_tables where schemaname = 'public' order by 1")
    expect(rows.map(({ name }) => name)).toEqual(Object.keys(APPLICATION).sort())
  })
  it.each(Object.keys(APPLICATION).flatMap((table) => STATEMENTS.map((statement) => [table, statement] as const)))('%s: %s', async (table, statement) => {
    const { rows } = await server.owner.query<{ may: boolean }>(
      statement === 'delete' || statement === 'truncate'
        ? `select has_table_privilege('awl_app', $1, '${statement}') as may`
        : `select has_any_column_privilege('awl_app', $1, '${statement}') or has_table_privilege('awl_app', $1, '${statement}') as may`,
      [table],
    )
    expect(rows[0]?.may).toBe(APPLICATION[table]?.includes(statement))
  })
  it.each(KEPT.flatMap((table) => [`update ${table} set site_id = site_id`, `delete from ${table}`, `truncate ${table} cascade`]))(
    'refuse to their owner: %s',
    async (sql) => {
      const has = await server.owner.query(`select 1 from ${sql.split(/from |update |truncate /)[1]?.split(' ')[0] ?? ''} limit 1`)
      // An empty table has no row whose change could be refused.
      expect(await tried(server.owner, sql)).toBe(has.rowCount === 0 && !sql.startsWith('truncate') ? 0 : DENIED)
    },
  )
  it.each(OF_SITE)('%s: no row of another site is there', async (table) => {
    const column = table === 'account' ? 'id' : 'site_id'
    const rows = await tried(server.pool, `select ${column} from ${table} where site_id <> $1`, [home], home)
    expect(rows).toBe(0)
    expect(await tried(server.pool, `select ${column} from ${table}`)).toBe(0)
  })
})

describe('another site', () => {
  it('cannot be written for', async () => {
    const patient = 'insert into patient (id, site_id, local_number, name, birth_date) values ($1, $2, $3, $4, $5)'
    const values = (site: string): unknown[] => [uuid7(), site, 'H9', 'Merle Grebe', '1980-01-01']
    expect(await tried(server.pool, patient, values(home), home)).toBe(1)
    expect(await tried(server.pool, patient, values(other.site), home)).toBe(DENIED)
    expect(await tried(server.pool, patient, values(home))).toBe(DENIED)
  })
  it.each([
    ['its patient', 'patient_id'],
    ['its visit', 'visit'],
    ['its account', 'started_by'],
  ])('cannot be referred to: %s', async (_what, column) => {
    const { rows } = await server.owner.query<Record<string, string>>('select * from examination where site_id = $1 limit 1', [home])
    const theirs = { patient_id: other.patient, visit: other.examination, started_by: other.account }
    const row = { ...rows[0], [column]: theirs[column as keyof typeof theirs] }
    const sql = `insert into examination (id, site_id, patient_id, region, sides, setting, started_at, started_by, pack_hash, visit)
      values ($1, $2, $3, 'knee', '{right}', 'emergency', now(), $4, $5, $6)`
    expect(await tried(server.pool, sql, [uuid7(), home, row.patient_id, row.started_by, row.pack_hash, row.visit], home)).toBe('23503')
  })
  it('gets no entry from here', async () => {
    const sql = "insert into entry (id, examination_id, site_id, about, side, body, at) values ($1, $2, $3, 'x', 'none', '{}', now())"
    expect(await tried(server.pool, sql, [uuid7(), other.examination, home], home)).toBe('23503')
  })
})

describe('what has happened', () => {
  const examinationWhere = (condition: string): string =>
    `(select id from examination where site_id = current_setting('awl.site')::uuid and ${condition} limit 1)`
  it.each([
    ['is not unsigned', `update examination set signed_at = null where id = ${examinationWhere('signed_at is not null')}`, '55000'],
    ['is not signed anew', `update examination set signed_at = now() where id = ${examinationWhere('signed_at is not null')}`, '55000'],
    ['is not signed back in time', `update examination set signed_at = now() - interval '1 day' where id = ${examinationWhere('signed_at is null')}`, DENIED],
    ['is not discarded ahead', `update examination set discarded_at = now() + interval '1 day' where id = ${examinationWhere('signed_at is null')}`, DENIED],
    ['keeps when it began', `update examination set started_at = now() where id = ${examinationWhere('signed_at is null')}`, DENIED],
    ['keeps its side once signed', `update examination set sides = '{left}' where id = ${examinationWhere('signed_at is not null')}`, '55000'],
    ['keeps numbers of patients in order', 'update patient_number set last = last - 1', DENIED],
    ['keeps the content packs', "insert into pack (hash, id, version, compiled) values ('x', 'x', 'x', '{}')", DENIED],
  ])('%s', async (_what, sql, code) => expect(await tried(server.pool, sql, [], home)).toBe(code))
  it('is signed now', async () => {
    expect(
      await tried(
        server.pool,
        `update examination set signed_at = now() where id = ${examinationWhere('signed_at is null and discarded_at is null')}`,
        [],
        home,
      ),
    ).toBe(1)
  })
})

describe('secrets', () => {
  it.each([
    'select password_hash from account',
    'select second_factor from account',
    'select * from session',
    'insert into session (token_hash, account_id, expires_at) select decode(md5(random()::text), $$hex$$), id, now() from account limit 1',
    'select * from site',
    'select * from failed_sign_in',
    'select who_is(a) from account a',
  ])('are not read by the application: %s', async (sql) => expect(await tried(server.pool, sql, [], home)).toBe(DENIED))
  it('no session lasts longer than a day', async () => {
    expect(await tried(server.pool, "select begin_session('x', $1, 25, '', '')", [other.account])).toBe('23514')
  })
})
