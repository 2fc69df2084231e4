import { openDB, type IDBPDatabase } from 'idb'
import type { Entry } from '@kneecap-awl/core'

interface Waiting {
  readonly id: string
  readonly examination: string
  readonly entry: Entry
}

let opened: Promise<IDBPDatabase> | undefined
const database = (): Promise<IDBPDatabase> => (opened ??= openDB('kneecap-awl', 1, { upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'id' }) }))

/** Entries that the server has not acknowledged yet. They outlive the page. */
export const outbox = {
  async add(examination: string, entries: readonly Entry[]): Promise<void> {
    const tx = (await database()).transaction('outbox', 'readwrite')
    for (const entry of entries) void tx.store.put({ id: entry.id, examination, entry } satisfies Waiting)
    await tx.done
  },
  async waiting(examination: string): Promise<Entry[]> {
    const all = (await (await database()).getAll('outbox')) as Waiting[]
    return all.filter((one) => one.examination === examination).map((one) => one.entry)
  },
  async done(ids: readonly string[]): Promise<void> {
    const tx = (await database()).transaction('outbox', 'readwrite')
    for (const id of ids) void tx.store.delete(id)
    await tx.done
  },
}
