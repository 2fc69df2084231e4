import pg from 'pg'
import { Sealer } from '../audit/seal.js'
import { verifySeals } from '../examinations/seals.js'
import { need } from '../need.js'

/** `npm run seals:verify` recomputes the seal of every signed record, or names those that are not what was signed (exit code 1). */
const pool = new pg.Pool({ connectionString: need('AWL_OWNER_URL') })
try {
  const { whole, unsealed, altered, rows } = await verifySeals(pool, new Sealer(need('AWL_AUDIT_KEY')))
  const say = (line: string): void => void process.stdout.write(`${line}\n`)
  for (const id of altered) say(`examination ${id} is not what was signed`)
  for (const { what, how, id } of rows) say(`  ${what} ${id} ${how}`)
  say(altered.length > 0 ? `${altered.length} signed records were altered.` : `${whole} verdicts are what was sealed.`)
  if (unsealed > 0) say(`${unsealed} verdicts of before have no seal.`)
  process.exitCode = altered.length > 0 ? 1 : 0
} finally {
  await pool.end()
}
