import { isDecision, isFinding, subjectOf } from './decisions.js'
import type { Decision, Entry, EntryOf, FindingEntry, Said } from './entry.js'
import { recordOf } from './record.js'

/** Who undoes: on which device, in which name, and since when this sitting lasts (ISO 8601). */
export interface Undoer {
  readonly by: string
  readonly device: string
  readonly since: string
}

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

/** What a finding says of its item and side, to be said once more by a new one. @example saidAgain(absentPulse) // { item: …, side: 'right', state: 'examined', value: 'absent' } */
export function saidAgain(entry: FindingEntry): Said<FindingEntry> {
  const { item, side, value, qualifiers, reason } = entry
  const said = { item, side, ...(value === undefined ? {} : { value }), ...(qualifiers ? { qualifiers } : {}) }
  return entry.state === 'could-not'
    ? { ...said, state: entry.state, reason: entry.reason }
    : { ...said, state: entry.state, ...(reason === undefined ? {} : { reason }) }
}

/**
 * What takes a batch back: what stood before stands again, by a new entry; nothing is erased. Nothing is decided by an undo: a decision is
 * taken back, never made again.
 */
export function takingBack(entries: readonly Entry[], batch: readonly Entry[]): readonly Said[] {
  const ids = new Set(batch.map((entry) => entry.id))
  const gone = new Set(entries.flatMap((entry) => entry.undoes ?? []))
  const before = recordOf(entries).without((entry) => ids.has(entry.id) || gone.has(entry.id) || entry.undoes !== undefined)
  return batch.map((entry): Said => {
    const undoes = [entry.id]
    if (isDecision(entry)) return { ...withdrawal(entry), undoes }
    const { about, side } = subjectOf(entry)
    const stood = before.slot(about, side)?.standing
    if (!stood || !isFinding(stood)) return { item: entry.item, side, state: 'not-examined', undoes }
    const { override, settles } = stood
    return { ...saidAgain(stood), undoes, ...(override ? { override } : {}), ...(settles ? { settles } : {}) }
  })
}

/** What takes a decision back. @example withdrawal(lifted) // { state: 'withdrawn', decision: 'lifted', of: 'knee.septic', side: 'right' } */
function withdrawal(decision: Decision): Said<EntryOf<'withdrawn'>> {
  if (decision.state === 'withdrawn') {
    const { decision: what, of, side } = decision
    return { state: 'withdrawn', decision: what, ...(of === undefined ? {} : { of }), ...(side === undefined ? {} : { side }) }
  }
  if (decision.state === 'chosen' || decision.state === 'accepted') return { state: 'withdrawn', decision: decision.state }
  const { about: of, side } = subjectOf(decision)
  return { state: 'withdrawn', decision: decision.state, of, side }
}
