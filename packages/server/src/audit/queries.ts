import pg from 'pg'
import type { Anchor, AuditLine, Sealer } from './seal.js'

/** Whatever speaks to the database. */
type Connection = pg.Pool | pg.PoolClient | pg.Client

/** Lines of a unit of work, sealed together as its last statement: the lock of the chain is held for that moment alone. */
const waiting = new WeakMap<Connection, AuditLine[]>()
const sealers = new WeakMap<Connection, Sealer>()

/** Says with which key the units of work of a pool, or of one connection, are sealed. */
export const sealWith = (db: Connection, sealer: Sealer): void => void sealers.set(db, sealer)

/** @throws Error where none was said: a fault of the program */
export function sealerOf(db: Connection): Sealer {
  const sealer = sealers.get(db)
  if (!sealer) throw new Error('audit rows and verdicts are written without a sealer')
  return sealer
}

/** A connection that was taken from a pool seals as its pool does. */
export function sealAsPool(pool: pg.Pool, db: pg.PoolClient): void {
  const sealer = sealers.get(pool)
  if (sealer) sealers.set(db, sealer)
}

/**
 * Adds a line to the chain of who did and read what: it is sealed as the unit of work ends, and with a unit that fails it is not.
 * @param db a connection in a unit of work (`asSite`, `asOne`); `about` holds ids, never patient data
 */
export function addAudit(db: pg.PoolClient, line: AuditLine): void {
  waiting.set(db, [...(waiting.get(db) ?? []), line])
}

/** Whose names a list showed. */
export const idsOf = (shown: readonly { readonly id: string }[]): string => shown.map(({ id }) => id).join(' ')

/** What ends a unit of work: its audit rows, as statements, and the newest of them, to be noted once they are committed. */
interface Sealing {
  readonly sql: string
  readonly newest: Anchor | undefined
}

/**
 * Seals what waits on a connection: the last thing that its transaction does. The next number and the hash before it are read under the lock,
 * so the chain has no gap and no fork however many servers write. The rows are sent together with the commit: others wait for the lock until then.
 */
export async function sealWaiting(db: pg.PoolClient): Promise<Sealing> {
  const lines = waiting.get(db) ?? []
  waiting.delete(db)
  if (lines.length === 0) return { sql: '', newest: undefined }
  const sealer = sealerOf(db)
  const { rows } = await db.query<{ seq: string; hash: string }>('select seq, hash from hold_audit()')
  let last: Anchor = { seq: Number(rows[0]?.seq ?? 0), hash: rows[0]?.hash ?? '' }
  const values = lines.map(({ site, account, action, about = '' }) => {
    const line = { site, account, action, about, seq: last.seq + 1, at: new Date().toISOString(), previousHash: last.hash }
    const hash = sealer.hashOf(line)
    last = { seq: line.seq, hash }
    return `(${[String(line.seq), site, account, action, about, line.at, line.previousHash, hash].map(literal).join(', ')})`
  })
  return { sql: `insert into audit (seq, site_id, account_id, action, about, at, previous_hash, hash) values ${values.join(', ')};`, newest: last }
}
const literal = (value: string | null): string => (value === null ? 'null' : pg.escapeLiteral(value))

/** Drops what a unit of work that failed would have added. */
export const dropWaiting = (db: pg.PoolClient): void => void waiting.delete(db)

/** Takes note of a row that is now committed. */
export const committed = (pool: pg.Pool, newest: Anchor | undefined): void => {
  if (newest) sealers.get(pool)?.noted(newest)
}

/** What verification found: `faults` empty when the chain is whole. */
export interface AuditReport {
  /** Rows that are sealed with the key. */
  readonly sealed: number
  /** Rows of before: their seals were made in the database, so that whoever could write there could make them anew. */
  readonly unkeyed: number
  readonly faults: readonly string[]
}

interface Row {
  readonly seq: string
  readonly site: string | null
  readonly account: string | null
  readonly action: string
  readonly about: string
  readonly at: Date
  readonly previousHash: string
  readonly hash: string
  readonly isKeyed: boolean
  readonly fitsUnkeyed: boolean
}

/** Faults that are named; what follows a first one is mostly the same. */
const NAMED = 20

/**
 * Recomputes the whole chain and compares it with what was noted outside of the database: finds rows that were altered, deleted, inserted,
 * whose fields were moved, that were cut from the end, and a chain that was computed anew.
 * @param db as owner: every row is read
 * @example (await verifyAudit(pool, sealer)).faults // ['row 12 does not fit its seal']
 */
export async function verifyAudit(db: Connection, sealer: Sealer): Promise<AuditReport> {
  const { rows } = await db.query<Row>(`
    select seq, site_id as site, account_id as account, action, about, at, previous_hash as "previousHash", hash, is_keyed as "isKeyed",
           hash = encode(sha256(convert_to(concat_ws('|', previous_hash, site_id, account_id, action, about, extract(epoch from at)), 'UTF8')), 'hex') as "fitsUnkeyed"
    from audit order by seq`)
  const faults: string[] = []
  let before: Anchor | undefined
  let unkeyed = 0
  const hashes = new Map<number, string>()
  for (const row of rows) {
    const seq = Number(row.seq)
    hashes.set(seq, row.hash)
    if (!row.isKeyed) {
      unkeyed++
      if (before && hashes.size > unkeyed) faults.push(`row ${seq} claims to be of before, and stands after rows that are sealed`)
      if (!row.fitsUnkeyed) faults.push(`row ${seq} does not fit its seal`)
    } else {
      if (seq !== (before?.seq ?? 0) + 1) faults.push(`${before ? `after row ${before.seq}` : 'at the beginning'} rows are missing: the next is ${seq}`)
      if (row.previousHash !== (before?.hash ?? '')) faults.push(`row ${seq} does not follow the row before it`)
      if (sealer.hashOf({ ...row, seq, at: row.at.toISOString() }) !== row.hash) faults.push(`row ${seq} does not fit its seal`)
    }
    before = { seq, hash: row.hash }
  }
  for (const { seq, hash } of sealer.anchors()) {
    const found = hashes.get(seq)
    if (found === undefined) faults.push(`row ${seq}, noted outside of the database, is missing: rows were cut from the end`)
    else if (found !== hash) faults.push(`row ${seq} is not the one that was noted outside of the database: the chain was computed anew`)
  }
  const more = faults.length - NAMED
  return { sealed: rows.length - unkeyed, unkeyed, faults: more > 0 ? [...faults.slice(0, NAMED), `and ${more} more`] : faults }
}
