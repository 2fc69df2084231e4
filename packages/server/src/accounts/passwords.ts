import type { Fault } from '@kneecap-awl/core'
import { hash, verify } from '@node-rs/argon2'
import { dictionary } from '@zxcvbn-ts/language-common'
import type { Db } from '../db/connect.js'
import { secretsOf, type Account } from './queries.js'

const LEAST = 12
/** Passwords that many people have, so that they are tried first: a list that ships with the program. */
const COMMON: ReadonlySet<string> = new Set((dictionary['passwords-common'] as readonly string[]).map((one) => one.toLowerCase()))

/**
 * Why a password cannot be one: too short, known to everybody, or made of the person's own name. No signs or digits are asked for.
 * @example passwordFault('correct horse', 'brannock') // undefined
 */
export function passwordFault(password: string, signIn: string, path: string): Fault | undefined {
  const plain = password.normalize('NFKC').toLowerCase()
  const bare = plain.replaceAll(/[^\p{L}\p{N}]/gu, '')
  if (Array.from(plain).length < LEAST) return { path, reason: 'is too short', expected: `${LEAST} characters or more; a few words make a good one` }
  if (COMMON.has(plain) || COMMON.has(bare) || new Set(bare).size < 4) return { path, reason: 'is one that many people have', expected: 'another one' }
  if (bare.includes(signIn.replaceAll(/[._-]/g, '')) || bare.includes('kneecapawl'))
    return { path, reason: 'holds the sign-in name or the name of the program', expected: 'another one' }
  return undefined
}

/** Argon2id with a salt of its own. */
export const hashOf = (password: string): Promise<string> => hash(password.normalize('NFKC'))
/** Compared where there is no such account, so that an answer takes as long. */
const decoy = hashOf('no such account')
/** An account without a password has none that fits. @param passwordHash undefined where there is no account */
export async function fits(passwordHash: string | undefined, password: string): Promise<boolean> {
  const held = passwordHash?.startsWith('$argon2') ? passwordHash : undefined
  return (await verify(held ?? (await decoy), password.normalize('NFKC'))) && held !== undefined
}

/** Whether a password is that of an account. */
export const isPasswordOf = async (db: Db, { signIn }: Pick<Account, 'signIn'>, password: string): Promise<boolean> =>
  fits((await secretsOf(db, signIn))?.passwordHash, password)
