import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils'
import type { SourceFile } from './source.js'

/**
 * Content hash of a pack: SHA-256 over the files in order of path, each with its path.
 * @returns 64 hexadecimal digits
 */
export function fingerprint(files: readonly SourceFile[]): string {
  const hash = sha256.create()
  for (const { path, text } of [...files].sort((a, b) => (a.path < b.path ? -1 : 1))) hash.update(utf8ToBytes(`${path}\n${text}\n`))
  return bytesToHex(hash.digest())
}
