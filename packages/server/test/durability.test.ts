import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FindingEntry } from '@kneecap-awl/core'
import pg from 'pg'
import { asSite, connect, isLostDatabase } from '../src/db/connect.js'
import { v7 as uuid7 } from 'uuid'
import { newCluster, ROOT, type Cluster } from './database.js'

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

describe('an acknowledged entry', () => {
  it('survives kill -9 of the server in the middle of an examination', async () => {
    const id = await begin()
    const acknowledged: string[] = []
    for (const item of ITEMS) {
      const one = entry(item, '1')
      const answer = await call('POST', `/api/examinations/${id}/entries`, { entries: [one] })
      if (answer.status === 200) acknowledged.push(one.id)
    }
    server.kill('SIGKILL')
    await new Promise((resolve) => server.once('exit', resolve))
    await launch()
    const stored = (await call('GET', `/api/examinations/${id}`)).json.entries as FindingEntry[]
    expect(acknowledged).toHaveLength(ITEMS.length)
    for (const one of acknowledged) expect(stored.map((s) => s.id)).toContain(one)
  })

  it('survives kill -9 of the database in the middle of batches, and the server says 503 meanwhile', async () => {
    const id = await begin()
    const acknowledged: string[] = []
    const refused: number[] = []
    const sending = (async () => {
      for (let round = 0; round < 60; round++) {
        const batch = ITEMS.map((item) => entry(item, String(round % 4)))
        const answer = await call('POST', `/api/examinations/${id}/entries`, { entries: batch })
        if (answer.status === 200) acknowledged.push(...batch.map((one) => one.id))
        else refused.push(answer.status)
        if (round === 15) process.kill(cluster.pid() ?? 0, 'SIGKILL')
      }
    })()
    await sending
    expect(acknowledged.length).toBeGreaterThan(0)
    expect(refused.length).toBeGreaterThan(0)
    expect(new Set(refused)).toEqual(new Set([503]))
    await new Promise((resolve) => setTimeout(resolve, 1500))
    await cluster.start()
    const again = await call('GET', `/api/examinations/${id}`)
    expect(again.status).toBe(200)
    const stored = new Set((again.json.entries as FindingEntry[]).map((one) => one.id))
    expect(acknowledged.filter((one) => !stored.has(one))).toEqual([])
  })
})
