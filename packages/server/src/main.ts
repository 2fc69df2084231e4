import { appendFileSync, mkdirSync, readdirSync, readFileSync } from 'node:fs'
import { once } from 'node:events'
import { dirname, join } from 'node:path'
import { createStream } from 'rotating-file-stream'
import { buildApp } from './app.js'
import { sealWith } from './audit/queries.js'
import { Sealer } from './audit/seal.js'
import { connect } from './db/connect.js'
import { judgingThreads } from './judging/threads.js'
import { Changes } from './live/changes.js'
import { need } from './need.js'
import { PackStore, shippedPack } from './packs/service.js'
import { goOnAs } from './privileges.js'

/** The server: signs in to the database as the application and knows no other way in. What it runs on was prepared before (`prepare`). */
const say = (line: string): void => void process.stdout.write(`${line}\n`)
const {
  AWL_HOST = '127.0.0.1',
  AWL_PORT = '4610',
  AWL_HOSTS = '',
  AWL_TRUST_PROXY,
  AWL_CERT,
  AWL_KEY,
  AWL_ANCHORS,
  AWL_LOG,
  AWL_USER = 'nobody',
  AWL_SIGN_IN_TRIES,
  AWL_IDLE_MINUTES,
  AWL_REQUESTS_PER_MINUTE,
} = process.env

const pool = connect(need('AWL_APP_URL'), (message) => say(`  ${message}`))
const sealer = new Sealer(need('AWL_AUDIT_KEY'), AWL_ANCHORS)
sealWith(pool, sealer)
const everyday = shippedPack()
const judge = judgingThreads(everyday)

/** A file a day, or sooner when it is long; a fortnight of them is kept. */
const log = AWL_LOG ? createStream('server.log', { path: AWL_LOG, interval: '1d', size: '10M', maxFiles: 14, mode: 0o640 }) : undefined
if (log) await once(log, 'open')

const app = await buildApp({
  pool,
  packStore: new PackStore(everyday, judge),
  changes: new Changes(process.env.AWL_LISTEN_URL ?? need('AWL_APP_URL'), (message) => say(`  ${message}`)),
  log: log ?? process.stdout,
  hosts: AWL_HOSTS.split(',').filter(Boolean),
  ...(AWL_TRUST_PROXY ? { trustProxy: AWL_TRUST_PROXY } : {}),
  ...(AWL_CERT && AWL_KEY ? { tls: { cert: readFileSync(AWL_CERT), key: readFileSync(AWL_KEY) } } : {}),
  ...(AWL_SIGN_IN_TRIES ? { signInTries: Number(AWL_SIGN_IN_TRIES) } : {}),
  ...(AWL_REQUESTS_PER_MINUTE ? { requestsPerMinute: Number(AWL_REQUESTS_PER_MINUTE) } : {}),
  ...(AWL_IDLE_MINUTES ? { idleMinutes: Number(AWL_IDLE_MINUTES) } : {}),
})
await app.listen({ host: AWL_HOST, port: Number(AWL_PORT) })
if (AWL_ANCHORS) {
  mkdirSync(dirname(AWL_ANCHORS), { recursive: true })
  appendFileSync(AWL_ANCHORS, '', { mode: 0o600 })
}
const who = goOnAs(AWL_USER, [...(AWL_ANCHORS ? [AWL_ANCHORS] : []), ...(AWL_LOG ? [AWL_LOG, ...readdirSync(AWL_LOG).map((file) => join(AWL_LOG, file))] : [])])
if (who) say(`  server runs as ${who}`)
say(`ready ${AWL_CERT ? 'https' : 'http'}://${AWL_HOST}:${AWL_PORT}`)

const stop = async (): Promise<void> => {
  await app.close()
  await judge.close()
  sealer.anchor()
  await pool.end()
  process.exit(0)
}
process.on('SIGINT', () => void stop())
process.on('SIGTERM', () => void stop())
