import type pg from 'pg'
import { v7 as uuid7 } from 'uuid'
import { addAudit } from '../audit/queries.js'
import { asOne } from '../db/connect.js'
import { addInvitation, type Invitation } from './invitations.js'
import { addAccount } from './queries.js'

const SIGN_IN = 'administrator'

/**
 * Where nobody can sign in yet as administrator, an account for the first one with a one-time code; a code that was not used is replaced by a new one.
 * @param owner a pool as owner
 * @returns nothing where there is an administrator with a password
 */
export function firstAdministrator(owner: pg.Pool): Promise<(Invitation & { readonly signIn: string }) | undefined> {
  return asOne(owner, async (db) => {
    await db.query("select pg_advisory_xact_lock(hashtextextended('first administrator', 0))")
    const able = await db.query("select 1 from account where role = 'admin' and disabled_at is null and not is_demo and password_hash like '$argon2%'")
    if (able.rowCount !== 0) return undefined
    const known = await db.query<{ id: string; site: string }>('select id, site_id as site from account where sign_in = $1', [SIGN_IN])
    const account = known.rows[0] ?? (await newSite(db))
    const invitation = await addInvitation(db, account)
    addAudit(db, { site: account.site, account: null, action: 'first administrator invited', about: account.id })
    return { ...invitation, signIn: SIGN_IN }
  })
}

/** The site of the demonstration is not made a real one: a new site begins without patients. */
async function newSite(db: pg.PoolClient): Promise<{ readonly id: string; readonly site: string }> {
  const [id, site] = [uuid7(), uuid7()]
  const name = process.env.AWL_SITE_NAME ?? 'A site without a name'
  await db.query('insert into site (id, name, zone) values ($1, $2, $3)', [site, name, process.env.AWL_SITE_ZONE ?? 'UTC'])
  await addAccount(db, { id, site, signIn: SIGN_IN, name: 'Administrator', role: 'admin' })
  return { id, site }
}

/** Accounts whose password is published sign in no more. @returns how many were disabled */
export async function disableDemo(owner: pg.Pool): Promise<number> {
  const { rowCount } = await owner.query('update account set disabled_at = now() where is_demo and disabled_at is null')
  await owner.query('delete from session where account_id in (select id from account where is_demo)')
  return rowCount ?? 0
}
