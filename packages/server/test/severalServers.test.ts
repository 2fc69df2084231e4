import type { AddressInfo } from 'node:net'
import { setTimeout as sleep } from 'node:timers/promises'
import type { Change } from '@kneecap-awl/contract'
import type { FastifyInstance } from 'fastify'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { v7 as uuid7 } from 'uuid'
import { buildApp } from '../src/app.js'
import { sealWith } from '../src/audit/queries.js'
import { asSite, connect, isLostDatabase } from '../src/db/connect.js'
import { DEMO_PASSWORD } from '../src/demo/load.js'
import { judgingThreads } from '../src/judging/threads.js'
import { Changes } from '../src/live/changes.js'
import { PackStore } from '../src/packs/service.js'
import { otherSite, type OtherSite } from './otherSite.js'
import { entry, newServer, type Server } from './server.js'

let server: Server
let other: OtherSite
let second: FastifyInstance
let secondPool: pg.Pool
const judges: { close: () => Promise<void> }[] = []
const logged: string[] = []
beforeAll(async () => {
  server = await newServer('several')
  other = await otherSite(server)
  const { appUrl } = await server.cluster.start()
  secondPool = connect(appUrl, () => undefined)
  sealWith(secondPool, server.sealer)
  const judge = judgingThreads(server.pack)
  judges.push(judge)
  second = await buildApp({ pool: secondPool, packStore: new PackStore(server.pack, judge), changes: new Changes(appUrl, (line) => logged.push(line)) })
  await second.listen({ host: '127.0.0.1', port: 0 })
})
afterAll(async () => {
  await second.close()
  for (const judge of judges) await judge.close()
  await secondPool.end()
  await server.close()
})

const site = async (id: string): Promise<string> =>
  (await server.owner.query<{ site: string }>('select site_id as site from examination where id = $1', [id])).rows[0]?.site ?? ''

/** Listens to the second server. @returns what was heard so far, and whether it has ended */
async function listening(cookie?: string) {
  const at = `http://127.0.0.1:${(second.server.address() as AddressInfo).port}`
  const entered = await fetch(`${at}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ signIn: 'quill', password: DEMO_PASSWORD }),
  })
  const own = cookie ?? entered.headers.get('set-cookie')?.split(';')[0] ?? ''
  const stop = new AbortController()
  const answer = await fetch(`${at}/api/live`, { headers: { cookie: own }, signal: stop.signal })
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'text/event-stream'])
  const heard: Change[] = []
  const state = { isOver: false }
  const read = async (): Promise<void> => {
    const decoder = new TextDecoder()
    for await (const chunk of answer.body as unknown as AsyncIterable<Uint8Array>)
      for (const [, data = ''] of decoder.decode(chunk, { stream: true }).matchAll(/^data: (.*)$/gm)) heard.push(JSON.parse(data) as Change)
  }
  void read()
    .catch(() => undefined)
    .then(() => (state.isOver = true))
  const signOut = () => fetch(`${at}/api/session`, { method: 'DELETE', headers: { cookie: own } })
  return { heard, state, signOut, end: () => stop.abort() }
}

describe('two servers on one database', () => {
  it('tell each other what changed, by ids alone, and nothing of another site', async () => {
    const live = await listening()
    await vi.waitFor(() => expect(live.heard).toEqual([{ what: 'all' }]))
    const id = await server.begin()
    await server.record(id, entry('knee.feel.calf', '1', { side: 'right' }))
    await vi.waitFor(() => expect(live.heard).toContainEqual({ what: 'examination', id }))
    await vi.waitFor(() => expect(live.heard.filter((one) => one.what === 'entries' && one.id === id).at(-1)?.entries).toBeGreaterThan(0))
    // The range follows once nothing more is recorded, from whichever server took it.
    await vi.waitFor(() => expect(live.heard).toContainEqual({ what: 'range', id }), { timeout: 20_000 })
    const theirs = await server.call('POST', '/api/patients', { name: 'Hester Dabchick', birthDate: '1971-01-02' }, other.clinician)
    expect(theirs.statusCode).toBe(201)
    await sleep(600)
    expect(JSON.stringify(live.heard)).not.toContain(theirs.json<{ id: string }>().id)
    expect(live.heard.every((one) => Object.keys(one).every((key) => ['what', 'id', 'entries'].includes(key)))).toBe(true)
    live.end()
  })
  it('end what is heard with the session, and are heard again after the connection was lost', async () => {
    const live = await listening()
    await vi.waitFor(() => expect(live.heard).toHaveLength(1))
    await server.owner.query("select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen awl_changed' or query = 'select 1'")
    await vi.waitFor(() => expect(logged.join()).toContain('changes are not heard'))
    await vi.waitFor(() => expect(live.heard.filter(({ what }) => what === 'all')).toHaveLength(2), { timeout: 20_000 })
    const id = await server.begin()
    await vi.waitFor(() => expect(live.heard).toContainEqual({ what: 'examination', id }))
    expect(live.state.isOver).toBe(false)
    await live.signOut()
    await vi.waitFor(() => expect(live.state.isOver).toBe(true), { timeout: 20_000 })
  }, 40_000)
})

describe('the queue of ranges', () => {
  const claim = async (): Promise<readonly { examination: string; due: string }[]> =>
    (await server.pool.query<{ examination: string; due: string }>('select * from claim_range_jobs(100)')).rows
  it('is worked off without anybody asking for a list', async () => {
    const id = await server.begin()
    await server.record(id, entry('vascular.pulse-dorsalis-pedis', 'absent', { side: 'right' }))
    const kept = async () => (await server.owner.query<{ floor: string }>('select floor from standing_range where examination_id = $1', [id])).rows
    await vi.waitFor(async () => expect(await kept()).toEqual([{ floor: 'today' }]), { timeout: 20_000 })
    await vi.waitFor(async () => expect((await server.owner.query('select 1 from range_job where examination_id = $1', [id])).rowCount).toBe(0))
  })
  it('gives a job to one server, gives that of a server that died to another, and gives up what failed three times', async () => {
    const id = await server.begin()
    // Due now, and taken by hands of our own before a server looks.
    const owner = await server.owner.connect()
    await owner.query('begin')
    await owner.query("update range_job set due_at = now() - interval '1 hour', claimed_until = now() + interval '1 minute' where examination_id = $1", [id])
    await owner.query('commit')
    owner.release()
    expect((await claim()).map(({ examination }) => examination)).not.toContain(id)
    const died = "update range_job set claimed_until = now() - interval '1 second', tries = $2 where examination_id = $1"
    await server.owner.query(died, [id, 3])
    expect((await claim()).map(({ examination }) => examination)).not.toContain(id)
    await server.owner.query(died, [id, 1])
    await vi.waitFor(async () => expect((await server.owner.query('select 1 from range_job where examination_id = $1', [id])).rowCount).toBe(0), {
      timeout: 20_000,
    })
  })
  it('keeps a job for which something was recorded while it was worked out', async () => {
    const id = await server.begin()
    await server.pool.query("select finish_range_job($1, '2020-01-01T00:00:00Z')", [id])
    expect((await server.owner.query('select 1 from range_job where examination_id = $1', [id])).rowCount).toBe(1)
  })
})

describe('a unit of work', () => {
  it('that a lost connection interrupts is done again, and stored once', async () => {
    const id = await server.begin()
    let tries = 0
    const patient = await asSite(server.pool, await site(id), async (db) => {
      tries++
      const { rows } = await db.query<{ pid: number; patient: string }>(
        'select pg_backend_pid() as pid, patient_id as patient from examination where id = $1',
        [id],
      )
      if (tries === 1) await server.owner.query('select pg_terminate_backend($1)', [rows[0]?.pid])
      await db.query("update patient set contact = 'the lighthouse' where id = $1", [rows[0]?.patient])
      return rows[0]?.patient
    })
    expect(tries).toBe(2)
    expect((await server.owner.query('select contact from patient where id = $1', [patient])).rows).toEqual([{ contact: 'the lighthouse' }])
  })
  it('that stands on one machine alone, because the wait for the other was cancelled, is not acknowledged', async () => {
    const id = await server.begin()
    const home = await site(id)
    await server.owner.query("alter system set synchronous_standby_names = 'gull'")
    await server.owner.query('select pg_reload_conf()')
    const asked = asSite(server.pool, home, (db) => db.query("update patient set contact = 'the quay' where site_id = $1", [home])).catch(
      (error: unknown) => error,
    )
    const waits = "select pid from pg_stat_activity where wait_event = 'SyncRep' and query = 'commit'"
    const pid = await vi.waitFor(async () => {
      const { rows } = await server.owner.query<{ pid: number }>(waits)
      expect(rows).toHaveLength(1)
      return rows[0]?.pid
    })
    await server.owner.query('select pg_cancel_backend($1)', [pid])
    const error = await asked
    expect(isLostDatabase(error)).toBe(true)
    expect(String(error)).toContain('on one machine alone')
    await server.owner.query('alter system reset synchronous_standby_names')
    await server.owner.query('select pg_reload_conf()')
  })
})

describe('an examination that is begun twice because no answer came', () => {
  it('is one', async () => {
    const begin = { id: uuid7(), patient: { name: 'Rhona Turnstone', birthDate: '1981-05-05' }, region: 'knee', sides: ['right'], setting: 'emergency' }
    const answers = [await server.call('POST', '/api/examinations', begin), await server.call('POST', '/api/examinations', begin)]
    expect(answers.map((answer) => [answer.statusCode, answer.json<{ id: string }>().id])).toEqual([
      [201, begin.id],
      [201, begin.id],
    ])
    expect((await server.owner.query("select 1 from patient where name = 'Rhona Turnstone'")).rowCount).toBe(1)
  })
})
