// Installs what is missing: Debian packages with apt-get, npm packages with npm ci.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
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

/** @returns what was installed, in words */
export function installDebian({ browser = false, backups = false } = {}) {
  const wanted = []
  if (!postgresBin()) wanted.push('postgresql')
  if (browser && !chromium()) wanted.push('chromium')
  if (backups && !existsSync('/usr/bin/pgbackrest')) wanted.push('pgbackrest')
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
  apt(['update'])
  apt(['install', '-y', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', ...wanted])
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
