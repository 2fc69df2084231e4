import { openDB, type IDBPDatabase } from 'idb'
import { EntryForm } from '@kneecap-awl/contract'
import { entriesOfToday, type Entry } from '@kneecap-awl/core'
import { Check } from 'typebox/value'

interface Kept {
  readonly id: string
  readonly examination: string
  readonly entry: Entry
  /** Why the server did not take it: it is not sent again by itself. */
  readonly refused?: string
}

export interface Refused {
  readonly entry: Entry
  readonly reason: string
}

let opened: Promise<IDBPDatabase> | undefined
const database = (): Promise<IDBPDatabase> => (opened ??= openDB('kneecap-awl', 1, { upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'id' }) }))

/** What is kept for an examination. A row that no longer holds an entry is shown as refused, never sent and never lost by itself. */
async function allOf(examination: string): Promise<Kept[]> {
  const rows = ((await (await database()).getAll('outbox')) as Kept[]).filter((one) => one.examination === examination)
  const entries = entriesOfToday(rows.map((row) => row.entry))
  return rows.map((row, at) => ({ ...row, entry: entries[at] ?? row.entry })).map((row) => (isWhole(row) ? row : damaged(row)))
}

/** Formats of times and ids are the server's to check: here only the shape is. */
const isWhole = ({ id, entry }: Kept): boolean => Check(EntryForm, entry) && entry.id === id
const damaged = (row: Kept): Kept => ({
  ...row,
  entry: { id: row.id, item: 'unreadable', side: 'none', state: 'not-examined', by: 'unknown', at: new Date(0).toISOString() },
  refused: 'what was kept on this device can no longer be read',
})

async function change(ids: readonly string[], to: (kept: Kept) => Kept): Promise<void> {
  const tx = (await database()).transaction('outbox', 'readwrite')
  for (const id of ids) {
    const kept = (await tx.store.get(id)) as Kept | undefined
    if (kept) void tx.store.put(to(kept))
  }
  await tx.done
}

/** Entries that the server has not acknowledged yet. They outlive the page; what the server refused is kept until somebody sets it aside. */
export const outbox = {
  async add(examination: string, entries: readonly Entry[]): Promise<void> {
    const tx = (await database()).transaction('outbox', 'readwrite')
    for (const entry of entries) void tx.store.put({ id: entry.id, examination, entry } satisfies Kept)
    await tx.done
  },
  async waiting(examination: string): Promise<Entry[]> {
    return (await allOf(examination)).filter((one) => one.refused === undefined).map((one) => one.entry)
  },
  async refused(examination: string): Promise<Refused[]> {
    return (await allOf(examination)).flatMap(({ entry, refused }) => (refused === undefined ? [] : [{ entry, reason: refused }]))
  },
  /** How many findings of any examination wait on this device. */
  async count(): Promise<number> {
    return (await database()).count('outbox')
  },
  async refuse(reasons: ReadonlyMap<string, string>): Promise<void> {
    await change([...reasons.keys()], (kept) => ({ ...kept, refused: reasons.get(kept.id) ?? 'refused' }))
  },
  /** Sends what was refused once more. */
  async tryAgain(ids: readonly string[]): Promise<void> {
    await change(ids, ({ id, examination, entry }) => ({ id, examination, entry }))
  },
  async done(ids: readonly string[]): Promise<void> {
    const tx = (await database()).transaction('outbox', 'readwrite')
    for (const id of ids) void tx.store.delete(id)
    await tx.done
  },
}
