import { migrate } from '../db/migrate.js'
import { disableDemo, firstAdministrator } from '../accounts/first.js'
import { sealWith } from '../audit/queries.js'
import { Sealer } from '../audit/seal.js'
import { loadDemo } from '../demo/load.js'
import { need } from '../need.js'
import { PackStore, shippedPack } from '../packs/service.js'
import pg from 'pg'

/**
 * Brings the database up to date before the server starts: tables, content pack, and the demonstration or the first administrator. It alone is told
 * the address of the owner; the server that runs afterwards is not.
 */
const say = (line: string): void => void process.stdout.write(`${line}\n`)
const ownerUrl = need('AWL_OWNER_URL')
const sealer = new Sealer(need('AWL_AUDIT_KEY'), process.env.AWL_ANCHORS)

const ran = await migrate(ownerUrl, new URL(need('AWL_APP_URL')).password)
if (ran.length > 0) say(`  database brought up to date (${ran.join(', ')})`)
const owner = new pg.Pool({ connectionString: ownerUrl, max: 1 })
sealWith(owner, sealer)
try {
  const packStore = new PackStore(shippedPack())
  await packStore.store(owner)
  const { version, hash, items, flags } = packStore.current
  say(`  content pack ${version} (${hash}), ${items.length} items, ${flags.length} flags`)
  if (process.env.AWL_DEMO === 'no') {
    const count = await disableDemo(owner)
    if (count > 0) say(`  ${count} accounts of the demonstration disabled: their password is known to everybody`)
    const first = await firstAdministrator(owner)
    if (first) say(`  first administrator: open /welcome, sign-in name "${first.signIn}", one-time code ${first.code} (until ${first.expiresAt})`)
  } else say(`  demo data: ${await loadDemo(ownerUrl, packStore.current, sealer)}`)
} finally {
  sealer.anchor()
  await owner.end()
}
