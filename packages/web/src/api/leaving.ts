import { accounts } from '@kneecap-awl/contract'
import { vault } from '../record/vault'
import { call } from './http'

/** Kept where the server could not be told: it is told before anything else is asked. */
const UNTOLD = 'kneecap-awl.sign-out-untold'

/**
 * Signs out, with or without the server: this device forgets its key at once, so that what waits here cannot be read; a server that cannot be reached
 * ends the session at the next contact.
 * @returns whether the server knows
 */
export async function leave(): Promise<boolean> {
  vault.forget()
  try {
    await call(accounts.signOut)
    localStorage.removeItem(UNTOLD)
    return true
  } catch {
    localStorage.setItem(UNTOLD, 'yes')
    return false
  }
}

export const isUntold = (): boolean => localStorage.getItem(UNTOLD) !== null

/** Tells the server of a sign-out that it could not be told of. @throws TypeError while it cannot be reached */
export async function tellLeft(): Promise<void> {
  if (!isUntold()) return
  await call(accounts.signOut)
  localStorage.removeItem(UNTOLD)
}

/** Whoever signs in ends the session that was there, told or not. */
export const arrived = (): void => localStorage.removeItem(UNTOLD)
