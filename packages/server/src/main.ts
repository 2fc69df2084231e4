import { buildApp } from './app.js'
import { sealWith } from './audit/queries.js'
import { Sealer } from './audit/seal.js'
import { connect } from './db/connect.js'
import { migrate } from './db/migrate.js'
import { loadDemo } from './demo/load.js'
import { need } from './need.js'
import { judgingThreads } from './judging/threads.js'
import { PackStore, shippedPack } from './packs/service.js'

const say = (line: string): void => void process.stdout.write(`${line}\n`)

const ownerUrl = need('AWL_OWNER_URL')
const appUrl = need('AWL_APP_URL')
const port = Number(process.env.AWL_PORT ?? 4610)

const ran = await migrate(ownerUrl, new URL(appUrl).password)
if (ran.length > 0) say(`  database brought up to date (${ran.join(', ')})`)
const pool = connect(appUrl, (message) => say(`  ${message}`))
const sealer = new Sealer(need('AWL_AUDIT_KEY'), process.env.AWL_ANCHORS)
sealWith(pool, sealer)
const everyday = shippedPack()
const judge = judgingThreads(everyday)
const packStore = new PackStore(everyday, judge)
await packStore.store(pool)
say(`  content pack ${packStore.current.version} (${packStore.current.hash}), ${packStore.current.items.length} items, ${packStore.current.flags.length} flags`)
if (process.env.AWL_DEMO !== 'no') say(`  demo data: ${await loadDemo(ownerUrl, packStore.current, sealer)}`)

const app = await buildApp({ pool, packStore, log: true, signInTries: Number(process.env.AWL_SIGN_IN_TRIES ?? 10) })
await app.listen({ host: '127.0.0.1', port })
say(`ready http://127.0.0.1:${port}`)

const stop = async (): Promise<void> => {
  await app.close()
  await judge.close()
  sealer.anchor()
  await pool.end()
  process.exit(0)
}
process.on('SIGINT', () => void stop())
process.on('SIGTERM', () => void stop())
