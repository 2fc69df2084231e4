#!/usr/bin/env node
// npm start: installs, builds, starts the database and serves everything from one address.
import { existsSync, mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { NODE_FLAGS, ROOT, Stop, freePort, run, say, step } from './lib/run.mjs'
import { checkNode, installDebian, installNpm } from './lib/install.mjs'
import { beginBackups, keepBackups, repositoryOf } from './lib/backups.mjs'
import { Supervisor, endEarlier } from './lib/supervisor.mjs'

const HELP = `npm start -- [--port N] [--fresh] [--no-demo] [--host ADDRESS] [--hosts NAMES] [--cert FILE --key FILE] [--trust-proxy ADDRESSES] [--backups FOLDER]
  --port N                  serve at this port (default 4610, or the next free one)
  --fresh                   throw away the local database first
  --no-demo                 no demonstration: the first administrator gets a one-time code, accounts of a demonstration are disabled
  --host ADDRESS            listen at this address (default 127.0.0.1; any other wants --cert and --key, or --trust-proxy)
  --hosts NAMES             answer to these names too, comma-separated
  --cert FILE --key FILE    serve by TLS with this certificate and its key, PEM
  --trust-proxy ADDRESSES   behind a proxy at these addresses, comma-separated, which ends TLS
  --backups FOLDER          archive every change there from now on, encrypted; a folder on another disk. See npm run backup`

let options = {}

function optionsOf(args) {
  const flag = { type: 'boolean' }
  try {
    const text = { type: 'string' }
    const texts = { port: text, backups: text, host: text, hosts: text, cert: text, key: text, 'trust-proxy': text }
    return checked(parseArgs({ args, options: { ...texts, fresh: flag, 'no-demo': flag, help: flag } }).values)
  } catch (error) {
    throw error instanceof Stop ? error : new Stop(`${error.message}\n${HELP}`)
  }
}

/** What does not go together is told before anything is started. */
function checked(given) {
  const { cert, key, host = '127.0.0.1', 'trust-proxy': proxy } = given
  if ((cert === undefined) !== (key === undefined)) throw new Stop('--cert and --key go together.')
  for (const [name, file] of [
    ['--cert', cert],
    ['--key', key],
  ])
    if (file !== undefined && !existsSync(file)) throw new Stop(`${name}: there is no file ${file}.`)
  if (!['127.0.0.1', '::1', 'localhost'].includes(host) && !cert && !proxy)
    throw new Stop(`At ${host} others can listen in: give --cert and --key, or --trust-proxy with the address of a proxy that ends TLS.`)
  return given
}

async function choosePort() {
  const wish = options.port
  if (wish === undefined) return freePort(4610).catch(() => freePort(0))
  const port = Number(wish)
  if (!Number.isInteger(port) || port < 1 || port > 65535) throw new Stop(`--port takes a number from 1 to 65535, not "${wish}".`)
  return freePort(port).catch((error) => {
    throw new Stop(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken by another program. Choose another with --port N, or leave --port out.`
        : `Port ${port} cannot be used: ${error.message}`,
    )
  })
}

async function main() {
  options = optionsOf(process.argv.slice(2))
  if (options.help) return say(HELP)
  checkNode()
  const folder = process.env.AWL_DATA ?? join(ROOT, '.data', 'cluster')
  await step('earlier run', () => endEarlier(folder))
  const port = await choosePort()
  await step('Debian packages', () => installDebian())
  await step('npm packages', () => installNpm())
  const { buildPack, buildServer, buildWeb } = await import('./lib/build.mjs')
  await step('server', () => buildServer())
  await step('content pack', () => buildPack())
  await step('web application', () => buildWeb())
  const { Cluster } = await import('./lib/postgres.mjs')
  mkdirSync(join(ROOT, '.data'), { recursive: true })
  const cluster = new Cluster(folder)
  if (options.fresh && existsSync(folder)) await step('old database removed', () => cluster.remove())
  let urls
  if (options.backups) {
    await step('pgBackRest', () => installDebian({ backups: true }))
    keepBackups(cluster, resolve(options.backups))
    // A database that runs already does not archive until it is started anew.
    cluster.secrets = existsSync(join(folder, 'secrets.json')) ? cluster.readSecrets() : undefined
    if (cluster.secrets && cluster.ready()) cluster.stop()
  }
  await step('PostgreSQL', async () => {
    urls = await cluster.start()
    return `on loopback port ${cluster.secrets.port}`
  })
  if (repositoryOf(folder)) await step('backups', () => `archived to ${beginBackups(cluster)}`)
  const env = environmentOf(urls, port)
  let told = ''
  await step('database', () => {
    told = prepare(env, urls)
    return 'up to date'
  })
  say(told)
  const supervisor = new Supervisor(cluster, env, say)
  process.on('SIGINT', () => supervisor.stop())
  process.on('SIGTERM', () => supervisor.stop())
  await supervisor.start()
  welcome(port)
  process.exit(await supervisor.ended)
}

/** Tables, content pack and demonstration, by a process of its own: it alone is told the address of the owner. */
function prepare(env, urls) {
  const args = [...NODE_FLAGS, join(ROOT, 'packages/server/dist/commands/prepare.js')]
  const { stdout } = run(process.execPath, args, { env: { ...env, AWL_OWNER_URL: urls.ownerUrl }, quiet: true })
  return stdout.trimEnd()
}

/** What the server is told: the application's way into the database, and no other. */
function environmentOf(urls, port) {
  const given = { AWL_HOST: options.host, AWL_HOSTS: options.hosts, AWL_CERT: options.cert, AWL_KEY: options.key, AWL_TRUST_PROXY: options['trust-proxy'] }
  return {
    ...process.env,
    AWL_OWNER_URL: undefined,
    ...Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)),
    AWL_APP_URL: urls.appUrl,
    AWL_AUDIT_KEY: urls.auditKey,
    AWL_ANCHORS: urls.anchors,
    AWL_LOG: urls.log,
    AWL_PORT: String(port),
    AWL_DEMO: options['no-demo'] ? 'no' : 'yes',
  }
}

function welcome(port) {
  say(`\nKneecap Awl is at  ${options.cert ? 'https' : 'http'}://${options.host ?? '127.0.0.1'}:${port}\n`)
  if (!options['no-demo']) {
    say('Demo sign-ins (password for all: harbour-light)')
    say('  brannock  clinician    quill  lead clinician    fenn  administrator    lark  learner\n')
  }
  say('Ctrl-C stops it.')
}

// Whoever read what is said may be gone: that is no reason to leave a server behind.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined)

main().catch((error) => {
  say(error instanceof Stop ? `\n${error.message}` : `\n${error.stack}`)
  process.exit(1)
})
