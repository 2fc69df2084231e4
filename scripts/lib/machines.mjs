// Three database nodes, etcd, HAProxy, PgBouncer and two servers on loopback, from the very files under deploy/: what a site would spread over machines.
import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { chmodSync, chownSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { NODE_FLAGS, ROOT, Stop, freePort, run, sleep } from './run.mjs'
import { postgresBin } from './install.mjs'
import { Cluster, runAs } from './postgres.mjs'

const HOST = '127.0.0.1'
const NODES = ['n1', 'n2', 'n3']
const SERVERS = ['a1', 'a2']
/** Below the ports that a kernel hands out by itself, which another program may hold just then. */
const FIRST_PORT = 21_000
const PATIENCE_MS = 60_000

/** A file of deploy/ with its names between @ filled in. @throws Stop for one that nothing was said of */
function filled(name, values) {
  return readFileSync(join(ROOT, 'deploy', name), 'utf8').replaceAll(/@([A-Z0-9_]+)@/g, (_, key) => {
    if (values[key] === undefined) throw new Stop(`deploy/${name} asks for ${key}, of which nothing is said.`)
    return String(values[key])
  })
}

/** Waits until something is so. @throws Stop that says what was waited for */
export async function until(what, isSo, patience = PATIENCE_MS) {
  for (const end = Date.now() + patience; Date.now() < end; await sleep(100)) if (await isSo()) return
  throw new Stop(`Waited ${patience / 1000} s in vain: ${what}.`)
}

const ask = async (url, init = {}) => fetch(url, { ...init, signal: AbortSignal.timeout(2000) })

export class Machines {
  processes = new Map()
  secrets = Object.fromEntries(['owner', 'app', 'replication', 'rewind', 'audit', 'backup'].map((name) => [name, randomBytes(24).toString('hex')]))

  /** @param folder of everything they keep; it is emptied */
  constructor(folder) {
    this.folder = folder
    this.bin = postgresBin()
    this.postgres = runAs('postgres')
    rmSync(folder, { recursive: true, force: true })
    new Cluster(folder).checkFolders()
    this.own(folder, this.postgres, 0o711)
  }

  own(path, { uid, gid }, mode) {
    mkdirSync(path, { recursive: true })
    if (uid !== undefined) chownSync(path, uid, gid)
    chmodSync(path, mode)
    return path
  }
  /** Writes a file that one user alone reads. @returns its path */
  write(name, text, { uid, gid } = {}) {
    const path = join(this.folder, name)
    writeFileSync(path, text, { mode: 0o600 })
    if (uid !== undefined) chownSync(path, uid, gid)
    return path
  }
  /** Starts a program that ends with this process. */
  launch(name, command, args, user = {}, env = {}) {
    const log = openSync(join(this.folder, `${name}.log`), 'a')
    const child = spawn(command, args, {
      ...user,
      cwd: '/',
      stdio: ['ignore', log, log],
      env: { PATH: `${this.bin}:/usr/sbin:/usr/bin:/bin`, HOME: this.folder, LANG: 'C.UTF-8', ...env },
    })
    this.processes.set(name, child)
    return child
  }
  /** Ends a program at once, as a machine does that loses its power. */
  async kill(name, signal = 'SIGKILL') {
    const child = this.processes.get(name)
    this.processes.delete(name)
    if (!child || child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill(signal)
    await gone
  }

  async choosePorts() {
    const names = [...NODES, ...NODES.map((n) => `${n}.rest`), ...NODES.flatMap((n) => [`${n}.etcd`, `${n}.peer`]), 'write', 'pool', 'application', ...SERVERS]
    const ports = {}
    let port = FIRST_PORT + (process.pid % 9000)
    for (const name of names) {
      for (let isFree = false; !isFree;) {
        port++
        isFree = await freePort(port).then(
          () => true,
          () => false,
        )
      }
      ports[name] = port
    }
    this.ports = ports
  }

  get writeUrl() {
    return (user, password) => `postgres://${user}:${password}@${HOST}:${this.ports.write}/postgres`
  }
  get ownerUrl() {
    return this.writeUrl('postgres', this.secrets.owner)
  }
  get application() {
    return `http://${HOST}:${this.ports.application}`
  }

  async start() {
    await this.choosePorts()
    const { ports } = this
    const etcd = runAs('etcd')
    const members = NODES.map((n) => `${n}=http://${HOST}:${ports[`${n}.peer`]}`).join(',')
    for (const n of NODES) {
      const about = {
        NAME: n,
        HOST,
        CLIENT_PORT: ports[`${n}.etcd`],
        PEER_PORT: ports[`${n}.peer`],
        MEMBERS: members,
        DATA: this.own(join(this.folder, `etcd-${n}`), etcd, 0o700),
      }
      this.launch(`etcd-${n}`, 'etcd', ['--config-file', this.write(`etcd-${n}.yml`, filled('etcd.yml', about), etcd)], etcd)
    }
    await until('etcd has a leader', async () => (await this.etcdHealth()) === 'true')
    for (const n of NODES) this.startNode(n)
    await until('three database nodes follow each other', () => this.isWhole(), 120_000)
    this.startProxies()
    await until('HAProxy leads to the primary', () => this.canWrite())
  }

  async etcdHealth() {
    return ask(`http://${HOST}:${this.ports['n1.etcd']}/health`).then(
      async (answer) => (await answer.json()).health,
      () => 'no',
    )
  }

  /** Patroni and its PostgreSQL; of a node that is there already it takes up what it finds. */
  startNode(n) {
    const { ports, secrets, postgres } = this
    const data = this.own(join(this.folder, n), postgres, 0o700)
    const backrest = {
      REPOSITORY: this.own(join(this.folder, 'repository'), postgres, 0o700),
      BACKUP_KEY: secrets.backup,
      SPOOL: data,
      DATA: data,
      PORT: ports[n],
    }
    const about = {
      NAME: n,
      HOST,
      REST_PORT: ports[`${n}.rest`],
      PORT: ports[n],
      ETCD: NODES.map((one) => `${HOST}:${ports[`${one}.etcd`]}`).join(','),
      DATA: data,
      BIN: this.bin,
      NETWORK: `${HOST}/32`,
      BACKREST: this.write(`${n}-pgbackrest.conf`, filled('pgbackrest.conf', backrest), postgres),
      OWNER_PASSWORD: secrets.owner,
      REPLICATION_PASSWORD: secrets.replication,
      REWIND_PASSWORD: secrets.rewind,
    }
    this.launch(n, 'patroni', [this.write(`${n}.yml`, filled('patroni.yml', about), postgres)], postgres)
  }

  startProxies() {
    const { ports, secrets, postgres } = this
    const haproxy = runAs('haproxy')
    const at = (name) => `${HOST}:${ports[name]}`
    const about = { WRITE_BIND: at('write'), APPLICATION_BIND: at('application') }
    for (const n of NODES) Object.assign(about, { [n.toUpperCase()]: at(n), [`${n.toUpperCase()}_REST`]: ports[`${n}.rest`] })
    for (const a of SERVERS) about[a.toUpperCase()] = at(a)
    this.launch('haproxy', 'haproxy', ['-db', '-f', this.write('haproxy.cfg', filled('haproxy.cfg', about), haproxy)], haproxy)
    const users = this.write('users.txt', `"awl_app" "${secrets.app}"\n`, postgres)
    const pool = {
      WRITE_HOST: HOST,
      WRITE_PORT: ports.write,
      HOST,
      PORT: ports.pool,
      USERS: users,
      LOG: join(this.folder, 'pool.log'),
      PID: join(this.folder, 'pool.pid'),
    }
    this.write('pool.log', '', postgres)
    this.launch('pgbouncer', 'pgbouncer', [this.write('pgbouncer.ini', filled('pgbouncer.ini', pool), postgres)], postgres)
  }

  environment(a) {
    const { ports, secrets } = this
    return {
      AWL_APP_URL: `postgres://awl_app:${secrets.app}@${HOST}:${ports.pool}/postgres`,
      AWL_LISTEN_URL: this.writeUrl('awl_app', secrets.app),
      AWL_AUDIT_KEY: secrets.audit,
      AWL_ANCHORS: this.anchorsOf(a),
      AWL_PORT: String(ports[a]),
      AWL_TRUST_PROXY: HOST,
      AWL_REQUESTS_PER_MINUTE: '1000000',
    }
  }
  anchorsOf(a) {
    return join(this.folder, `${a}-anchors.jsonl`)
  }

  /** Tables, pack and demonstration through the primary, then both servers. */
  async startServers() {
    const command = (file) => join(ROOT, 'packages/server/dist', file)
    run(process.execPath, [...NODE_FLAGS, command('commands/prepare.js')], {
      quiet: true,
      env: { ...process.env, ...this.environment('a1'), AWL_OWNER_URL: this.ownerUrl },
    })
    for (const a of SERVERS) this.launch(a, process.execPath, [...NODE_FLAGS, command('main.js')], {}, this.environment(a))
    for (const a of SERVERS) await this.answers(`server ${a}`, this.ports[a])
    await this.answers('HAProxy', this.ports.application)
  }
  answers(what, port) {
    return until(`${what} answers`, () =>
      ask(`http://${HOST}:${port}/api/health`).then(
        ({ ok }) => ok,
        () => false,
      ),
    )
  }

  /** The nodes as Patroni knows them: name, role, state and timeline. */
  async members() {
    for (const n of NODES) {
      const answer = await ask(`http://${HOST}:${this.ports[`${n}.rest`]}/cluster`).catch(() => undefined)
      if (answer?.ok) return (await answer.json()).members
    }
    return []
  }
  async primary() {
    return (await this.members()).find(({ role }) => role === 'leader')?.name
  }
  /** Whether one leads, two follow, and one of them is waited for. */
  async isWhole() {
    const members = await this.members()
    const states = members.map(({ state }) => state)
    return (
      members.length === 3 &&
      states.every((state) => ['running', 'streaming'].includes(state)) &&
      members.filter(({ role }) => role === 'leader').length === 1 &&
      members.filter(({ role }) => role === 'sync_standby').length === 1
    )
  }
  async canWrite() {
    const db = new pg.Client({ connectionString: this.ownerUrl, connectionTimeoutMillis: 2000 })
    db.on('error', () => undefined)
    try {
      await db.connect()
      await db.query('create temporary table trial ()')
      return true
    } catch {
      return false
    } finally {
      await db.end().catch(() => undefined)
    }
  }
  nodeUrl(n) {
    return `postgres://postgres:${this.secrets.owner}@${HOST}:${this.ports[n]}/postgres`
  }

  /** Patroni and PostgreSQL of a node, both at once and without a word. */
  async killNode(n) {
    const postmaster = Number(readFileSync(join(this.folder, n, 'data', 'postmaster.pid'), 'utf8').split('\n')[0])
    const gone = this.kill(n)
    process.kill(postmaster, 'SIGKILL')
    await gone
  }

  /** @throws Stop with what pgBackRest says */
  pgbackrest(n, command, args = []) {
    const result = spawnSync('pgbackrest', [`--config=${join(this.folder, `${n}-pgbackrest.conf`)}`, '--stanza=awl', ...args, command], {
      ...this.postgres,
      cwd: '/',
      encoding: 'utf8',
      env: { PATH: process.env.PATH, HOME: '/', LC_ALL: 'C.UTF-8', PGPASSWORD: this.secrets.owner },
    })
    if (result.status !== 0) throw new Stop(`pgbackrest ${command} failed. ${result.stdout}${result.stderr}`)
    return result.stdout
  }

  /** In the order in which nothing is taken for a failure. */
  async stop() {
    const names = [...this.processes.keys()]
    const rank = (name) => ['a', 'p', 'h', 'n', 'e'].indexOf(name[0])
    const leader = await this.primary()
    const order = names.sort((x, y) => rank(x) - rank(y) || Number(x === leader) - Number(y === leader))
    for (const name of order) await this.kill(name, 'SIGTERM')
  }
}
