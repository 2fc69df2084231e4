#!/usr/bin/env node
// npm run failover: the primary of three database nodes is killed under load, again and again: nothing acknowledged may be lost or doubled.
import { spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { chownSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import pg from 'pg'
import { ROOT, Stop, freePort, say, sleep, step } from './lib/run.mjs'
import { installDebian, installNpm } from './lib/install.mjs'
import { Machines, until } from './lib/machines.mjs'
import { verifyCopy } from './lib/verifyCopy.mjs'

const { values: options } = parseArgs({ options: { kills: { type: 'string', default: '20' }, writers: { type: 'string', default: '6' } } })
const KILLS = Number(options.kills)
const WRITERS = Number(options.writers)
const ITEMS = ['knee.feel.calf', 'knee.feel.fibular-head', 'knee.feel.tibial-condyles', 'knee.feel.femoral-condyles', 'knee.feel.patella-facets']

/** What devices do: each examines a patient, and sends every batch until it is acknowledged. */
class Devices {
  acknowledged = new Map()
  answers = new Map()
  last = Date.now()
  longest = 0
  isOver = false

  constructor(base) {
    this.base = base
  }

  async ask(method, path, body) {
    const response = await fetch(`${this.base}${path}`, {
      method,
      headers: { ...(body ? { 'content-type': 'application/json' } : {}), cookie: this.cookie ?? '' },
      ...(body ? { body: JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(15_000),
    }).catch(() => undefined)
    const status = response?.status ?? 0
    this.answers.set(status, (this.answers.get(status) ?? 0) + 1)
    return { status, cookie: response?.headers.get('set-cookie'), json: await response?.json().catch(() => ({})) }
  }

  async signIn() {
    const { cookie } = await this.ask('POST', '/api/session', { signIn: 'brannock', password: 'harbour-light' })
    if (!cookie) throw new Stop('Nobody could sign in.')
    this.cookie = cookie.split(';')[0]
  }

  run(count) {
    this.writers = Array.from({ length: count }, (_, n) => this.write(n))
  }
  async write(n) {
    const patient = { name: `Tern ${'ABCDEFGHIJKLMNOPQRSTUVWXYZ'[n]}lder`, birthDate: '1970-01-01', isNew: true }
    let examination
    while (!examination)
      examination = (await this.ask('POST', '/api/examinations', { patient, region: 'knee', sides: ['right'], setting: 'emergency' })).json?.id
    for (let round = 0; !this.isOver; round++) {
      const at = new Date().toISOString()
      const entries = ITEMS.slice(0, 1 + (round % ITEMS.length)).map((item) => ({
        ...{ id: randomUUID(), item, side: 'right', state: 'examined' },
        ...{ value: String(round % 4), by: 'device', at },
      }))
      for (let status = 0; status !== 200;) {
        status = (await this.ask('POST', `/api/examinations/${examination}/entries`, { entries })).status
        // What is not acknowledged when it ends is no promise.
        if (status !== 200 && this.isOver) return
        if (status !== 200) await sleep(100)
      }
      const now = Date.now()
      this.longest = Math.max(this.longest, now - this.last)
      this.last = now
      for (const { id } of entries) this.acknowledged.set(id, examination)
      await sleep(20)
    }
  }
  async end() {
    this.isOver = true
    await Promise.all(this.writers)
  }
}

const query = async (url, sql) => {
  const db = new pg.Client({ connectionString: url })
  await db.connect()
  try {
    return (await db.query(sql)).rows
  } finally {
    await db.end()
  }
}
const seconds = (ms) => (ms / 1000).toFixed(1)

/** Kills the primary and brings it back once another leads. @returns how long nothing was acknowledged, and until all three stood again */
async function killPrimary(machines, devices) {
  const before = devices.acknowledged.size
  await until('the devices record', () => devices.acknowledged.size > before + 30)
  const primary = await machines.primary()
  devices.longest = 0
  const killed = Date.now()
  await machines.killNode(primary)
  await until('something is acknowledged again', () => devices.last > killed + 1500 && devices.longest > 1000)
  const quiet = devices.longest
  const back = Date.now()
  machines.startNode(primary)
  await until('three nodes stand again', () => machines.isWhole(), 120_000)
  return { quiet, whole: Date.now() - back, was: primary, is: await machines.primary() }
}

/** @throws Stop with what is lost, doubled or altered */
async function check(machines, devices) {
  const rows = await query(machines.ownerUrl, "select body ->> 'id' as id, examination_id as examination, count(*)::int as count from entry group by 1, 2")
  const stored = new Map(rows.map(({ id, examination }) => [id, examination]))
  const lost = [...devices.acknowledged].filter(([id, examination]) => stored.get(id) !== examination)
  const doubled = rows.filter(({ count }) => count > 1)
  say(`acknowledged ${devices.acknowledged.size}, lost ${lost.length}, doubled ${doubled.length}`)
  if (lost.length + doubled.length > 0) throw new Stop('What was acknowledged must be there, once.')
  for (const a of ['a1', 'a2'])
    say(`noted by ${a}: ${verifyCopy({ ownerUrl: machines.ownerUrl, auditKey: machines.secrets.audit, anchors: machines.anchorsOf(a) })}`)
  const sums = "select count(*)::int as entries, md5(string_agg(id::text || body::text, '' order by id)) as sum from entry"
  const [first] = await query(machines.ownerUrl, sums)
  for (const n of ['n1', 'n2', 'n3'])
    await until(`${n} holds the same`, async () => {
      const [one] = await query(machines.nodeUrl(n), sums).catch(() => [])
      return one?.sum === first.sum && one.entries === first.entries
    })
  say(`all three nodes hold the same ${first.entries} entries`)
  return first
}

/** Restores what was archived across all those changes into a database of its own. */
async function checkBackup(machines, expected) {
  const primary = await machines.primary()
  machines.pgbackrest(primary, 'backup', ['--type=full'])
  await query(machines.ownerUrl, 'select pg_switch_wal()')
  const { uid, gid } = machines.postgres
  const data = join(machines.folder, 'restored')
  mkdirSync(data, { mode: 0o700 })
  if (uid !== undefined) chownSync(data, uid, gid)
  machines.pgbackrest(primary, 'restore', [`--pg1-path=${data}`, '--type=immediate', '--target-action=promote'])
  const port = await freePort()
  const ctl = (command, settings = []) =>
    spawnSync(join(machines.bin, 'pg_ctl'), ['-D', data, '-w', '-t', '60', '-l', join(data, 'server.log'), ...settings, command], {
      ...machines.postgres,
      cwd: '/',
    })
  const given = `-c port=${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=${data} -c archive_mode=off -c hba_file=${data}/pg_hba.conf -c ident_file=${data}/pg_ident.conf -c synchronous_standby_names=`
  if (ctl('start', ['-o', given]).status !== 0) throw new Stop(`The restored database does not start: ${data}/server.log`)
  try {
    const ownerUrl = machines.nodeUrl('n1').replace(`:${machines.ports.n1}/`, `:${port}/`)
    const [{ entries }] = await query(ownerUrl, 'select count(*)::int as entries from entry')
    say(`restored from the archive: ${entries} entries. ${verifyCopy({ ownerUrl, auditKey: machines.secrets.audit, anchors: machines.anchorsOf('a1') })}`)
    if (entries !== expected.entries) throw new Stop('The restored database does not hold what there was.')
  } finally {
    ctl('stop', ['-m', 'immediate'])
  }
}

async function main() {
  await step('Debian packages', () => installDebian({ cluster: true, backups: true }))
  await step('npm packages', () => installNpm())
  const { buildPack, buildServer, buildWeb } = await import('./lib/build.mjs')
  for (const build of [buildServer, buildPack, buildWeb]) build()
  const machines = new Machines(join(ROOT, '.test', 'failover'))
  let isEnding = false
  const end = async (code) => {
    if (isEnding) return
    isEnding = true
    await machines.stop()
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void end(1))
  try {
    await step('three nodes, etcd, HAProxy, PgBouncer', () => machines.start())
    await step('two servers', () => machines.startServers())
    machines.pgbackrest(await machines.primary(), 'stanza-create')
    machines.pgbackrest(await machines.primary(), 'check')
    const devices = new Devices(machines.application)
    await devices.signIn()
    devices.run(WRITERS)
    const quiet = []
    for (let kill = 1; kill <= KILLS; kill++) {
      const one = await killPrimary(machines, devices)
      quiet.push(one.quiet)
      say(
        `kill ${String(kill).padStart(2)}: ${one.was} → ${one.is}, ${seconds(one.quiet)} s without writing, whole again ${seconds(one.whole)} s after it came back`,
      )
    }
    await devices.end()
    quiet.sort((a, b) => a - b)
    say(`\nwithout writing, of ${KILLS} kills: median ${seconds(quiet[Math.floor(quiet.length / 2)])} s, worst ${seconds(quiet.at(-1))} s`)
    say(`answers: ${[...devices.answers].map(([status, count]) => `${status || 'none'} ${count}`).join(', ')}`)
    const held = await check(machines, devices)
    await checkBackup(machines, held)
    await end(0)
  } catch (error) {
    say(error instanceof Stop ? error.message : error.stack)
    await end(1)
  }
}
await main()
