import pg from 'pg'
import { firstBrokenSeal } from '../audit/queries.js'

/** `npm run audit:verify` proves the chain of audit rows, or names the first row that was tampered with (exit code 1). */
const pool = new pg.Pool({ connectionString: process.env.AWL_OWNER_URL })
try {
  const broken = await firstBrokenSeal(pool)
  process.stdout.write(broken ? `The audit chain is broken at row ${broken.seq}.\n` : 'The audit chain is whole.\n')
  process.exitCode = broken ? 1 : 0
} finally {
  await pool.end()
}
