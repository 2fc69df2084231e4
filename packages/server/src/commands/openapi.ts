import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { buildApp } from '../app.js'
import { connect } from '../db/connect.js'
import { PackStore, shippedPack } from '../packs/service.js'

/** `npm run openapi` writes the description of every route to docs/formats/openapi.json. It asks no database. */
const FILE = fileURLToPath(new URL('../../../../docs/formats/openapi.json', import.meta.url))
const pool = connect('postgres://nobody@127.0.0.1:1/none', () => undefined)
const app = await buildApp({ pool, packStore: new PackStore(shippedPack()) })
await app.ready()
writeFileSync(FILE, `${JSON.stringify(app.swagger(), null, 2)}\n`)
await app.close()
await pool.end()
