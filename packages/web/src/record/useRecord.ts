import { useCallback, useEffect, useRef, useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { fold, isDecided, slotKey, type Entry, type Side } from '@kneecap-awl/core'
import { ApiProblem } from '../api/http'
import type { ExaminationDetail } from '../api/queries'
import { newId } from './newId'
import { outbox } from './outbox'
import { BATCH, sendWaiting } from './sendWaiting'

export type Draft = Pick<Entry, 'item' | 'side' | 'state'> & Partial<Pick<Entry, 'value' | 'qualifiers' | 'reason' | 'override'>>
export type Stored =
  { readonly kind: 'stored' } | { readonly kind: 'sending' | 'waiting'; readonly count: number } | { readonly kind: 'refused'; readonly why: string }

interface Before {
  readonly item: string
  readonly side: Side
  readonly entry: Entry | undefined
}

const RETRY_MS = 2500

/**
 * The record of one examination on this device: entries are shown at once, kept in the outbox, and sent until the server has them.
 * A lost connection or server only delays the sending.
 */
export function useRecord(
  detail: ExaminationDetail,
  by: string,
  amends: string | undefined,
): {
  readonly entries: readonly Entry[]
  readonly stored: Stored
  readonly record: (drafts: readonly Draft[]) => void
  readonly undo: () => void
} {
  const [entries, setEntries] = useState<readonly Entry[]>(detail.entries)
  const [stored, setStored] = useState<Stored>({ kind: 'stored' })
  /** What stood before each batch, the newest last. */
  const undoable = useRef<(readonly Before[])[]>([])
  const latest = useRef(entries)
  useEffect(() => {
    latest.current = entries
  }, [entries])
  const sending = useRef(false)
  const fault = useRef('')
  const again = useRef<() => void>(() => undefined)
  const client = useQueryClient()

  const flush = useCallback(async () => {
    if (sending.current) return
    sending.current = true
    try {
      await sendWaiting(detail.id, (count) => setStored({ kind: 'sending', count }))
      setStored(fault.current === '' ? { kind: 'stored' } : { kind: 'refused', why: fault.current })
      void client.invalidateQueries({ queryKey: ['desk'] })
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 400) {
        fault.current = error.message
        const refused = await putAside(detail.id, error)
        setEntries((now) => now.filter((entry) => !refused.has(entry.id)))
        setTimeout(() => again.current(), 0)
        return
      }
      if (error instanceof ApiProblem && error.status === 409) return setStored({ kind: 'refused', why: error.message })
      setStored({ kind: 'waiting', count: (await outbox.waiting(detail.id)).length })
      setTimeout(() => again.current(), RETRY_MS)
    } finally {
      sending.current = false
    }
  }, [client, detail.id])

  useEffect(() => {
    void outbox.waiting(detail.id).then(async (kept) => {
      if (kept.length === 0) return
      // What was recorded after someone else had signed is kept, and goes in as an amendment once a reason is given.
      const waiting = amends ? kept.map((entry) => ({ ...entry, amends })) : kept
      if (amends) await outbox.add(detail.id, waiting)
      setEntries((now) => [...now, ...waiting.filter((entry) => !now.some((one) => one.id === entry.id))])
      void flush()
    })
    const now = (): void => void flush()
    again.current = now
    window.addEventListener('online', now)
    return () => window.removeEventListener('online', now)
  }, [amends, detail.id, flush])

  const add = useCallback(
    (made: readonly Entry[]) => {
      setEntries((now) => [...now, ...made])
      void outbox.add(detail.id, made).then(flush)
    },
    [detail.id, flush],
  )

  const record = useCallback(
    (drafts: readonly Draft[]) => {
      if (drafts.length === 0) return
      const at = new Date().toISOString()
      const made = drafts.map((draft) => ({ ...draft, id: newId(), by, at, ...(amends ? { amends } : {}) }))
      const standing = fold(latest.current)
      undoable.current.push(made.map(({ item, side }) => ({ item, side, entry: standing.get(slotKey(item, side)) })))
      fault.current = ''
      add(made)
    },
    [add, amends, by],
  )

  /** Takes the last batch back: what stood before stands again, by a new entry; nothing is erased. Nothing is decided by an undo. */
  const undo = useCallback(() => {
    const batch = undoable.current.pop()
    if (!batch) return
    const stamp = { by, at: new Date().toISOString(), ...(amends ? { amends } : {}) }
    add(
      batch.map(({ item, side, entry }) =>
        entry && !isDecided(entry.state) ? { ...entry, id: newId(), ...stamp } : { id: newId(), item, side, state: 'not-examined' as const, ...stamp },
      ),
    )
  }, [add, amends, by])

  return { entries, stored, record, undo }
}

/** Entries that the server cannot take leave the outbox, so that the rest can be sent. @returns their ids */
async function putAside(examination: string, error: ApiProblem): Promise<ReadonlySet<string>> {
  const sent = (await outbox.waiting(examination)).slice(0, BATCH)
  const named = error.faults.flatMap(({ path }) => sent[Number(/^\/entries\/(\d+)/.exec(path)?.[1] ?? -1)]?.id ?? [])
  const refused = new Set(named.length > 0 ? named : sent.map((entry) => entry.id))
  await outbox.done([...refused])
  return refused
}
