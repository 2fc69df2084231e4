import type { SourceFile } from './source.js'

/**
 * Content hash of a pack: 64-bit FNV-1a over the files in order of path, as 16 hexadecimal digits. It tells versions apart;
 * it is not a signature (the server seals signed examinations with SHA-256).
 */
export function fingerprint(files: readonly SourceFile[]): string {
  const sorted = [...files].sort((a, b) => (a.path < b.path ? -1 : 1))
  const text = sorted.map((file) => `${file.path}\n${file.text}`).join('\n')
  let high = 0xcbf29ce4
  let low = 0x84222325
  for (let at = 0; at < text.length; at++) {
    low = (low ^ text.charCodeAt(at)) >>> 0
    // (high, low) times the 64-bit FNV prime 0x100000001b3, kept in two 32-bit halves
    const product = low * 0x1b3
    high = (Math.imul(high, 0x1b3) + Math.imul(low, 0x100) + Math.floor(product / 0x1_0000_0000)) >>> 0
    low = product >>> 0
  }
  return high.toString(16).padStart(8, '0') + low.toString(16).padStart(8, '0')
}
