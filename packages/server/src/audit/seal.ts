import { createHmac, hkdfSync } from 'node:crypto'
import { appendFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs'
import { dirname } from 'node:path'

/** What one row of the chain says: who did or read what, by ids, never patient data. */
export interface AuditLine {
  readonly site: string | null
  readonly account: string | null
  readonly action: string
  readonly about?: string
}

/** A row of the chain as it is sealed. */
export interface SealedLine extends Required<AuditLine> {
  readonly seq: number
  /** ISO 8601, UTC, to the millisecond. */
  readonly at: string
  readonly previousHash: string
}

/** A row that is known outside of the database: what comes after it may be missing, it itself may not. */
export interface Anchor {
  readonly seq: number
  readonly hash: string
}

/** So many rows may be cut from the end after a crash before it shows; a server that stops in order leaves none. */
const ANCHOR_EVERY = 20

/**
 * Seals audit rows with a key, and writes every twentieth row's seal to a file outside of the database, and the last one as the server stops.
 * @example new Sealer(key, '/var/lib/awl/audit-anchors.jsonl').hashOf(line) // 64 hexadecimal digits
 */
export class Sealer {
  private last: Anchor | undefined
  private anchored = 0

  /**
   * @param key secret, kept outside of the database
   * @param anchorFile where seals are noted, one JSON line each; none for a server that notes none
   */
  constructor(
    private readonly key: string,
    readonly anchorFile?: string,
  ) {
    this.anchored = this.anchors().at(-1)?.seq ?? 0
  }

  /** The seal of a row: of all that it says and of the seal before it. Fields are a JSON list, so that nothing can be moved from one to the next. */
  hashOf({ previousHash, seq, site, account, action, about, at }: SealedLine): string {
    return this.hashOfText(JSON.stringify([previousHash, seq, site, account, action, about, at]))
  }

  /** HMAC-SHA256 with the key. @param text in a form in which the same content is always the same text @returns 64 hexadecimal digits */
  hashOfText(text: string): string {
    return createHmac('sha256', this.key).update(text).digest('hex')
  }

  /** A key for another purpose, from which this one cannot be worked out. @returns 32 bytes */
  derive(purpose: string): Buffer {
    return Buffer.from(hkdfSync('sha256', this.key, '', purpose, 32))
  }

  /** Takes note of the newest row that was committed. */
  noted(anchor: Anchor): void {
    if (anchor.seq <= (this.last?.seq ?? 0)) return
    this.last = anchor
    if (anchor.seq - this.anchored >= ANCHOR_EVERY) this.anchor()
  }

  /** Writes the newest seal out: called as the server stops. */
  anchor(): void {
    if (!this.anchorFile || !this.last || this.last.seq <= this.anchored) return
    mkdirSync(dirname(this.anchorFile), { recursive: true })
    appendFileSync(this.anchorFile, `${JSON.stringify({ seq: this.last.seq, hash: this.last.hash })}\n`, { mode: 0o600 })
    this.anchored = this.last.seq
  }

  /** What was written out so far, in the order of the rows; a last line that was cut short by a crash is left out. */
  anchors(): readonly Anchor[] {
    if (!this.anchorFile || !existsSync(this.anchorFile)) return []
    const read = readFileSync(this.anchorFile, 'utf8')
      .split('\n')
      .flatMap((line) => {
        try {
          const { seq, hash } = JSON.parse(line) as Partial<Anchor>
          return typeof seq === 'number' && typeof hash === 'string' ? [{ seq, hash }] : []
        } catch {
          return []
        }
      })
    return read.sort((a, b) => a.seq - b.seq)
  }
}
