import { isDecided } from './decisions.js'
import type { Entry } from './entry.js'
import { fold, slotKey } from './fold.js'

/** Who undoes: on which device, in which name, and since when this sitting lasts (ISO 8601). */
export interface Undoer {
  readonly by: string
  readonly device: string
  readonly since: string
}

/** What an entry that takes another back says, before it has an id and a time. */
export type TakingBack = Pick<Entry, 'item' | 'side' | 'state'> &
  Partial<Omit<Entry, 'id' | 'by' | 'at' | 'device' | 'deviceAt'>> & { readonly undoes: readonly string[] }

const recordedAt = (entry: Entry): string => entry.deviceAt ?? entry.at

/**
 * The last entries that this examiner recorded in one go on this device and did not take back yet, as they stand in the record: an undo is
 * derived from the record itself, so that it works after a reload too.
 * @example lastBatch([...calm, flexion95], me) // [flexion95]
 */
export function lastBatch(entries: readonly Entry[], { by, device, since }: Undoer): readonly Entry[] {
  const gone = new Set(entries.flatMap((entry) => entry.undoes ?? []))
  const mine = entries.filter(
    (entry) =>
      entry.by === by && entry.device === device && entry.undoes === undefined && !gone.has(entry.id) && Date.parse(recordedAt(entry)) >= Date.parse(since),
  )
  const last = mine.reduce((latest, entry) => Math.max(latest, Date.parse(recordedAt(entry))), 0)
  return mine.filter((entry) => Date.parse(recordedAt(entry)) === last)
}

/** What an entry says of its item and side, to be said once more by a new one. @example saidAgain(absentPulse) // { item: …, side: 'right', state: 'examined', value: 'absent' } */
export const saidAgain = ({
  item,
  side,
  state,
  value,
  qualifiers,
  reason,
}: Entry): Pick<Entry, 'item' | 'side' | 'state' | 'value' | 'qualifiers' | 'reason'> => ({
  item,
  side,
  state,
  ...(value === undefined ? {} : { value }),
  ...(qualifiers ? { qualifiers } : {}),
  ...(reason === undefined ? {} : { reason }),
})

/**
 * What takes a batch back: what stood before stands again, by a new entry; nothing is erased. Nothing is decided by an undo: a decision is
 * taken back, never made again.
 */
export function takingBack(entries: readonly Entry[], batch: readonly Entry[]): readonly TakingBack[] {
  const ids = new Set(batch.map((entry) => entry.id))
  const gone = new Set(entries.flatMap((entry) => entry.undoes ?? []))
  const before = fold(entries.filter((entry) => !ids.has(entry.id) && !gone.has(entry.id) && entry.undoes === undefined))
  return batch.map(({ id, item, side }) => {
    const stood = before.get(slotKey(item, side))
    if (!stood || isDecided(stood.state)) return { item, side, state: 'not-examined', undoes: [id] }
    const { override, settles } = stood
    return { ...saidAgain(stood), undoes: [id], ...(override ? { override } : {}), ...(settles ? { settles } : {}) }
  })
}
