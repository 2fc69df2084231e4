import type { Db } from '../db/connect.js'
import { HttpProblem } from '../http/problem.js'

interface Tries {
  readonly here: number
  readonly fromPlace: number
  readonly ofName: number
  readonly isKnownPlace: boolean
}

/** Of one name from one address; from one address; of one name from everywhere, in a quarter of an hour. */
const FROM_PLACE = 5
const OF_NAME = 10

/**
 * Refuses whoever has tried too often. Somebody who tries a name from elsewhere keeps its owner out of nothing: an address from which the account
 * signed in before goes on being asked for the password.
 * @param most tries of one name from one address in 15 minutes
 * @throws HttpProblem 429
 */
export async function refuseTooMany(db: Db, signIn: string, address: string, most: number): Promise<void> {
  const { rows } = await db.query<Tries>('select * from sign_in_tries($1, $2)', [signIn, address])
  const { here = 0, fromPlace = 0, ofName = 0, isKnownPlace = false } = rows[0] ?? {}
  if (here >= most || fromPlace >= most * FROM_PLACE || (ofName >= most * OF_NAME && !isKnownPlace))
    throw new HttpProblem(429, 'too-many-tries', 'Too many tries. Wait a quarter of an hour, or ask your administrator for a reset.')
}

export async function noteFailed(db: Db, signIn: string, address: string): Promise<void> {
  await db.query('select note_failed_sign_in($1, $2)', [signIn, address])
}
export async function noteKnownPlace(db: Db, account: string, address: string): Promise<void> {
  await db.query('select note_known_place($1, $2)', [account, address])
}
