// Installs what is missing: Debian packages with apt-get, npm packages with npm ci.
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { createHash } from 'node:crypto'
import { ROOT, Stop, run } from './run.mjs'

export function checkNode() {
  const major = Number(process.versions.node.split('.')[0])
  if (major < 20) throw new Stop(`Node 20 or newer is needed; this is ${process.versions.node}.`)
}

/** Folder of PostgreSQL's own programs, the newest that is there. */
export function postgresBin() {
  const base = '/usr/lib/postgresql'
  if (!existsSync(base)) return undefined
  const versions = readdirSync(base)
    .filter((v) => existsSync(join(base, v, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a))
  return versions[0] ? join(base, versions[0], 'bin') : undefined
}

const chromium = () => ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((path) => existsSync(path))

/** How Debian's browser is launched for journeys and pictures: headless, with nothing of its own on the network. */
export const launchOptions = () => ({
  executablePath: chromium(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})

/** What several machines take, by the program that shows that it is there. */
const CLUSTER = {
  '/usr/bin/etcd': 'etcd-server',
  '/usr/bin/patroni': 'patroni',
  '/usr/sbin/haproxy': 'haproxy',
  '/usr/sbin/pgbouncer': 'pgbouncer',
  '/usr/lib/python3/dist-packages/etcd': 'python3-etcd',
  '/usr/lib/python3/dist-packages/psycopg2': 'python3-psycopg2',
}
/** Where Debian asks whether a service may be started that was just installed. */
const POLICY = '/usr/sbin/policy-rc.d'

/** @returns what was installed, in words */
export function installDebian({ browser = false, backups = false, cluster = false } = {}) {
  const wanted = []
  if (!postgresBin()) wanted.push('postgresql')
  if (browser && !chromium()) wanted.push('chromium')
  if (backups && !existsSync('/usr/bin/pgbackrest')) wanted.push('pgbackrest')
  if (cluster) wanted.push(...Object.entries(CLUSTER).flatMap(([path, name]) => (existsSync(path) ? [] : [name])))
  if (wanted.length === 0) return 'there'
  const isRoot = process.getuid() === 0
  const sudo = isRoot ? [] : ['sudo', '-n']
  const apt = (args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args]
    const result = run(command, rest, { quiet: true, may: true, env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } })
    if (result.status !== 0)
      throw new Stop(
        `${wanted.join(' and ')} could not be installed. As root run: apt-get install -y --no-install-recommends ${wanted.join(' ')}\n${result.stderr.split('\n').slice(0, 6).join('\n')}`,
      )
  }
  if (wanted.includes('postgresql') && isRoot) {
    mkdirSync('/etc/postgresql-common', { recursive: true })
    writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n')
  }
  // They are started here, with files of our own: Debian's services of the same programs stay as they are, and off.
  const holdsBack = cluster && isRoot && !existsSync(POLICY)
  if (holdsBack) writeFileSync(POLICY, '#!/bin/sh\nexit 101\n', { mode: 0o755 })
  try {
    apt(['update'])
    apt(['install', '-y', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', ...wanted])
  } finally {
    if (holdsBack) rmSync(POLICY)
  }
  if (cluster && existsSync('/usr/bin/systemctl')) run('systemctl', ['disable', 'etcd', 'patroni', 'haproxy', 'pgbouncer'], { quiet: true, may: true })
  return `installed ${wanted.join(', ')}`
}

/** npm ci, unless node_modules already matches the lock file. */
export function installNpm() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex')
  const stamp = join(ROOT, 'node_modules', '.kneecap-awl-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return 'there'
  run('npm', ['ci', '--no-audit', '--no-fund'], { quiet: true })
  writeFileSync(stamp, lock)
  return 'installed'
}
