#!/usr/bin/env node
// npm start: installs, builds, starts the database and serves everything from one address.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { NODE_FLAGS, ROOT, Stop, freePort, say, step } from './lib/run.mjs'
import { checkNode, installDebian, installNpm } from './lib/install.mjs'

const HELP = `npm start -- [--port N] [--fresh] [--no-demo]
  --port N    serve at this port (default 4610, or the next free one)
  --fresh     throw away the local database first
  --no-demo   no demonstration patients and accounts`

let options = {}

function optionsOf(args) {
  const flag = { type: 'boolean' }
  try {
    return parseArgs({ args, options: { port: { type: 'string' }, fresh: flag, 'no-demo': flag, help: flag } }).values
  } catch (error) {
    throw new Stop(`${error.message}\n${HELP}`)
  }
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
  const port = await choosePort()
  await step('Debian packages', () => installDebian())
  await step('npm packages', () => installNpm())
  const { buildPack, buildServer, buildWeb } = await import('./lib/build.mjs')
  await step('server', () => buildServer())
  await step('content pack', () => buildPack())
  await step('web application', () => buildWeb())
  const { Cluster } = await import('./lib/postgres.mjs')
  const folder = process.env.AWL_DATA ?? join(ROOT, '.data', 'cluster')
  mkdirSync(join(ROOT, '.data'), { recursive: true })
  const cluster = new Cluster(folder)
  if (options.fresh && existsSync(folder)) await step('old database removed', () => cluster.remove())
  let urls
  await step('PostgreSQL', async () => {
    urls = await cluster.start()
    return `on loopback port ${cluster.secrets.port}`
  })
  serve(cluster, urls, port)
}

function serve(cluster, urls, port) {
  const env = {
    ...process.env,
    AWL_OWNER_URL: urls.ownerUrl,
    AWL_APP_URL: urls.appUrl,
    AWL_AUDIT_KEY: urls.auditKey,
    AWL_ANCHORS: urls.anchors,
    AWL_PORT: String(port),
    AWL_DEMO: options['no-demo'] ? 'no' : 'yes',
  }
  const server = spawn(process.execPath, [...NODE_FLAGS, join(ROOT, 'packages/server/dist/main.js')], { cwd: ROOT, env, stdio: ['ignore', 'pipe', 'inherit'] })
  server.stdout.on('data', (chunk) => {
    const text = String(chunk)
    process.stdout.write(text.replace(/^ready .*\n/m, ''))
    if (/^ready /m.test(text)) welcome(port)
  })
  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    say('\nStopping …')
    server.kill('SIGTERM')
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
  server.on('exit', (code) => {
    cluster.stop()
    say(stopping ? 'Stopped. Everything recorded is kept.' : `The server ended with code ${code}.`)
    process.exit(stopping ? 0 : (code ?? 1))
  })
}

function welcome(port) {
  say(`\nKneecap Awl is at  http://127.0.0.1:${port}\n`)
  if (!options['no-demo']) {
    say('Demo sign-ins (password for all: harbour-light)')
    say('  brannock  clinician    quill  lead clinician    fenn  administrator    lark  learner\n')
  }
  say('Ctrl-C stops it.')
}

main().catch((error) => {
  say(error instanceof Stop ? `\n${error.message}` : `\n${error.stack}`)
  process.exit(1)
})
