import {
  checkEntries,
  hasLetters,
  isDecision,
  isReason,
  isSameEntry,
  LEAST_WORDS,
  plainEntry,
  subjectOf,
  type Entry,
  type Fault,
  type Pack,
} from '@kneecap-awl/core'
import type { Outcome } from '@kneecap-awl/contract'
import type { Db } from '../db/connect.js'
import { badInput, HttpProblem } from '../http/problem.js'
import { addEntries, entriesById, timesOf, type ExaminationRow, type Writer } from './queries.js'

/** Entries as a device sends them, with the time by the clock that stamped them, as they were sent. */
interface SentEntries {
  readonly entries: readonly Entry[]
  readonly sentAt?: string
}

/** A clock that is off by less says nothing: the way to the server takes a moment too. Expert. */
const CLOCK_TOLERANCE_MS = 5000
const FUTURE_TOLERANCE_MS = 60_000
const DAY_MS = 86_400_000

/**
 * Stores entries of an examination. An entry that is stored already with the same content is left as it is; one whose id stands for
 * something else is refused, and its sender keeps it. All are checked before any is stored.
 * @param receivedAt when they came in: the clock that orders what several devices record
 * @returns one outcome for each entry, in the order in which they were sent
 * @throws HttpProblem 400 for what cannot be an entry, 409 for a record that takes none
 */
export async function storeEntries(
  db: Db,
  pack: Pack,
  row: Pick<ExaminationRow, 'id' | 'startedAt' | 'signedAt' | 'discardedAt'>,
  sent: SentEntries,
  by: Writer & { readonly name: string },
  receivedAt = new Date(),
): Promise<{ readonly outcomes: readonly Outcome[]; readonly stored: readonly Entry[] }> {
  const entries = inServerTime(sent, receivedAt).map((entry) => sentBy(plainEntry(entry), by.name))
  const faults = [
    ...checkEntries(pack, entries),
    ...entries.flatMap((entry, at) => [...timeFaults(entry, `/entries/${at}`, row.startedAt, receivedAt), ...personFaults(entry, `/entries/${at}`, by.name)]),
  ]
  if (faults.length > 0) throw badInput(faults)
  if (row.discardedAt) throw new HttpProblem(409, 'discarded', 'This draft was discarded. Nothing can be added to it.')
  if (row.signedAt && entries.some((entry) => !entry.amends))
    throw new HttpProblem(409, 'already-signed', 'This examination is signed. Change it by an amendment with a reason.')
  const known = await entriesById(
    db,
    entries.map((entry) => entry.id),
  )
  const fresh = await inOrderOfReceipt(
    db,
    row.id,
    entries.filter((entry, at) => !known.has(entry.id) && entries.findIndex((one) => one.id === entry.id) === at),
  )
  const added = await addEntries(db, by, row.id, fresh)
  const stored = fresh.filter((entry) => added.has(entry.id))
  const byId = new Map(stored.map((entry) => [entry.id, entry]))
  const outcomes = entries.map((entry): Outcome => {
    const mine = byId.get(entry.id) ?? known.get(entry.id)?.entry
    if (!mine || (known.has(entry.id) && known.get(entry.id)?.examination !== row.id))
      return { id: entry.id, state: 'refused', reason: 'this id already stands for an entry of another examination' }
    if (!saysTheSame(entry, mine)) return { id: entry.id, state: 'refused', reason: 'this id already stands for an entry that says something else' }
    return { id: entry.id, state: known.has(entry.id) ? 'already' : 'stored', at: mine.at }
  })
  return { outcomes, stored }
}

/**
 * Keeps entries that this server writes itself: facts of the patient's own record, copies for another joint of the visit, demonstration cases.
 * They are checked like any other.
 * @throws Error when one cannot be an entry: that is a fault of the program
 */
export async function keepEntries(db: Db, pack: Pack, examination: string, entries: readonly Entry[], by: Writer): Promise<void> {
  const faults = checkEntries(pack, entries)
  if (faults.length > 0) throw new Error(faults.map(({ path, reason }) => `${path} ${reason}`).join('; '))
  await addEntries(db, by, examination, entries)
}

/** Of a record from elsewhere: what its reader may take over, and decisions in the name of others, which nobody here has made. */
export function ownDecisions(entries: readonly Entry[], name: string): { readonly own: readonly Entry[]; readonly ofOthers: readonly Entry[] } {
  const isOthers = (entry: Entry): boolean => isDecision(entry) && entry.by !== name
  return { own: entries.filter((entry) => !isOthers(entry)), ofOthers: entries.filter(isOthers) }
}

/**
 * An entry is by whoever sent it; what it says itself about who recorded it is only said, and is kept as that. A decision in another name is
 * refused: see `personFaults`.
 */
const sentBy = (entry: Entry, name: string): Entry => (entry.by === name || isDecision(entry) ? entry : { ...entry, by: name, saidBy: entry.by })

/** Entries put right by as much as the clock that stamped them was off when they were sent; what it said stays beside it. */
function inServerTime({ entries, sentAt }: SentEntries, receivedAt: Date): readonly Entry[] {
  const offBy = sentAt === undefined ? 0 : receivedAt.getTime() - Date.parse(sentAt)
  if (Math.abs(offBy) <= CLOCK_TOLERANCE_MS) return entries
  return entries.map((entry) =>
    Number.isNaN(Date.parse(entry.at)) ? entry : { ...entry, at: new Date(Date.parse(entry.at) + offBy).toISOString(), deviceAt: entry.deviceAt ?? entry.at },
  )
}

/** A finding is not older than the visit by more than a day, and not of the future. */
function timeFaults({ at }: Entry, path: string, startedAt: string, receivedAt: Date): Fault[] {
  const time = Date.parse(at)
  const [from, to] = [Date.parse(startedAt) - DAY_MS, receivedAt.getTime() + FUTURE_TOLERANCE_MS]
  return Number.isNaN(time) || (time >= from && time <= to)
    ? []
    : [{ path: `${path}/at`, reason: `"${at}" lies outside this visit`, expected: `from ${new Date(from).toISOString()} to ${new Date(to).toISOString()}` }]
}

/** Decisions are the signed-in clinician's own; an amendment says why in words; who recorded it has a name. */
function personFaults(entry: Entry, path: string, name: string): Fault[] {
  const { by, amends } = entry
  return [
    ...(isDecision(entry) && by !== name ? [{ path: `${path}/by`, reason: `"${by}" is not signed in`, expected: `${name}, who is` }] : []),
    ...(hasLetters(by) ? [] : [{ path: `${path}/by`, reason: 'is nobody', expected: 'a name with letters' }]),
    ...(amends !== undefined && !isReason(amends) ? [{ path: `${path}/amends`, reason: 'says no reason', expected: LEAST_WORDS }] : []),
  ]
}

/** Of two entries of one item and side that bear the same time the one that was received later stands: its time is moved on by a millisecond. */
async function inOrderOfReceipt(db: Db, examination: string, entries: readonly Entry[]): Promise<readonly Entry[]> {
  if (entries.length === 0) return entries
  const taken = await timesOf(
    db,
    examination,
    entries.map((entry) => subjectOf(entry).about),
  )
  return entries.map((entry) => {
    const { about, side } = subjectOf(entry)
    const slot = (at: number): string => `${about}|${side}|${at}`
    let at = Date.parse(entry.at)
    while (taken.has(slot(at))) at++
    taken.add(slot(at))
    return at === Date.parse(entry.at) ? entry : { ...entry, at: new Date(at).toISOString(), deviceAt: entry.deviceAt ?? entry.at }
  })
}

/** Whether an entry that is sent again is the one that was stored, whatever the server made of its time. */
const saysTheSame = (sent: Entry, stored: Entry): boolean => isSameEntry(asSent(sent), asSent(stored))
const asSent = ({ deviceAt, ...entry }: Entry): Entry => ({ ...entry, at: new Date(deviceAt ?? entry.at).toISOString() })
