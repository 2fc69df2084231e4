import { describe, expect, it } from 'vitest'
import { lastBatch, recordOf, takingBack, type Entry, type EntryOf, type FindingEntry } from '../src/index.js'
import { AS_OF, entriesFor, newId } from './support.js'

const me = { by: 'Dr A', device: 'one', since: AS_OF }
const second = (count: number): string => new Date(Date.parse(AS_OF) + count * 1000).toISOString()
const at = (count: number, findings: Parameters<typeof entriesFor>[0], more: Partial<Pick<FindingEntry, 'by' | 'device' | 'at'>> = {}): FindingEntry[] =>
  entriesFor(findings, 'right', second(count)).map((entry) => ({ ...entry, by: me.by, device: me.device, ...more }))
const undo = (entries: readonly Entry[], count: number): Entry[] => [
  ...entries,
  ...takingBack(entries, lastBatch(entries, me)).map((one) => ({ ...one, id: newId(), by: me.by, device: me.device, at: second(count) })),
]
const calf = (entries: readonly Entry[]): string => {
  const entry = recordOf(entries).slot('knee.feel.calf', 'right')?.standing
  return entry?.state === 'examined' ? String(entry.value) : (entry?.state ?? 'nothing')
}

describe('undo', () => {
  it('takes back one go after another, down to nothing, from the record alone', () => {
    let record: Entry[] = [
      ...at(1, { 'knee.feel.calf': '1' }),
      ...at(2, { 'knee.feel.calf': '2' }),
      ...at(3, { 'knee.feel.calf': '3', 'story.trauma': 'present' }),
    ]
    expect(lastBatch(record, me)).toHaveLength(2)
    const seen = [10, 11, 12, 13].map((count) => {
      record = undo(record, count)
      return calf(record)
    })
    expect(seen).toEqual(['2', '1', 'not-examined', 'not-examined'])
    expect(lastBatch(record, me)).toEqual([])
  })
  it('goes on with what was recorded after an undo', () => {
    let record = undo([...at(1, { 'knee.feel.calf': '1' }), ...at(2, { 'knee.feel.calf': '2' })], 3)
    record = [...record, ...at(4, { 'knee.feel.calf': '3' })]
    expect(calf(undo(record, 5))).toBe('1')
  })
  it.each<[string, Partial<Pick<FindingEntry, 'by' | 'device' | 'at'>>]>([
    ['another device', { device: 'two' }],
    ['another examiner', { by: 'Dr B' }],
    ['an earlier sitting', { at: second(-1) }],
  ])('leaves alone what is of %s', (_what, other) => {
    expect(lastBatch(at(1, { 'knee.feel.calf': '1' }, other), me)).toEqual([])
  })
  it('still knows a batch whose time the server put right', () => {
    const record = at(1, { 'knee.feel.calf': '1', 'story.trauma': 'present' }).map((entry, index) => ({
      ...entry,
      at: second(181 + index),
      deviceAt: entry.at,
    }))
    expect(lastBatch(record, me)).toHaveLength(2)
  })
  it('decides nothing: a decision is taken back, and an earlier one is not made again', () => {
    const lift = (count: number): EntryOf<'lifted'> => ({
      id: newId(),
      flag: 'any.flag.arterial-hard',
      side: 'right',
      state: 'lifted',
      reason: 'felt again',
      by: me.by,
      device: me.device,
      at: second(count),
    })
    const record = [lift(1), lift(2)]
    expect(takingBack(record, lastBatch(record, me))).toMatchObject([{ state: 'withdrawn', decision: 'lifted', of: 'any.flag.arterial-hard', side: 'right' }])
  })
})
