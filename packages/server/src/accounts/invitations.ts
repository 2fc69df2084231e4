import type { Db } from '../db/connect.js'
import { badInput } from '../http/problem.js'
import type { Account } from './queries.js'
import { codeHash, newCode } from './secondFactor.js'

const HOURS = 72

/** A code that is used once, and how long it can be. */
export interface Invitation {
  readonly code: string
  /** ISO 8601. */
  readonly expiresAt: string
}

/** Gives a code for an account; one that was given before no longer counts. @param db as the site of the account, or as owner */
export async function addInvitation(db: Db, { id, site }: Pick<Account, 'id' | 'site'>): Promise<Invitation> {
  const code = newCode(4)
  const expiresAt = new Date(Date.now() + HOURS * 3_600_000).toISOString()
  await db.query('update invitation set expires_at = now() where account_id = $1 and used_at is null and expires_at > now()', [id])
  await db.query('insert into invitation (code_hash, account_id, site_id, expires_at) values ($1, $2, $3, $4)', [codeHash(code), id, site, expiresAt])
  return { code, expiresAt }
}

/** Whose account a code is for; nothing for one that was used or has expired. */
export async function invitedBy(db: Db, code: string): Promise<Account | undefined> {
  const { rows } = await db.query<{ person: Account }>('select person from account_of_invitation($1)', [codeHash(code)])
  return rows[0]?.person
}

/** @param db as the site of the account @throws HttpProblem 400 when somebody was quicker */
export async function takeUp(db: Db, code: string): Promise<void> {
  const { rowCount } = await db.query('update invitation set used_at = now() where code_hash = $1 and used_at is null', [codeHash(code)])
  if (rowCount !== 1) throw badInput([{ path: '/code', reason: 'was used a moment ago', expected: 'a code that your administrator gives you' }])
}
