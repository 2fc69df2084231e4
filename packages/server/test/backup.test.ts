import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { verifyAudit } from '../src/audit/queries.js'
import { verifySeals } from '../src/examinations/seals.js'
import { backups, newCluster, ROOT } from './database.js'
import { entry, newServer, type Server } from './server.js'

const REPOSITORY = join(ROOT, '.test', `backup-repository-${process.pid}`)
/** Kept apart from disk and backups, as the instructions say. */
const KEPT = join(ROOT, '.test', `backup-secrets-${process.pid}.json`)

let server: Server
const acknowledged = { whole: [] as string[], archived: [] as string[] }
/** A moment after the whole backup, before what was recorded next. */
let between = ''

const record = async (into: string[], id: string): Promise<void> => {
  for (let at = 0; at < 5; at++) {
    const one = entry('knee.feel.calf', String(at % 4), { side: 'right' })
    if ((await server.record(id, one)).statusCode === 200) into.push(one.id)
  }
}
/** Closes the piece of the log that is being written, and waits until it is archived. */
async function archived(): Promise<void> {
  const { rows } = await server.owner.query<{ wal: string }>('select pg_walfile_name(pg_current_wal_lsn()) as wal')
  await server.owner.query('select pg_switch_wal()')
  for (;;) {
    const { rows: last } = await server.owner.query<{ done: boolean }>('select coalesce(last_archived_wal, $$$$) >= $1 as done from pg_stat_archiver', [
      rows[0]?.wal,
    ])
    if (last[0]?.done) return
    await new Promise((wake) => setTimeout(wake, 100))
  }
}
/** What comes back into an empty folder. @returns ids of entries, and whether audit and seals are whole */
async function restored(
  name: string,
  until?: string,
): Promise<{ readonly entries: ReadonlySet<string>; readonly faults: readonly string[]; readonly altered: readonly string[] }> {
  const cluster = await newCluster(name)
  await cluster.adopt(JSON.parse(readFileSync(KEPT, 'utf8')) as object)
  const { restoreInto } = await backups()
  restoreInto(cluster, REPOSITORY, until)
  const { ownerUrl } = await cluster.start()
  const owner = new pg.Pool({ connectionString: ownerUrl })
  try {
    const { rows } = await owner.query<{ id: string }>('select id from entry')
    return {
      entries: new Set(rows.map(({ id }) => id)),
      faults: (await verifyAudit(owner, server.sealer)).faults.filter((fault) => !fault.includes('noted outside')),
      altered: (await verifySeals(owner, server.sealer)).altered,
    }
  } finally {
    await owner.end()
    cluster.remove()
  }
}

beforeAll(async () => {
  const { keepBackups, beginBackups, takeBackup } = await backups()
  server = await newServer('backup', (cluster) => keepBackups(cluster, REPOSITORY))
  beginBackups(server.cluster)
  cpSync(join(server.cluster.folder, 'secrets.json'), KEPT)
  const id = await server.begin()
  await record(acknowledged.whole, id)
  await server.sign(await server.begin({ patient: { name: 'Averil Ternmouth', birthDate: '1961-02-03', isNew: true } }))
  takeBackup(server.cluster)
  // Backups know seconds: the moment is of a later one.
  await new Promise((wake) => setTimeout(wake, 1100))
  between =
    (await server.owner.query<{ now: string }>(`select to_char(clock_timestamp() at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as now`)).rows[0]?.now ??
    ''
  await record(acknowledged.archived, id)
  await archived()
  // The disk is lost, with the database running.
  process.kill(server.cluster.pid() ?? 0, 'SIGKILL')
  rmSync(server.cluster.data, { recursive: true, force: true })
}, 120_000)
afterAll(async () => {
  await server.close().catch(() => undefined)
  rmSync(REPOSITORY, { recursive: true, force: true })
  rmSync(KEPT, { force: true })
})

describe('a lost disk', () => {
  it('loses no acknowledged entry that was archived, and what comes back is what was sealed', async () => {
    const { entries, faults, altered } = await restored('backup-back')
    expect([acknowledged.whole.length, acknowledged.archived.length]).toEqual([5, 5])
    expect([...acknowledged.whole, ...acknowledged.archived].filter((id) => !entries.has(id))).toEqual([])
    expect([faults, altered]).toEqual([[], []])
  }, 60_000)
  it('comes back as it was at a moment before', async () => {
    const { entries } = await restored('backup-earlier', between)
    expect(acknowledged.whole.filter((id) => !entries.has(id))).toEqual([])
    expect(acknowledged.archived.filter((id) => entries.has(id))).toEqual([])
  }, 60_000)
  it('leaves backups that nobody reads without the key', () => {
    const kept = JSON.parse(readFileSync(KEPT, 'utf8')) as Record<string, string>
    expect(kept.backup).toMatch(/^[0-9a-f]{64}$/)
    writeFileSync(KEPT, JSON.stringify({ ...kept, backup: '0'.repeat(64) }))
    return expect(restored('backup-keyless')).rejects.toThrow(/pgbackrest restore failed/)
  })
})
