import type { Db } from '../db/connect.js'

/** Adds a line to the chain of who did and read what. `about` holds ids, never patient data. */
export async function addAudit(
  db: Db,
  line: { readonly site: string | null; readonly account: string | null; readonly action: string; readonly about?: string },
): Promise<void> {
  await db.query("insert into audit (site_id, account_id, action, about, previous_hash, hash) values ($1, $2, $3, $4, '', '')", [
    line.site,
    line.account,
    line.action,
    line.about ?? '',
  ])
}

/** Recomputes the chain. @returns the first row whose seal does not fit, or undefined when all do */
export async function firstBrokenSeal(db: Db): Promise<{ readonly seq: string } | undefined> {
  const { rows } = await db.query<{ seq: string }>(`
    select seq from (
      select seq, hash, previous_hash, coalesce(lag(hash) over (order by seq), '') as expected_previous,
             encode(sha256(convert_to(concat_ws('|', previous_hash, site_id, account_id, action, about, extract(epoch from at)), 'UTF8')), 'hex') as expected
      from audit) chain
    where hash <> expected or previous_hash <> expected_previous
    order by seq limit 1`)
  return rows[0]
}
