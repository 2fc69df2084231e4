import pg from 'pg'
import { verifyAudit } from '../audit/queries.js'
import { Sealer } from '../audit/seal.js'
import { need } from '../need.js'

/** `npm run audit:verify` proves the chain of audit rows, or names the rows that were tampered with (exit code 1). */
const pool = new pg.Pool({ connectionString: need('AWL_OWNER_URL') })
try {
  const { sealed, unkeyed, faults } = await verifyAudit(pool, new Sealer(need('AWL_AUDIT_KEY'), process.env.AWL_ANCHORS))
  const say = (line: string): void => void process.stdout.write(`${line}\n`)
  for (const fault of faults) say(fault)
  say(faults.length > 0 ? 'The audit chain is broken.' : `The audit chain is whole: ${sealed} rows sealed.`)
  if (unkeyed > 0) say(`${unkeyed} rows of before were sealed without a key: whoever could write in the database could have made them anew.`)
  process.exitCode = faults.length > 0 ? 1 : 0
} finally {
  await pool.end()
}
