import { fileURLToPath } from 'node:url'
import pg from 'pg'
import Postgrator from 'postgrator'

const FOLDER = fileURLToPath(new URL('../../migrations/', import.meta.url))

/**
 * Brings a database to the newest numbered file: those that it has not seen run in order, all in one transaction, under a lock that a second
 * server waits for. A file that has changed since it ran is refused by its checksum.
 * @returns the names of the files that ran
 */
export async function migrate(ownerUrl: string, appPassword: string, folder = FOLDER): Promise<string[]> {
  const db = new pg.Client({ connectionString: ownerUrl })
  await db.connect()
  try {
    await db.query('begin')
    await db.query("select pg_advisory_xact_lock(hashtextextended('kneecap-awl migrations', 0))")
    await ensureAppRole(db, appPassword)
    const postgrator = new Postgrator({
      driver: 'pg',
      migrationPattern: `${folder}*.sql`,
      schemaTable: 'public.schemaversion',
      execQuery: (query) => db.query(query),
    })
    await takeOver(db, await postgrator.getMigrations())
    const ran = await postgrator.migrate()
    await db.query('commit')
    return ran.map(({ name }) => name)
  } catch (error) {
    await db.query('rollback')
    throw new Error(`the database could not be brought up to date: ${(error as Error).message}`, { cause: error })
  } finally {
    await db.end()
  }
}

/** A database of before kept the names of its files in a table of its own, without checksums. */
async function takeOver(db: pg.Client, files: readonly Postgrator.Migration[]): Promise<void> {
  const { rows } = await db.query<{ isOld: boolean }>(
    `select to_regclass('public.migration') is not null and to_regclass('public.schemaversion') is null as "isOld"`,
  )
  if (!rows[0]?.isOld) return
  await db.query('create table schemaversion (version bigint primary key, name text, md5 text, run_at timestamptz)')
  for (const { version, name, md5 } of files)
    await db.query('insert into schemaversion select $1::bigint, $2::text, $3::text, at from migration where name = $4', [
      version,
      name,
      md5,
      `${String(version).padStart(3, '0')}_${name}.sql`,
    ])
  await db.query('drop table migration')
}

async function ensureAppRole(db: pg.Client, password: string): Promise<void> {
  const quoted = pg.escapeLiteral(password)
  const known = await db.query("select 1 from pg_roles where rolname = 'awl_app'")
  await db.query(known.rowCount === 0 ? `create role awl_app login password ${quoted}` : `alter role awl_app login password ${quoted}`)
}
