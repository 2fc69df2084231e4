import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import type pg from 'pg'
import { addAudit, sealWith, verifyAudit } from '../src/audit/queries.js'
import { Sealer } from '../src/audit/seal.js'
import { Shown } from '../src/audit/shown.js'
import { asOne, connect } from '../src/db/connect.js'
import { migrate } from '../src/db/migrate.js'
import { newCluster, type Cluster } from './database.js'
import { newServer } from './server.js'

let cluster: Cluster
let owner: pg.Pool
let appUrl = ''
const pools: pg.Pool[] = []
const KEY = 'the key of this test'
const folder = mkdtempSync(join(tmpdir(), 'awl-audit-'))
const file = join(folder, 'anchors.jsonl')
const A = '019a0000-0000-7000-8000-00000000000a'
const B = '019a0000-0000-7000-8000-00000000000b'

/** A server of its own: a pool as the application connects, with the key and a file for its notes. */
function serverOf(anchors?: string, key = KEY): { readonly pool: pg.Pool; readonly sealer: Sealer } {
  const pool = connect(appUrl, () => undefined)
  const sealer = new Sealer(key, anchors)
  sealWith(pool, sealer)
  pools.push(pool)
  return { pool, sealer }
}
const write = (pool: pg.Pool, action: string): Promise<void> => asOne(pool, async (db) => addAudit(db, { site: A, account: B, action, about: 'x' }))
const faults = async (sealer = new Sealer(KEY, file)): Promise<readonly string[]> => (await verifyAudit(owner, sealer)).faults

/** Somebody who may write everything in the database, past its own protection, and then leaves it as it was. */
async function tampered(sql: string): Promise<readonly string[]> {
  const db = await owner.connect()
  try {
    await db.query('begin')
    await db.query('alter table audit disable trigger all')
    await db.query(sql)
    return (await verifyAudit(db, new Sealer(KEY, file))).faults
  } finally {
    await db.query('rollback')
    db.release()
  }
}

beforeAll(async () => {
  cluster = await newCluster('audit')
  const urls = await cluster.start()
  appUrl = urls.appUrl
  await migrate(urls.ownerUrl, new URL(urls.appUrl).password)
  owner = connect(urls.ownerUrl, () => undefined)
  const { pool, sealer } = serverOf(file)
  for (let at = 0; at < 45; at++) await write(pool, `read ${at}`)
  sealer.anchor()
})
afterAll(async () => {
  await Promise.all([...pools, owner].map((pool) => pool.end()))
  cluster.remove()
  rmSync(folder, { recursive: true })
})

describe('the chain of audit rows', () => {
  it('is whole, without a gap, and noted outside of the database at every twentieth row and at the stop', async () => {
    expect(await verifyAudit(owner, new Sealer(KEY, file))).toEqual({ sealed: 45, unkeyed: 0, faults: [] })
    expect(new Sealer(KEY, file).anchors().map(({ seq }) => seq)).toEqual([20, 40, 45])
  })
  it.each([
    ['altered', "update audit set action = 'nothing to see' where seq = 12", /^row 12 does not fit its seal$/],
    ['given another time', "update audit set at = at + interval '1 second' where seq = 12", /^row 12 does not fit/],
    ['deleted', 'delete from audit where seq = 12', /^after row 11 rows are missing: the next is 13$/],
    ['deleted and counted anew', 'delete from audit where seq = 12; update audit set seq = seq - 1 where seq > 12', /^row 12 does not follow/],
    [
      'inserted',
      "insert into audit select 46, site_id, account_id, 'patient read', about, at, hash, md5('x'), true from audit where seq = 45",
      /^row 46 does not fit/,
    ],
    ['cut from the end', 'delete from audit where seq > 43', /^row 45, noted outside of the database, is missing/],
    ['cut from the beginning', 'delete from audit where seq < 5', /^at the beginning rows are missing: the next is 5$/],
    ['shifted from one field to the next', "update audit set about = '', action = action || 'x' where seq = 7", /^row 7 does not fit/],
    ['moved from site to account', 'update audit set site_id = account_id, account_id = site_id where seq = 7', /^row 7 does not fit/],
    ['said to be of before', 'update audit set is_keyed = false where seq = 30', /^row 30 claims to be of before/],
  ])('shows a row that was %s', async (_how, sql, fault) => {
    expect((await tampered(sql))[0]).toMatch(fault)
  })
  it('shows one that was computed anew: with another key by its seals, with the seals of before by the notes', async () => {
    const anew = (await owner.query<{ sql: string }>(
      `select string_agg(format('update audit set action = %L where seq = %s', 'other', seq), '; ') as sql from audit where seq > 20`,
    )) as { rows: { sql: string }[] }
    expect((await tampered(anew.rows[0]?.sql ?? '')).length).toBeGreaterThan(20)
    expect(await faults(new Sealer('another key', file))).toContain('row 1 does not fit its seal')
    const unkeyed = `update audit set is_keyed = false, action = 'other';
      update audit set hash = encode(sha256(convert_to(concat_ws('|', previous_hash, site_id, account_id, action, about, extract(epoch from at)), 'UTF8')), 'hex')`
    expect((await tampered(unkeyed))[0]).toBe('row 20 is not the one that was noted outside of the database: the chain was computed anew')
  })
  it('names the first faults and counts the rest', async () => {
    const told = await tampered("update audit set action = 'x'")
    expect([told.length, told.at(-1)]).toEqual([21, 'and 25 more'])
  })
})

describe('who writes to it', () => {
  afterEach(async () => expect(await faults()).toEqual([]))
  it('leaves it whole with fifty at once, of two servers', async () => {
    const before = (await verifyAudit(owner, new Sealer(KEY, file))).sealed
    const servers = [serverOf(), serverOf()]
    await Promise.all(Array.from({ length: 50 }, (_, at) => write((servers[at % 2] ?? (servers[0] as never)).pool, `at once ${at}`)))
    const report = await verifyAudit(owner, new Sealer(KEY, file))
    expect(report).toEqual({ sealed: before + 50, unkeyed: 0, faults: [] })
  })
  it('adds nothing with a unit of work that fails, and does not hold up those that only read meanwhile', async () => {
    const { pool } = serverOf()
    const before = (await verifyAudit(owner, new Sealer(KEY, file))).sealed
    await expect(
      asOne(pool, async (db) => {
        addAudit(db, { site: A, account: B, action: 'lost' })
        await db.query('select 1/0')
      }),
    ).rejects.toThrow('division by zero')
    let end: () => void = () => undefined
    const slow = asOne(pool, async (db) => {
      addAudit(db, { site: A, account: B, action: 'slow' })
      await new Promise<void>((resolve) => (end = resolve))
    })
    // It has not begun to seal: another one is through before it.
    await write(pool, 'quick')
    end()
    await slow
    const { rows } = await owner.query<{ action: string }>('select action from audit where seq > $1 order by seq', [before])
    expect(rows.map(({ action }) => action)).toEqual(['quick', 'slow'])
  })
  it('is refused without a key', async () => {
    const pool = connect(appUrl, () => undefined)
    pools.push(pool)
    await expect(write(pool, 'without')).rejects.toThrow('without a sealer')
  })
  it('may not change, delete or empty what is there, not even as the owner', async () => {
    for (const sql of ["update audit set action = ''", 'delete from audit', 'truncate audit', 'truncate entry', 'truncate verdict cascade'])
      await expect(owner.query(sql)).rejects.toThrow('is append-only')
  })
})

describe('the notes outside of the database', () => {
  it('lose a last line that was cut short, and nothing else', () => {
    const cut = join(folder, 'cut.jsonl')
    writeFileSync(cut, `${readFileSync(file, 'utf8')}{"seq": 99, "ha`)
    expect(new Sealer(KEY, cut).anchors()).toEqual(new Sealer(KEY, file).anchors())
  })
})

describe('what is written to it', () => {
  it('is who searched, which names a list showed, who was refused what and who tried to sign in, with ids and no name of a patient', async () => {
    const server = await newServer('audited')
    try {
      const lines = async (): Promise<string[]> =>
        (await server.owner.query<{ line: string }>("select action || ' | ' || about as line from audit order by seq")).rows.map(({ line }) => line)
      const { patients } = (await server.call('GET', '/api/patients?search=pell')).json<{ patients: { id: string }[] }>()
      const desk = (await server.call('GET', '/api/desk?state=signed')).json<{ examinations: { id: string }[] }>()
      const { referrals } = (await server.call('GET', '/api/referrals')).json<{ referrals: { id: string }[] }>()
      // A screen that reads itself anew shows its reader nobody new; whoever comes in meanwhile is somebody new, and so is everybody to another reader.
      const readings = async (): Promise<number> => (await lines()).filter((line) => line.startsWith('desk read: draft')).length
      for (let count = 0; count < 3; count++) await server.call('GET', '/api/desk?state=draft')
      expect(await readings()).toBe(1)
      const begun = await server.begin()
      for (let count = 0; count < 2; count++) await server.call('GET', '/api/desk?state=draft')
      await server.call('GET', '/api/desk?state=draft', undefined, 'quill')
      expect(await readings()).toBe(3)
      expect((await lines()).filter((line) => line.startsWith('desk read: draft')).every((line, at) => line.includes(begun) === at > 0)).toBe(true)
      await server.call('GET', `/api/examinations/${A}`)
      await server.call('GET', '/api/desk', undefined, 'lark')
      await server.call('POST', '/api/session', { signIn: 'Nobody', password: 'guessed' }, '')
      await server.call('DELETE', '/api/session')
      const told = await lines()
      expect(patients.length).toBeGreaterThan(0)
      expect(told).toContain(`patients searched | ${patients.map(({ id }) => id).join(' ')}`)
      expect(told).toContain(`desk read: signed | ${desk.examinations.map(({ id }) => id).join(' ')}`)
      expect(told).toContain(`open referrals read | ${referrals.map(({ id }) => id).join(' ')}`)
      expect(told).toContain(`refused 404 | GET /api/examinations/:id ${A}`)
      expect(told).toContain('refused 403 | GET /api/desk')
      expect(told).toContain('sign-in refused | 127.0.0.1 Nobody')
      expect(told).toContain('signed out | ')
      expect(told.join()).not.toMatch(/pell/i)
      expect((await verifyAudit(server.owner, server.sealer)).faults).toEqual([])
    } finally {
      await server.close()
    }
  })
  it('is a list again after a quarter of an hour, though it shows nobody new', () => {
    const shown = new Shown()
    const reads = (at: number): boolean => shown.isNews('session', 'desk', ['one', 'two'], at * 60_000)
    expect([reads(0), reads(1), reads(14), reads(16), reads(17)]).toEqual([true, false, false, true, false])
  })
})
