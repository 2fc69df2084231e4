import pg from 'pg'
import { committed, dropWaiting, sealAsPool, sealWaiting } from '../audit/queries.js'

export type Db = pg.PoolClient | pg.Pool

/**
 * A machine that is gone answers nothing, not even that it does not answer. How long a statement, a lock and an idle transaction may take is said by
 * the role of the application, in the database.
 */
const SILENCE_MS = 20_000

/**
 * A pool that survives a restart of the database: a lost connection is logged, not thrown. A connection in use has a listener of its own:
 * the pool hears only idle ones, and one that is lost between two statements of a request would end the server.
 */
export function connect(url: string, log: (message: string) => void): pg.Pool {
  const pool = new pg.Pool({
    connectionString: url,
    max: 10,
    connectionTimeoutMillis: 4000,
    idleTimeoutMillis: 30_000,
    query_timeout: SILENCE_MS,
    keepAlive: true,
  })
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
  return again(async () => {
    const db = await pool.connect()
    let broken = false
    try {
      sealAsPool(pool, db)
      await db.query(begin)
      const result = await work(db)
      const { sql, newest } = await sealWaiting(db)
      await commit(db, sql)
      committed(pool, newest)
      return result
    } catch (error) {
      broken = isLostDatabase(error)
      if (!broken)
        await db.query('rollback').catch(() => {
          broken = true
        })
      throw error
    } finally {
      dropWaiting(db)
      db.release(broken)
    }
  })
}

/** Thrown where nobody knows whether a unit of work was stored: it is not done again here. Whoever sent it sends it again, and it is stored once. */
class UnknownOutcome extends Error {
  override readonly name = 'UnknownOutcome'
}

/**
 * Commits, with what is done last sent along. A commit that waits for a standby and is cancelled says that it succeeded, with a warning: it stands on one machine alone and is not
 * acknowledged.
 */
async function commit(db: pg.PoolClient, last: string): Promise<void> {
  const heard: (string | undefined)[] = []
  const hear = ({ routine }: { readonly routine?: string | undefined }): void => void heard.push(routine)
  db.on('notice', hear)
  try {
    await db.query(`${last}commit`)
  } catch (error) {
    throw isLostDatabase(error) ? new UnknownOutcome('the connection was lost while it was stored', { cause: error }) : error
  } finally {
    db.off('notice', hear)
  }
  if (heard.includes('SyncRepWaitForLSN')) throw new UnknownOutcome('it was stored on one machine alone')
}

/** While the database changes over from one machine to another, so much is tried again here; whoever waits longer is told to come again. */
const PAUSES_MS = [50, 250, 1000]

/** Does again what a lost connection, or another unit of work, has interrupted. @param work of which nothing is stored when it fails, or only read */
export async function again<R>(work: () => Promise<R>): Promise<R> {
  for (const pause of PAUSES_MS) {
    try {
      return await work()
    } catch (error) {
      if (!isInterrupted(error)) throw error
      await new Promise((wake) => setTimeout(wake, pause))
    }
  }
  return work()
}

const CONNECTION_CODES = new Set(['ECONNREFUSED', 'ECONNRESET', 'ETIMEDOUT', 'EPIPE', '57P01', '57P02', '57P03', '08006', '08003', '08000', '08P01', '25006'])
const CROSSED = ['40001', '40P01']

/** True when the database could not do it in time, or not beside what it does: the client may try again. */
export const isBusyDatabase = (error: unknown): boolean => ['57014', '55P03', '25P03', ...CROSSED].includes((error as { code?: string }).code ?? '')

/** A database that takes no connection at all is not asked again at once: its answer took long enough. */
const isInterrupted = (error: unknown): boolean =>
  !(error instanceof UnknownOutcome) &&
  !/timeout/i.test((error as Error).message) &&
  (isLostDatabase(error) || CROSSED.includes((error as { code?: string }).code ?? ''))

/** True when the database could not be reached, or is not the one that takes changes any more: the client may try again. */
export function isLostDatabase(error: unknown): boolean {
  if (error instanceof UnknownOutcome) return true
  const { code, message } = error as { code?: string; message?: string }
  return (
    (code !== undefined && CONNECTION_CODES.has(code)) ||
    /Connection terminated|not queryable|timeout exceeded when trying to connect|timeout expired|Query read timeout/i.test(message ?? '')
  )
}
