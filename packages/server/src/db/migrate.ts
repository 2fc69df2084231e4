import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import pg from 'pg'

const FOLDER = new URL('../../migrations/', import.meta.url)

/** Runs the numbered SQL files that this database has not seen, each in a transaction of its own. @returns the files that ran */
export async function migrate(ownerUrl: string, appPassword: string): Promise<string[]> {
  const db = new pg.Client({ connectionString: ownerUrl })
  await db.connect()
  try {
    await ensureAppRole(db, appPassword)
    await db.query('create table if not exists migration (name text primary key, at timestamptz not null default now())')
    const done = new Set((await db.query<{ name: string }>('select name from migration')).rows.map((row) => row.name))
    const files = readdirSync(fileURLToPath(FOLDER))
      .filter((name) => name.endsWith('.sql') && !done.has(name))
      .sort()
    for (const name of files) await runFile(db, name)
    return files
  } finally {
    await db.end()
  }
}

async function runFile(db: pg.Client, name: string): Promise<void> {
  await db.query('begin')
  try {
    await db.query(readFileSync(fileURLToPath(new URL(name, FOLDER)), 'utf8'))
    await db.query('insert into migration (name) values ($1)', [name])
    await db.query('commit')
  } catch (error) {
    await db.query('rollback')
    throw new Error(`migration ${name} failed: ${(error as Error).message}`, { cause: error })
  }
}

async function ensureAppRole(db: pg.Client, password: string): Promise<void> {
  const quoted = pg.escapeLiteral(password)
  const known = await db.query("select 1 from pg_roles where rolname = 'awl_app'")
  await db.query(known.rowCount === 0 ? `create role awl_app login password ${quoted}` : `alter role awl_app login password ${quoted}`)
}
