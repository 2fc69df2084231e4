import { cpSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import pg from 'pg'
import { migrate } from '../src/db/migrate.js'
import { newCluster, ROOT, type Cluster } from './database.js'

const FILES = join(ROOT, 'packages/server/migrations/')
const NAMES = readdirSync(FILES)
  .sort()
  .map((file) => file.split('.')[2] ?? '')

let cluster: Cluster
let owner = ''
const on = async <R extends object>(database: string, sql: string): Promise<R[]> => {
  const db = new pg.Client({ connectionString: database })
  await db.connect()
  return (await db.query<R>(sql).finally(() => db.end())).rows
}
/** A database of its own in the same cluster. */
async function empty(name: string): Promise<string> {
  await on(owner, `create database ${name}`)
  const url = new URL(owner)
  url.pathname = `/${name}`
  return url.href
}

beforeAll(async () => {
  cluster = await newCluster('migrate')
  owner = (await cluster.start()).ownerUrl
})
afterAll(() => cluster.remove())

describe('bringing a database up to date', () => {
  it('runs every file once, though two servers start at the same moment', async () => {
    const database = await empty('two_servers')
    const ran = await Promise.all([migrate(database, 'secret'), migrate(database, 'secret')])
    expect(ran.flat()).toEqual(NAMES)
    expect(await migrate(database, 'secret')).toEqual([])
  })
  it('refuses a file that has changed since it ran, and one that fails leaves nothing behind', async () => {
    const database = await empty('changed')
    const folder = join(ROOT, '.test', `migrations-${process.pid}/`)
    cpSync(FILES, folder, { recursive: true })
    writeFileSync(join(folder, '900.do.broken.sql'), 'create table half_done (id int); select nonsense;')
    await expect(migrate(database, 'secret', folder)).rejects.toThrow(/nonsense/)
    expect(await on(database, "select to_regclass('half_done') as half, to_regclass('entry') as entry")).toEqual([{ half: null, entry: null }])
    writeFileSync(join(folder, '900.do.broken.sql'), 'create table whole (id int);')
    await migrate(database, 'secret', folder)
    writeFileSync(join(folder, '900.do.broken.sql'), 'create table whole (id bigint);')
    await expect(migrate(database, 'secret', folder)).rejects.toThrow(/checksum/i)
  })
  it('takes over a database that kept the names of its files in a table of its own', async () => {
    const database = await empty('of_before')
    await migrate(database, 'secret', join(FILES, '00[1-4]'))
    await on(database, 'create table migration (name text primary key, at timestamptz not null default now())')
    await on(database, `insert into migration (name) select lpad(version::text, 3, '0') || '_' || name || '.sql' from schemaversion where version > 0`)
    await on(database, 'drop table schemaversion')
    expect(await migrate(database, 'secret')).toEqual(NAMES.slice(4))
    expect(await on(database, 'select count(md5)::int as sums from schemaversion')).toEqual([{ sums: NAMES.length }])
  })
})
