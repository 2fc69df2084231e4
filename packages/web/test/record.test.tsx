// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { openDB } from 'idb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { isFinding, type Entry, type FindingEntry } from '@kneecap-awl/core'
import { learnServerTime, serverNow, timeOfFinding } from '../src/api/clock'
import type { ExaminationDetail } from '../src/api/queries'
import { v7 as newId } from 'uuid'
import { outbox } from '../src/record/outbox'
import { sendWaiting } from '../src/record/sendWaiting'
import { useRecord } from '../src/record/useRecord'

let examination = ''
beforeEach(() => {
  examination = newId()
  localStorage.clear()
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const finding = (value: string): FindingEntry => ({
  id: newId(),
  item: 'knee.feel.calf',
  side: 'right',
  state: 'examined',
  value,
  by: 'Dr A',
  at: timeOfFinding(),
})

/** A server that answers each batch as it is told, and remembers what it was sent. */
function server(answer: (entries: readonly FindingEntry[]) => { readonly status?: number; readonly body?: object } | 'unreachable') {
  const sent: (readonly FindingEntry[])[] = []
  vi.stubGlobal('fetch', (_path: string, { body }: { body: string }) => {
    const { entries } = JSON.parse(body) as { entries: FindingEntry[] }
    sent.push(entries)
    const told = answer(entries)
    if (told === 'unreachable') return Promise.reject(new TypeError('no connection'))
    return Promise.resolve(new Response(JSON.stringify(told.body ?? stored(entries)), { status: told.status ?? 200 }))
  })
  return sent
}
const stored = (entries: readonly FindingEntry[]) => ({ outcomes: entries.map(({ id, at }) => ({ id, state: 'stored', at })) })
const kept = async () => ({ waiting: (await outbox.waiting(examination)).length, refused: (await outbox.refused(examination)).map(({ reason }) => reason) })

describe('sending what waits on this device', () => {
  it('lets go of what the server stored or had already, and keeps what it refused with the reason', async () => {
    const [one, two, three] = [finding('1'), finding('2'), finding('3')]
    await outbox.add(examination, [one, two, three])
    server(() => ({
      body: {
        outcomes: [
          { id: one.id, state: 'stored', at: one.at },
          { id: two.id, state: 'already', at: two.at },
          { id: three.id, state: 'refused', reason: 'this id already stands for something else' },
        ],
      },
    }))
    expect(await sendWaiting(examination)).toEqual({ times: new Map([one, two].map(({ id, at }) => [id, at])), refused: [three.id] })
    expect(await kept()).toEqual({ waiting: 0, refused: ['this id already stands for something else'] })
  })
  it('refuses only what the server named, and sends the others', async () => {
    const all = [finding('1'), finding('9'), finding('2')]
    await outbox.add(examination, all)
    const sent = server((entries) => {
      const at = entries.findIndex(({ value }) => value === '9')
      return at < 0 ? {} : { status: 400, body: { title: 'bad', faults: [{ path: `/entries/${at}/value`, reason: '"9" is not a value', expected: '0 to 3' }] } }
    })
    await sendWaiting(examination)
    expect(sent.map((batch) => batch.length)).toEqual([3, 2])
    expect(await kept()).toEqual({ waiting: 0, refused: ['"9" is not a value; expected 0 to 3'] })
  })
  it('lets one entry that the server fails on hold up none of the others', async () => {
    const all = Array.from({ length: 9 }, (_, at) => finding(at === 6 ? '9' : '1'))
    await outbox.add(examination, all)
    server((entries) => (entries.some(({ value }) => value === '9') ? { status: 500, body: { title: 'failed' } } : {}))
    await sendWaiting(examination)
    expect(await kept()).toEqual({ waiting: 0, refused: ['failed'] })
  })
  it.each([
    ['without a connection', 'unreachable' as const],
    ['signed out', { status: 401, body: { title: 'Sign in first.' } }],
    ['while the database is lost', { status: 503, body: { title: 'lost' } }],
    ['once it is signed by somebody else', { status: 409, body: { title: 'signed' } }],
  ])('loses nothing %s', async (_how, told) => {
    await outbox.add(examination, [finding('1'), finding('2')])
    server(() => told)
    await expect(sendWaiting(examination)).rejects.toThrow()
    expect(await kept()).toEqual({ waiting: 2, refused: [] })
  })
})

describe('what is kept on this device', () => {
  it('shows a row that can no longer be read as refused, sends the others, and loses neither', async () => {
    const whole = finding('1')
    await outbox.add(examination, [whole])
    const db = await openDB('kneecap-awl', 1)
    const broken = newId()
    await db.put('outbox', { id: broken, examination, entry: { id: broken, item: 7 } })
    db.close()
    server(() => ({}))
    await sendWaiting(examination)
    expect(await kept()).toEqual({ waiting: 0, refused: ['what was kept on this device can no longer be read'] })
    await outbox.done([broken])
  })
})

describe('the record of an examination on this device', () => {
  const detail = (): ExaminationDetail => ({ id: examination, entries: [], previous: [], visitWith: [] }) as unknown as ExaminationDetail
  const recording = () => {
    const client = new QueryClient()
    return renderHook(() => useRecord(detail(), 'Dr A', undefined), {
      wrapper: ({ children }: { readonly children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
    }).result
  }
  const calf = (value: string) => [{ item: 'knee.feel.calf', side: 'right' as const, state: 'examined' as const, value }]

  it('shows a finding at once, sends it with the time by its clock, and takes the time that the server gives', async () => {
    const later = new Date(serverNow() + 180_000).toISOString()
    server((entries) => ({ body: { outcomes: entries.map(({ id }) => ({ id, state: 'stored', at: later })) } }))
    const record = recording()
    act(() => record.current.record(calf('1')))
    const [made] = record.current.entries
    await waitFor(() => expect(record.current.entries).toMatchObject([{ id: made?.id, at: later, deviceAt: made?.at }]))
    expect(record.current.stored).toEqual({ kind: 'stored' })
  })
  it('tells signed out from no connection, and sends once somebody is signed in again', async () => {
    let isIn = false
    server(() => (isIn ? {} : { status: 401, body: { title: 'Sign in first.' } }))
    const record = recording()
    act(() => record.current.record(calf('1')))
    await waitFor(() => expect(record.current.stored).toEqual({ kind: 'signed-out', count: 1 }))
    isIn = true
    const { signedIn } = await import('../src/api/signedOut')
    act(() => signedIn.tell(undefined))
    await waitFor(() => expect(record.current.stored).toEqual({ kind: 'stored' }))
  })
  it('takes a refused finding out of the record, keeps it, and lets it be tried again or set aside', async () => {
    let isTaken = false
    server((entries) => (isTaken ? {} : { body: { outcomes: entries.map(({ id }) => ({ id, state: 'refused', reason: 'no' })) } }))
    const record = recording()
    act(() => record.current.record(calf('1')))
    await waitFor(() => expect(record.current.refused).toHaveLength(1))
    expect(record.current.entries).toEqual([])
    isTaken = true
    const id = record.current.refused[0]?.entry.id ?? ''
    act(() => record.current.tryAgain([id]))
    await waitFor(() => expect(record.current.refused).toEqual([]))
    expect(record.current.entries.map((entry) => entry.id)).toEqual([id])
  })
  it('takes back one go after another and says which', async () => {
    server(() => ({}))
    const record = recording()
    act(() => record.current.record(calf('1')))
    act(() => record.current.record(calf('2')))
    await waitFor(() => expect(record.current.stored).toEqual({ kind: 'stored' }))
    let taken: readonly Entry[] = []
    act(() => void (taken = record.current.undo()))
    expect(taken.map((entry) => isFinding(entry) && entry.value)).toEqual(['2'])
    act(() => void (taken = record.current.undo()))
    act(() => void (taken = record.current.undo()))
    expect(taken).toEqual([])
    expect(record.current.entries.at(-1)).toMatchObject({ state: 'not-examined' })
  })
})

describe('the clock of this device', () => {
  afterEach(() => learnServerTime(new Date().toUTCString(), Date.now(), Date.now()))
  it('is put right by what the server says, unless it is nearly right', () => {
    const now = Date.now()
    learnServerTime(new Date(now + 180_000).toUTCString(), now, now)
    expect(Math.abs(serverNow() - now - 180_000)).toBeLessThan(2500)
    learnServerTime(new Date(now + 2000).toUTCString(), now, now)
    expect(Math.abs(serverNow() - Date.now())).toBeLessThan(50)
  })
  it('never gives two findings the same time', () => {
    const times = Array.from({ length: 50 }, timeOfFinding)
    expect(new Set(times).size).toBe(50)
  })
})
