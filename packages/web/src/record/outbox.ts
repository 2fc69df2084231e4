import { openDB, type IDBPDatabase } from 'idb'
import { EntryForm } from '@kneecap-awl/contract'
import { entriesOfToday, type Entry } from '@kneecap-awl/core'
import { Check } from 'typebox/value'
import { vault, type Wrapped } from './vault'

/** A row as it lies on the device. One of before there was encryption holds its entry openly, and is of whoever the entry says. */
interface Row {
  readonly id: string
  readonly examination: string
  readonly kept?: Wrapped
  readonly entry?: Entry
  /** Why the server did not take it: it is not sent again by itself. */
  readonly refused?: string
}

interface Kept {
  readonly id: string
  readonly entry: Entry
  readonly refused?: string
}

export interface Refused {
  readonly entry: Entry
  readonly reason: string
}

let opened: Promise<IDBPDatabase> | undefined
const database = (): Promise<IDBPDatabase> => (opened ??= openDB('kneecap-awl', 1, { upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'id' }) }))

const isOwn = ({ kept, entry }: Row): boolean => {
  const { account, name } = vault.holder ?? {}
  return kept ? kept.account === account || kept.account === '' : entry?.by === undefined || entry.by === name || account === undefined
}
const rowsOf = async (examination: string): Promise<Row[]> =>
  ((await (await database()).getAll('outbox')) as Row[]).filter((one) => one.examination === examination)

/**
 * What the account that is signed in keeps for an examination. A row that no longer holds an entry is shown as refused, never sent and never lost by
 * itself; what somebody else recorded here waits for them, and is never sent in another name.
 */
async function ownOf(examination: string): Promise<Kept[]> {
  const rows = (await rowsOf(examination)).filter(isOwn)
  const read = await Promise.all(rows.map(async ({ kept, entry }) => (kept ? vault.unwrap(kept) : entry)))
  const entries = entriesOfToday(read.map((one) => (one ?? {}) as Entry))
  return rows.map(({ id, refused }, at) => {
    const entry = entries[at]
    return entry && isWhole(id, entry) ? { id, entry, ...(refused === undefined ? {} : { refused }) } : damaged(id)
  })
}

/** Formats of times and ids are the server's to check: here only the shape is. */
const isWhole = (id: string, entry: Entry): boolean => Check(EntryForm, entry) && entry.id === id
const damaged = (id: string): Kept => ({
  id,
  entry: { id, item: 'unreadable', side: 'none', state: 'not-examined', by: 'unknown', at: new Date(0).toISOString() },
  refused: 'what was kept on this device can no longer be read',
})

async function change(ids: readonly string[], to: (row: Row) => Row): Promise<void> {
  const tx = (await database()).transaction('outbox', 'readwrite')
  for (const id of ids) {
    const row = (await tx.store.get(id)) as Row | undefined
    if (row) void tx.store.put(to(row))
  }
  await tx.done
}

/** Entries that the server has not acknowledged yet. They outlive the page; what the server refused is kept until somebody sets it aside. */
export const outbox = {
  async add(examination: string, entries: readonly Entry[]): Promise<void> {
    // Encrypted first: a transaction of the browser's database waits for nothing else.
    const rows = await Promise.all(entries.map(async (entry): Promise<Row> => ({ id: entry.id, examination, kept: await vault.wrap(entry) })))
    const tx = (await database()).transaction('outbox', 'readwrite')
    for (const row of rows) void tx.store.put(row)
    await tx.done
  },
  async waiting(examination: string): Promise<Entry[]> {
    return (await ownOf(examination)).filter((one) => one.refused === undefined).map((one) => one.entry)
  },
  async refused(examination: string): Promise<Refused[]> {
    return (await ownOf(examination)).flatMap(({ entry, refused }) => (refused === undefined ? [] : [{ entry, reason: refused }]))
  },
  /** How many findings of any examination and anybody wait on this device. */
  async count(): Promise<number> {
    return (await database()).count('outbox')
  },
  /** How many of them somebody else recorded for this examination. */
  async ofOthers(examination: string): Promise<number> {
    return (await rowsOf(examination)).filter((row) => !isOwn(row)).length
  },
  async refuse(reasons: ReadonlyMap<string, string>): Promise<void> {
    await change([...reasons.keys()], (row) => ({ ...row, refused: reasons.get(row.id) ?? 'refused' }))
  },
  /** Sends what was refused once more. */
  async tryAgain(ids: readonly string[]): Promise<void> {
    await change(ids, ({ refused: _, ...row }) => row)
  },
  async done(ids: readonly string[]): Promise<void> {
    const tx = (await database()).transaction('outbox', 'readwrite')
    for (const id of ids) void tx.store.delete(id)
    await tx.done
  },
}
