import { useCallback, useEffect, useReducer, useRef, useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { lastBatch, plainEntry, takingBack, type Entry, type FindingEntry, type Said } from '@kneecap-awl/core'
import { serverNow, timeOfFinding } from '../api/clock'
import { ApiProblem } from '../api/http'
import { signedIn } from '../api/signedOut'
import type { ExaminationDetail } from '../api/queries'
import { sittingSince, thisDevice } from './device'
import { holding } from './holding'
import { v7 as newId } from 'uuid'
import { outbox, type Refused } from './outbox'
import { sendWaiting, underTime } from './sendWaiting'

/** What is about to be recorded: it has no id, time and name yet. */
export type Draft = Said

/** A finding that is about to be recorded. */
export type FindingDraft = Said<FindingEntry>

/** Where the findings of this device are: with the server, on the way, kept here without a connection or a sign-in, or not taken for a reason. */
export type Stored =
  | { readonly kind: 'stored' }
  | { readonly kind: 'sending' | 'waiting' | 'signed-out'; readonly count: number }
  | { readonly kind: 'closed'; readonly why: string; readonly count: number }

export interface Recorded {
  readonly entries: readonly Entry[]
  /** What was recorded last on another device while this one looked. */
  readonly arrived: readonly Entry[]
  readonly stored: Stored
  /** What the server did not take, kept on this device until it is tried again or set aside. */
  readonly refused: readonly Refused[]
  /** Findings that somebody else recorded here and that wait for them. */
  readonly ofOthers: number
  readonly record: (drafts: readonly Draft[]) => void
  /** Takes back what was recorded last on this device. @returns the entries that were taken back */
  readonly undo: () => readonly Entry[]
  readonly tryAgain: (ids: readonly string[]) => void
  readonly setAside: (ids: readonly string[]) => void
}

const RETRY_MS = 2500

/**
 * The record of one examination on this device: entries are shown at once, kept in the outbox, and sent until the server has them.
 * A lost connection, server or sign-in only delays the sending.
 */
export function useRecord(detail: ExaminationDetail, by: string, amends: string | undefined): Recorded {
  const [entries, setEntries] = useState<readonly Entry[]>(detail.entries)
  const [stored, setStored] = useReducer(unlessAlike<Stored>, { kind: 'stored' })
  const [refused, setRefused] = useReducer(unlessAlike<readonly Refused[]>, [])
  const [ofOthers, setOfOthers] = useState(0)
  const [since] = useState(() => sittingSince(serverNow()))
  const latest = useRef(entries)
  useEffect(() => {
    latest.current = entries
  }, [entries])
  // What others recorded since, as the server told it: added to what stands here, of which nothing is taken away.
  const [seen, setSeen] = useState(detail.entries)
  const [arrived, setArrived] = useState<readonly Entry[]>([])
  if (seen !== detail.entries && notAmong(seen, detail.entries).length > 0) {
    setSeen(detail.entries)
    const more = notAmong(entries, detail.entries)
    if (more.length > 0) {
      setArrived(more)
      setEntries((now) => [...now, ...notAmong(now, more)])
    }
  }
  useEffect(() => holding.hold(detail.id, entries.length), [detail.id, entries.length])
  const sending = useRef(false)
  const again = useRef<() => void>(() => undefined)
  const client = useQueryClient()

  const flush = useCallback(async () => {
    if (sending.current) return
    sending.current = true
    try {
      const sent = await sendWaiting(detail.id, (count) => setStored({ kind: 'sending', count }))
      setEntries((now) => asStored(now, sent))
      setRefused(await outbox.refused(detail.id))
      setStored({ kind: 'stored' })
      void client.invalidateQueries({ queryKey: ['desk'] })
    } catch (error) {
      const count = (await outbox.waiting(detail.id)).length
      setRefused(await outbox.refused(detail.id))
      setStored(stateAfter(error, count))
      if (willEndByItself(error)) setTimeout(() => again.current(), RETRY_MS)
    } finally {
      sending.current = false
    }
  }, [client, detail.id])

  useEffect(() => {
    void outbox.refused(detail.id).then(setRefused)
    void outbox.ofOthers(detail.id).then(setOfOthers)
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
    const end = signedIn.listen(now)
    return () => {
      window.removeEventListener('online', now)
      end()
    }
  }, [amends, detail.id, flush])

  const record = useCallback(
    (drafts: readonly Draft[]) => {
      if (drafts.length === 0) return
      const stamp = { by, at: timeOfFinding(), device: thisDevice(), ...(amends ? { amends } : {}) }
      const made = drafts.map((draft) => plainEntry({ ...draft, id: newId(), ...stamp }))
      latest.current = [...latest.current, ...made]
      setEntries((now) => [...now, ...made])
      void outbox.add(detail.id, made).then(flush)
    },
    [amends, by, detail.id, flush],
  )

  const undo = useCallback((): readonly Entry[] => {
    const batch = lastBatch(latest.current, { by, device: thisDevice(), since })
    record(takingBack(latest.current, batch))
    return batch
  }, [by, record, since])

  const tryAgain = useCallback(
    (ids: readonly string[]) => {
      const mine = refused.filter(({ entry }) => ids.includes(entry.id)).map(({ entry }) => entry)
      setEntries((now) => [...now, ...mine.filter((entry) => !now.some((one) => one.id === entry.id))])
      void outbox.tryAgain(ids).then(flush)
    },
    [flush, refused],
  )
  const setAside = useCallback((ids: readonly string[]) => void outbox.done(ids).then(async () => setRefused(await outbox.refused(detail.id))), [detail.id])

  return { entries, arrived, stored, refused, ofOthers, record, undo, tryAgain, setAside }
}

/** What is the same as before is not told again: each telling paints the whole sheet. */
const unlessAlike = <T>(before: T, now: T): T => (JSON.stringify(before) === JSON.stringify(now) ? before : now)

function notAmong(here: readonly Entry[], told: readonly Entry[]): readonly Entry[] {
  const known = new Set(here.map(({ id }) => id))
  return told.filter(({ id }) => !known.has(id))
}

/** The record as the server has it: under its times, and without what it did not take. */
function asStored(
  entries: readonly Entry[],
  { times, refused }: { readonly times: ReadonlyMap<string, string>; readonly refused: readonly string[] },
): readonly Entry[] {
  const isOther = (entry: Entry): boolean => times.has(entry.id) && times.get(entry.id) !== entry.at
  if (refused.length === 0 && !entries.some(isOther)) return entries
  return entries.filter((entry) => !refused.includes(entry.id)).map((entry) => underTime(entry, times.get(entry.id)))
}

function stateAfter(error: unknown, count: number): Stored {
  if (!(error instanceof ApiProblem)) return { kind: 'waiting', count }
  if (error.status === 401) return { kind: 'signed-out', count }
  return error.status < 500 ? { kind: 'closed', why: error.message, count } : { kind: 'waiting', count }
}

const willEndByItself = (error: unknown): boolean => !(error instanceof ApiProblem) || error.status >= 500
