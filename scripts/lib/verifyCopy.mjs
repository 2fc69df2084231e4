// Whether a restored database is what it should be: as many rows as there were, the audit chain whole, every seal fitting.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import pg from 'pg'
import { ROOT, Stop } from './run.mjs'

/** Rows of every table, by its name. */
export async function countsOf(ownerUrl) {
  const db = new pg.Client({ connectionString: ownerUrl })
  await db.connect()
  try {
    const { rows } = await db.query("select tablename as name from pg_tables where schemaname = 'public' order by 1")
    const counts = {}
    for (const { name } of rows) counts[name] = Number((await db.query(`select count(*) from ${pg.escapeIdentifier(name)}`)).rows[0].count)
    return counts
  } finally {
    await db.end()
  }
}

/** What only grows: of these a copy holds no fewer rows than there were before it was taken, and no more than after. */
const GROWING = ['audit', 'correction', 'entry', 'examination', 'patient', 'referral', 'referral_event', 'seal', 'verdict', 'account', 'pack']

/** @throws Stop that names the table */
export function compareCounts(before, copy, after) {
  for (const table of GROWING)
    if (!(copy[table] >= before[table] && copy[table] <= after[table]))
      throw new Stop(
        `The copy holds ${copy[table]} rows of ${table}; there were ${before[table]} before it was taken and ${after[table]} after. It is no backup.`,
      )
}

/** @returns what was found, in words @throws Stop with what does not fit */
export function verifyCopy({ ownerUrl, auditKey, anchors }) {
  const said = ['auditVerify', 'sealsVerify'].map((command) => {
    const { status, stdout, stderr } = spawnSync(process.execPath, [join(ROOT, `packages/server/dist/commands/${command}.js`)], {
      encoding: 'utf8',
      env: { ...process.env, AWL_OWNER_URL: ownerUrl, AWL_AUDIT_KEY: auditKey, AWL_ANCHORS: anchors },
    })
    if (status !== 0) throw new Stop(`The copy does not verify. ${stdout}${stderr}`)
    return stdout.trim().split('\n')[0]
  })
  return said.join(' ')
}
