import { parseArgs } from 'node:util'
import pg from 'pg'
import { sealWith } from '../audit/queries.js'
import { Sealer } from '../audit/seal.js'
import { need } from '../need.js'
import { erase, pastKeeping } from '../patients/retention.js'
import { isArgumentFault } from './isArgumentFault.js'

/**
 * `npm run retention -- --years N --minors-until N` tells whose records are past the rule of the place, by number and without a name, and changes
 * nothing; with `--erase` they are erased. Whoever has an open referral is told and kept. Exit code 2 when the rule is not said.
 */
const HELP = `npm run retention -- --years N --minors-until N [--erase]
  --years N          records are kept so long after the last entry; what the law of the place says, there is no default
  --minors-until N   of a patient who was a minor then, in any case until this age
  --erase            erases them; without it nothing is changed`
const say = (line: string): void => void process.stdout.write(`${line}\n`)

function ruleOf(): { readonly years: number; readonly minorsUntil: number; readonly erases: boolean } | undefined {
  const text = { type: 'string' } as const
  const { values } = parseArgs({ options: { years: text, 'minors-until': text, erase: { type: 'boolean' } } })
  const [years, minorsUntil] = [Number(values.years), Number(values['minors-until'])]
  const isRule = [years, minorsUntil].every((number) => Number.isInteger(number) && number >= 1 && number <= 120)
  return isRule ? { years, minorsUntil, erases: values.erase === true } : undefined
}

try {
  const rule = ruleOf()
  if (rule) await run(rule)
  else {
    say(`--years and --minors-until take whole numbers from 1 to 120.\n${HELP}`)
    process.exitCode = 2
  }
} catch (error) {
  if (!isArgumentFault(error)) throw error
  say(`${error.message}\n${HELP}`)
  process.exitCode = 2
}

async function run({ erases, ...rule }: NonNullable<ReturnType<typeof ruleOf>>): Promise<void> {
  const owner = new pg.Pool({ connectionString: need('AWL_OWNER_URL'), max: 1 })
  const sealer = new Sealer(need('AWL_AUDIT_KEY'), process.env.AWL_ANCHORS)
  sealWith(owner, sealer)
  try {
    const found = await pastKeeping(owner, rule)
    const kept = found.filter(({ hasOpenReferral }) => hasOpenReferral)
    const past = found.filter(({ hasOpenReferral }) => !hasOpenReferral)
    for (const { localNumber, lastAt, examinations, hasOpenReferral } of found)
      say(
        `${localNumber.padEnd(8)} last recorded ${lastAt.slice(0, 10)}, ${examinations} examinations${hasOpenReferral ? ', kept: a referral is open, close it first' : ''}`,
      )
    if (erases && past.length > 0) await erase(owner, past, rule)
    say(
      `${past.length} patients are past the rule of ${rule.years} years (minors until ${rule.minorsUntil})${erases ? ' and were erased' : '; nothing was changed, --erase erases them'}. ${kept.length} more are kept for an open referral. Backups hold them until they expire.`,
    )
  } finally {
    sealer.anchor()
    await owner.end()
  }
}
