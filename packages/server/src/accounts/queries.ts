import type { Db } from '../db/connect.js'
import type { Role } from '@kneecap-awl/contract'

export interface Account {
  readonly id: string
  readonly site: string
  readonly siteName: string
  /** The time zone in which the site writes its letters: an IANA name. */
  readonly zone: string
  readonly signIn: string
  readonly name: string
  readonly role: Role
}

const COLUMNS = `a.id, a.site_id as site, s.name as "siteName", s.zone, a.sign_in as "signIn", a.name, a.role`

export async function accountBySignIn(db: Db, signIn: string): Promise<(Account & { readonly passwordHash: string }) | undefined> {
  const { rows } = await db.query<Account & { passwordHash: string }>(
    `select ${COLUMNS}, a.password_hash as "passwordHash" from account a join site s on s.id = a.site_id where a.sign_in = $1`,
    [signIn],
  )
  return rows[0]
}

export async function accountBySession(db: Db, tokenHash: Buffer): Promise<Account | undefined> {
  const { rows } = await db.query<Account>(
    `select ${COLUMNS} from session t join account a on a.id = t.account_id join site s on s.id = a.site_id where t.token_hash = $1 and t.expires_at > now()`,
    [tokenHash],
  )
  return rows[0]
}

export async function addSession(db: Db, tokenHash: Buffer, account: string, hours: number): Promise<void> {
  await db.query('insert into session (token_hash, account_id, expires_at) values ($1, $2, now() + make_interval(hours => $3))', [tokenHash, account, hours])
}

export async function endSession(db: Db, tokenHash: Buffer): Promise<void> {
  await db.query('delete from session where token_hash = $1', [tokenHash])
}
