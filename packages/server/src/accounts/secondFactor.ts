import { createCipheriv, createDecipheriv, createHash, randomBytes, randomInt } from 'node:crypto'
import { generateSecret, generateURI, verify } from 'otplib'
import type { Sealer } from '../audit/seal.js'

const ISSUER = 'Kneecap Awl'
/** A code of the half minute before counts too: nobody types in no time. */
const TOLERANCE_S = 30
const RECOVERY_CODES = 10
/** Letters and digits that are not taken for each other. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789'

export const newSecret = (): string => generateSecret()
/** What an authenticator reads from the picture. */
export const addressOf = (secret: string, signIn: string): string => generateURI({ issuer: ISSUER, label: signIn, secret })

/**
 * The step of time that a code is of (RFC 6238: six digits, 30 seconds, SHA-1), or nothing when it does not fit.
 * @example await stepOf(secret, '492039') // 59869470
 */
export async function stepOf(secret: string, code: string): Promise<number | undefined> {
  if (!/^\d{6}$/.test(code)) return undefined
  const result = await verify({ secret, token: code, epochTolerance: TOLERANCE_S })
  return result.valid ? (result as { readonly timeStep: number }).timeStep : undefined
}

/** Ten codes, each good for one sign-in. @example newRecoveryCodes()[0] // 'k7mp-x2dv-9hqs' */
export const newRecoveryCodes = (): string[] => Array.from({ length: RECOVERY_CODES }, () => newCode(3))

/** A code of groups of four signs that are drawn at random. */
export const newCode = (groups: number): string =>
  Array.from({ length: groups }, () => Array.from({ length: 4 }, () => SIGNS[randomInt(SIGNS.length)]).join('')).join('-')

/** Codes are kept hashed: they are long and drawn at random, so that no slow hash is needed. */
export const codeHash = (code: string): Buffer => createHash('sha256').update(code.trim().toLowerCase()).digest()

/** A secret as the database keeps it: AES-256-GCM with a key that the database does not hold. */
export function encrypted(sealer: Sealer, secret: string): string {
  const nonce = randomBytes(12)
  const cipher = createCipheriv('aes-256-gcm', sealer.derive('second factor'), nonce)
  const body = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()])
  return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64')
}

/** @throws Error when it was altered, or encrypted with another key */
export function decrypted(sealer: Sealer, kept: string): string {
  const bytes = Buffer.from(kept, 'base64')
  const cipher = createDecipheriv('aes-256-gcm', sealer.derive('second factor'), bytes.subarray(0, 12))
  cipher.setAuthTag(bytes.subarray(12, 28))
  return Buffer.concat([cipher.update(bytes.subarray(28)), cipher.final()]).toString('utf8')
}
