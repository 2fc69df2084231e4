import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils'
import canonicalize from 'canonicalize'
import type { Entry, Examination } from './entry.js'
import { firstForm } from './firstForm.js'

/**
 * Seals a record: SHA-256 over its entries and those it is compared with, in order of id and with their keys in order, and the pack's hash.
 * The same record always seals alike, on the device that shows it and on the server that signs it, however it was sent or stored.
 * @returns 64 hexadecimal digits
 */
export function recordHash({ entries, previous = [] }: Pick<Examination, 'entries' | 'previous'>, packHash: string): string {
  const sorted = [...entries, ...previous].sort(byId).map(firstForm)
  return bytesToHex(sha256(utf8ToBytes(canonicalJson(sorted) + packHash)))
}

const byId = (a: Entry, b: Entry): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** Whether two entries say the same in every respect, however their keys are ordered. */
export const isSameEntry = (a: Entry, b: Entry): boolean => canonicalJson(firstForm(a)) === canonicalJson(firstForm(b))

/** JSON in its canonical form (RFC 8785): the same keys in the same order. */
export const canonicalJson = (value: object): string => canonicalize(value) ?? ''
