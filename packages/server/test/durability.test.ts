import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FindingEntry } from '@kneecap-awl/core'
import pg from 'pg'
import { verifyAudit } from '../src/audit/queries.js'
import { Sealer } from '../src/audit/seal.js'
import { asSite, connect, isLostDatabase } from '../src/db/connect.js'
import { v7 as uuid7 } from 'uuid'
import { newCluster, ROOT, type Cluster } from './database.js'

const sleep = (ms: number): Promise<void> => new Promise((wake) => setTimeout(wake, ms))

let cluster: Cluster
let server: ChildProcess
let urls: Awaited<ReturnType<Cluster['start']>>
let cookie = ''
const PORT = 20_000 + (process.pid % 20_000)
const base = `http://127.0.0.1:${PORT}`

const environment = (): NodeJS.ProcessEnv => ({
  ...process.env,
  AWL_APP_URL: urls.appUrl,
  AWL_AUDIT_KEY: urls.auditKey,
  AWL_ANCHORS: urls.anchors,
  AWL_PORT: String(PORT),
  AWL_DEMO: 'yes',
})
const built = (file: string): string => join(ROOT, 'packages/server/dist', file)

async function launch(): Promise<void> {
  server = spawn(process.execPath, [built('main.js')], { env: environment(), stdio: ['ignore', 'pipe', 'inherit'] })
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on('data', (chunk) => /^ready /m.test(String(chunk)) && resolve())
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)))
  })
  server.removeAllListeners('exit')
}
const call = async (method: string, path: string, body?: object): Promise<{ status: number; json: Record<string, unknown> }> => {
  const response = await fetch(`${base}${path}`, {
    method,
    headers: { ...(body ? { 'content-type': 'application/json' } : {}), cookie },
    ...(body ? { body: JSON.stringify(body) } : {}),
  })
  const setCookie = response.headers.get('set-cookie')
  if (setCookie) cookie = setCookie.split(';')[0] ?? ''
  return { status: response.status, json: (await response.json()) as Record<string, unknown> }
}
const begin = async (): Promise<string> => {
  const { json } = await call('POST', '/api/examinations', {
    patient: { name: 'Piers Dunlin', birthDate: '1970-01-01', isNew: true },
    region: 'knee',
    sides: ['right'],
    setting: 'emergency',
  })
  return String(json.id)
}
const entry = (item: string, value: string): FindingEntry => ({
  id: uuid7(),
  item,
  side: 'right',
  state: 'examined',
  value,
  by: 'test',
  at: new Date().toISOString(),
})
const ITEMS = ['knee.feel.calf', 'knee.feel.fibular-head', 'knee.feel.tibial-condyles', 'knee.feel.femoral-condyles', 'knee.feel.patella-facets']

beforeAll(async () => {
  cluster = await newCluster('durability')
  urls = await cluster.start()
  const prepared = spawnSync(process.execPath, [built('commands/prepare.js')], { env: { ...environment(), AWL_OWNER_URL: urls.ownerUrl }, encoding: 'utf8' })
  expect(prepared.stderr).toBe('')
  await launch()
  await call('POST', '/api/session', { signIn: 'brannock', password: 'harbour-light' })
})
afterAll(() => {
  server.kill('SIGKILL')
  cluster.remove()
})

describe('a lost connection', () => {
  it('between two statements fails that request as a lost database, and the server lives on', async () => {
    const heard: string[] = []
    const pool = connect(urls.appUrl, (message) => heard.push(message))
    const owner = new pg.Client({ connectionString: urls.ownerUrl })
    await owner.connect()
    const request = asSite(pool, 'saltgate', async (db) => {
      const { rows } = await db.query<{ pid: number }>('select pg_backend_pid() as pid')
      await owner.query('select pg_terminate_backend($1)', [rows[0]?.pid])
      await new Promise((resolve) => setTimeout(resolve, 300))
      await db.query('select 1')
    })
    const error: unknown = await request.catch((thrown: unknown) => thrown)
    expect(isLostDatabase(error)).toBe(true)
    expect(heard.join()).toContain('database connection lost')
    await expect(pool.query('select 1')).resolves.toMatchObject({ rowCount: 1 })
    await pool.end()
    await owner.end()
  })
})

/** So many in every run of the tests; a night runs 200 (`AWL_KILLS`). */
const KILLS = Number(process.env.AWL_KILLS ?? 20)
const WRITERS = 4

describe(`${KILLS} kills of server and database by turns, under load`, () => {
  it(
    'lose no acknowledged entry and double none; whoever waits is told 503, or finds nobody there',
    async () => {
      const acknowledged = new Set<string>()
      const answers = new Map<number, number>()
      let over = false
      const isOver = (): boolean => over
      /** As a device does: an examination, and batches that are sent again until they are acknowledged. */
      const writer = async (): Promise<void> => {
        let id = ''
        for (let round = 0; !isOver(); round++) {
          id ||= await begin().catch(() => '')
          if (id === '' || id === 'undefined') {
            id = ''
            await sleep(100)
            continue
          }
          const batch = ITEMS.map((item) => entry(item, String(round % 4)))
          while (!isOver()) {
            const status = await call('POST', `/api/examinations/${id}/entries`, { entries: batch }).then(
              (answer) => answer.status,
              () => 0,
            )
            answers.set(status, (answers.get(status) ?? 0) + 1)
            if (status === 200) {
              for (const one of batch) acknowledged.add(one.id)
              break
            }
            await sleep(50)
          }
        }
      }
      const writers = Array.from({ length: WRITERS }, writer)
      for (let kill = 0; kill < KILLS; kill++) {
        const before = acknowledged.size
        while (acknowledged.size < before + 20) await sleep(20)
        if (kill % 2 === 0) {
          server.kill('SIGKILL')
          await new Promise((resolve) => server.once('exit', resolve))
          await launch()
        } else {
          process.kill(cluster.pid() ?? 0, 'SIGKILL')
          await sleep(300)
          await cluster.start()
        }
      }
      over = true
      await Promise.all(writers)
      const owner = new pg.Client({ connectionString: urls.ownerUrl })
      await owner.connect()
      const { rows } = await owner.query<{ id: string; count: number }>("select body ->> 'id' as id, count(*)::int as count from entry group by 1")
      const chain = await verifyAudit(owner, new Sealer(urls.auditKey, urls.anchors))
      await owner.end()
      const stored = new Map(rows.map(({ id, count }) => [id, count]))
      expect([...acknowledged].filter((id) => !stored.has(id))).toEqual([])
      expect(rows.filter(({ count }) => count > 1)).toEqual([])
      expect(acknowledged.size).toBeGreaterThan(KILLS * 20)
      // Nothing but a success, "later", and no answer at all.
      expect([...answers.keys()].filter((status) => ![0, 200, 503].includes(status))).toEqual([])
      expect(chain.faults).toEqual([])
    },
    KILLS * 20_000,
  )
})
