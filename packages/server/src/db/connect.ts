import pg from 'pg'
import { committed, dropWaiting, sealAsPool, sealWaiting } from '../audit/queries.js'

export type Db = pg.PoolClient | pg.Pool

/** Nothing waits for ever: neither for a locked table, nor for a statement, nor for a unit of work whose server hangs. */
const LIMITS_MS = { statement_timeout: 15_000, lock_timeout: 5_000, idle_in_transaction_session_timeout: 30_000 }

/**
 * A pool that survives a restart of the database: a lost connection is logged, not thrown. A connection in use has a listener of its own:
 * the pool hears only idle ones, and one that is lost between two statements of a request would end the server.
 */
export function connect(url: string, log: (message: string) => void): pg.Pool {
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 4000, idleTimeoutMillis: 30_000, ...LIMITS_MS })
  const lost = (error: Error): void => log(`database connection lost: ${error.message}`)
  pool.on('error', lost)
  pool.on('connect', (client) => client.on('error', lost))
  return pool
}

/** Runs one unit of work as a site: row-level security hides every other site's rows, and all of it is stored or none. */
export function asSite<R>(pool: pg.Pool, site: string, work: (db: pg.PoolClient) => Promise<R>): Promise<R> {
  // One way there and back for both: the site is named in the transaction and ends with it.
  return inTransaction(pool, `begin; select set_config('awl.site', ${pg.escapeLiteral(site)}, true)`, work)
}

/** Runs one unit of work of no site: all of it is stored or none, and what it adds to the audit is sealed as its last statement. */
export const asOne = <R>(pool: pg.Pool, work: (db: pg.PoolClient) => Promise<R>): Promise<R> => inTransaction(pool, 'begin', work)

async function inTransaction<R>(pool: pg.Pool, begin: string, work: (db: pg.PoolClient) => Promise<R>): Promise<R> {
  const db = await pool.connect()
  let broken = false
  try {
    sealAsPool(pool, db)
    await db.query(begin)
    const result = await work(db)
    const newest = await sealWaiting(db)
    await db.query('commit')
    committed(pool, newest)
    return result
  } catch (error) {
    await db.query('rollback').catch(() => {
      broken = true
    })
    throw error
  } finally {
    dropWaiting(db)
    db.release(broken)
  }
}

const CONNECTION_CODES = new Set(['ECONNREFUSED', 'ECONNRESET', 'ETIMEDOUT', 'EPIPE', '57P01', '57P02', '57P03', '08006', '08003', '08000'])

/** True when the database could not do it in time, or not beside what it does: the client may try again. */
export const isBusyDatabase = (error: unknown): boolean => ['57014', '55P03', '40001', '40P01', '25P03'].includes((error as { code?: string }).code ?? '')

/** True when the database could not be reached: the client may try again. */
export function isLostDatabase(error: unknown): boolean {
  const { code, message } = error as { code?: string; message?: string }
  return (
    (code !== undefined && CONNECTION_CODES.has(code)) ||
    /Connection terminated|not queryable|timeout exceeded when trying to connect|timeout expired/i.test(message ?? '')
  )
}
