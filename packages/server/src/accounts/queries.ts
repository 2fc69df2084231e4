import type { Role } from '@kneecap-awl/contract'
import type { Db } from '../db/connect.js'

export interface Account {
  readonly id: string
  readonly site: string
  readonly siteName: string
  /** The time zone in which the site writes its letters: an IANA name. */
  readonly zone: string
  readonly signIn: string
  readonly name: string
  readonly role: Role
  readonly isDemo: boolean
  readonly hasSecondFactor: boolean
}

/** What signing in compares with. */
export interface Secrets {
  readonly person: Account
  readonly passwordHash: string
  /** Encrypted: see `secondFactor.ts`. */
  readonly secondFactor: string | null
  readonly secondFactorStep: string
}

/** No hash of a password, so that no password fits. */
export const NO_PASSWORD = 'none'

export interface NewAccount {
  readonly id: string
  readonly site: string
  readonly signIn: string
  readonly name: string
  readonly role: Role
  /** Left out where its person sets the password with a code. */
  readonly passwordHash?: string
}

/** @returns false when the sign-in name is taken */
export async function addAccount(db: Db, { id, site, signIn, name, role, passwordHash = NO_PASSWORD }: NewAccount): Promise<boolean> {
  const { rowCount } = await db.query(
    'insert into account (id, site_id, sign_in, name, role, password_hash) values ($1, $2, $3, $4, $5, $6) on conflict (sign_in) do nothing',
    [id, site, signIn, name, role, passwordHash],
  )
  return rowCount === 1
}

/** An account that may sign in, by its name: the only way to its secrets. */
export async function secretsOf(db: Db, signIn: string): Promise<Secrets | undefined> {
  const { rows } = await db.query<Secrets>('select * from account_to_sign_in($1)', [signIn])
  return rows[0]
}

export interface SessionState {
  readonly person: Account
  readonly session: string
  readonly lockedAt: Date | null
  readonly seenAt: Date
}

export async function sessionOf(db: Db, tokenHash: Buffer): Promise<SessionState | undefined> {
  const { rows } = await db.query<SessionState>('select * from account_of_session($1)', [tokenHash])
  return rows[0]
}

export interface NewSession {
  readonly tokenHash: Buffer
  readonly account: string
  readonly hours: number
  readonly address: string
  readonly browser: string
}

export async function addSession(db: Db, { tokenHash, account, hours, address, browser }: NewSession): Promise<void> {
  await db.query('select begin_session($1, $2, $3, $4, $5)', [tokenHash, account, hours, address, browser])
}
export async function seeSession(db: Db, tokenHash: Buffer): Promise<void> {
  await db.query('select see_session($1)', [tokenHash])
}
export async function lockSession(db: Db, tokenHash: Buffer, isLocked: boolean): Promise<void> {
  await db.query('select lock_session($1, $2)', [tokenHash, isLocked])
}
export async function endSession(db: Db, tokenHash: Buffer): Promise<void> {
  await db.query('select end_session($1)', [tokenHash])
}

export interface OpenSession {
  readonly id: string
  readonly createdAt: Date
  readonly seenAt: Date
  readonly address: string
  readonly browser: string
}
export async function sessionsOf(db: Db, account: string): Promise<readonly OpenSession[]> {
  return (await db.query<OpenSession>('select * from sessions_of($1)', [account])).rows
}

/** Ends sessions of an account: all, one of them, or all but one. @returns how many */
export async function endSessions(db: Db, account: string, { one, but }: { readonly one?: string; readonly but?: Buffer } = {}): Promise<number> {
  const { rows } = await db.query<{ count: number }>('select end_sessions($1, $2, $3) as count', [account, one ?? null, but ?? null])
  return rows[0]?.count ?? 0
}

/** What is no longer of use goes: sessions that ended, tries of yesterday, codes of long ago. */
export async function purgeExpired(db: Db): Promise<void> {
  await db.query('select purge_expired()')
}

/** @param db as the site of the account, as all that follow */
export async function setPassword(db: Db, account: string, passwordHash: string): Promise<void> {
  await db.query('update account set password_hash = $2 where id = $1', [account, passwordHash])
}

/** @param secret encrypted; null takes the second factor away */
export async function setSecondFactor(
  db: Db,
  { id, site }: Pick<Account, 'id' | 'site'>,
  secret: string | null,
  recoveryHashes: readonly Buffer[],
): Promise<void> {
  await db.query('update account set second_factor = $2, second_factor_step = 0 where id = $1', [id, secret])
  await db.query('delete from recovery_code where account_id = $1', [id])
  for (const hash of recoveryHashes) await db.query('insert into recovery_code (account_id, site_id, code_hash) values ($1, $2, $3)', [id, site, hash])
}

/** Takes note of the step of time whose code was used. @returns false when it, or a later one, was used before */
export async function useStep(db: Db, account: string, step: number): Promise<boolean> {
  const { rowCount } = await db.query('update account set second_factor_step = $2 where id = $1 and second_factor_step < $2', [account, step])
  return rowCount === 1
}

/** @returns false when there is no such code, or it was used */
export async function useRecoveryCode(db: Db, account: string, hash: Buffer): Promise<boolean> {
  const { rowCount } = await db.query('update recovery_code set used_at = now() where account_id = $1 and code_hash = $2 and used_at is null', [account, hash])
  return rowCount === 1
}
