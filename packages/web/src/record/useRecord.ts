import { useCallback, useEffect, useRef, useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import type { Entry } from '@kneecap-awl/core'
import { ApiProblem, api } from '../api/http'
import type { ExaminationDetail } from '../api/queries'
import { newId } from './newId'
import { outbox } from './outbox'

export type Draft = Pick<Entry, 'item' | 'side' | 'state'> & Partial<Pick<Entry, 'value' | 'qualifiers' | 'reason' | 'override'>>
export type Stored =
  { readonly kind: 'stored' } | { readonly kind: 'sending' | 'waiting'; readonly count: number } | { readonly kind: 'refused'; readonly why: string }

const RETRY_MS = 2500
const BATCH = 200

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
  const lastBatch = useRef<readonly Entry[]>([])
  const sending = useRef(false)
  const client = useQueryClient()

  const flush = useCallback(async () => {
    if (sending.current) return
    sending.current = true
    try {
      for (;;) {
        const waiting = (await outbox.waiting(detail.id)).slice(0, BATCH)
        if (waiting.length === 0) break
        setStored({ kind: 'sending', count: waiting.length })
        await api('POST', `/api/examinations/${detail.id}/entries`, { entries: waiting })
        await outbox.done(waiting.map((entry) => entry.id))
      }
      setStored({ kind: 'stored' })
      void client.invalidateQueries({ queryKey: ['desk'] })
    } catch (error) {
      if (error instanceof ApiProblem && error.status < 500 && error.status !== 401 && error.status !== 429) {
        const refused = await outbox.waiting(detail.id)
        await outbox.done(refused.map((entry) => entry.id))
        setEntries((now) => now.filter((entry) => !refused.some((one) => one.id === entry.id)))
        setStored({ kind: 'refused', why: error.message })
      } else {
        setStored({ kind: 'waiting', count: (await outbox.waiting(detail.id)).length })
        setTimeout(() => void flush(), RETRY_MS)
      }
    } finally {
      sending.current = false
    }
  }, [client, detail.id])

  useEffect(() => {
    void outbox.waiting(detail.id).then((waiting) => {
      if (waiting.length === 0) return
      setEntries((now) => [...now, ...waiting.filter((entry) => !now.some((one) => one.id === entry.id))])
      void flush()
    })
    const again = (): void => void flush()
    window.addEventListener('online', again)
    return () => window.removeEventListener('online', again)
  }, [detail.id, flush])

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
      lastBatch.current = made
      add(made)
    },
    [add, amends, by],
  )

  const undo = useCallback(() => {
    const batch = lastBatch.current
    lastBatch.current = []
    if (batch.length === 0) return
    const at = new Date().toISOString()
    const ids = new Set(batch.map((entry) => entry.id))
    const before = (entry: Entry): Entry | undefined =>
      entries.filter((one) => one.item === entry.item && one.side === entry.side && !ids.has(one.id)).sort((a, b) => (a.at < b.at ? 1 : -1))[0]
    add(
      batch.map((entry) => {
        const earlier = before(entry)
        return earlier
          ? { ...earlier, id: newId(), by, at }
          : { id: newId(), item: entry.item, side: entry.side, state: 'not-examined' as const, by, at, ...(amends ? { amends } : {}) }
      }),
    )
  }, [add, amends, by, entries])

  return { entries, stored, record, undo }
}
