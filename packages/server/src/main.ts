import { readFileSync } from 'node:fs'
import { buildApp } from './app.js'
import { sealWith } from './audit/queries.js'
import { Sealer } from './audit/seal.js'
import { connect } from './db/connect.js'
import { judgingThreads } from './judging/threads.js'
import { Changes } from './live/changes.js'
import { need } from './need.js'
import { PackStore, shippedPack } from './packs/service.js'

/** The server: signs in to the database as the application and knows no other way in. What it runs on was prepared before (`prepare`). */
const say = (line: string): void => void process.stdout.write(`${line}\n`)
const {
  AWL_HOST = '127.0.0.1',
  AWL_PORT = '4610',
  AWL_HOSTS = '',
  AWL_TRUST_PROXY,
  AWL_CERT,
  AWL_KEY,
  AWL_SIGN_IN_TRIES,
  AWL_IDLE_MINUTES,
  AWL_REQUESTS_PER_MINUTE,
} = process.env

const pool = connect(need('AWL_APP_URL'), (message) => say(`  ${message}`))
const sealer = new Sealer(need('AWL_AUDIT_KEY'), process.env.AWL_ANCHORS)
sealWith(pool, sealer)
const everyday = shippedPack()
const judge = judgingThreads(everyday)

const app = await buildApp({
  pool,
  packStore: new PackStore(everyday, judge),
  changes: new Changes(process.env.AWL_LISTEN_URL ?? need('AWL_APP_URL'), (message) => say(`  ${message}`)),
  log: true,
  hosts: AWL_HOSTS.split(',').filter(Boolean),
  ...(AWL_TRUST_PROXY ? { trustProxy: AWL_TRUST_PROXY } : {}),
  ...(AWL_CERT && AWL_KEY ? { tls: { cert: readFileSync(AWL_CERT), key: readFileSync(AWL_KEY) } } : {}),
  ...(AWL_SIGN_IN_TRIES ? { signInTries: Number(AWL_SIGN_IN_TRIES) } : {}),
  ...(AWL_REQUESTS_PER_MINUTE ? { requestsPerMinute: Number(AWL_REQUESTS_PER_MINUTE) } : {}),
  ...(AWL_IDLE_MINUTES ? { idleMinutes: Number(AWL_IDLE_MINUTES) } : {}),
})
await app.listen({ host: AWL_HOST, port: Number(AWL_PORT) })
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
