import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils'
import type { Entry, Examination } from './entry.js'

/**
 * Seals a record: SHA-256 over its entries and those it is compared with, in order of id and with their keys in order, and the pack's hash.
 * The same record always seals alike, on the device that shows it and on the server that signs it, however it was sent or stored.
 * @returns 64 hexadecimal digits
 */
export function recordHash({ entries, previous = [] }: Pick<Examination, 'entries' | 'previous'>, packHash: string): string {
  const sorted = [...entries, ...previous].sort(byId)
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(sorted.map(canonical)) + packHash)))
}

const byId = (a: Entry, b: Entry): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** The same keys in the same order. */
export function canonical(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(canonical)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, v]) => [key, canonical(v)]),
  )
}

/** Whether two entries say the same in every respect, however their keys are ordered. */
export const isSameEntry = (a: Entry, b: Entry): boolean => JSON.stringify(canonical(a)) === JSON.stringify(canonical(b))
