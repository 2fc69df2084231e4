import { isDecision, isFinding, subjectOf } from './decisions.js'
import type { Decision, Entry, EntryOf, FindingEntry } from './entry.js'

/** By what an item on one side is known, or a flag, a hold or a decision. */
export const slotKey = (about: string, side: string): string => `${about}|${side}`

/** What was said of one thing: all of it, in the order in which it came in, and what stands. */
export interface Slot {
  readonly standing: Entry
  readonly all: readonly Entry[]
}

/** What clinicians decided, as far as it stands. */
export interface Decisions {
  /** Sets the priority: see `priorityOf`. */
  readonly choice: EntryOf<'chosen'> | undefined
  /** Leaves the range open: see `rangeToAccept`. */
  readonly acceptance: EntryOf<'accepted'> | undefined
  /** Releases holds: see `releaseOf`. */
  readonly releases: readonly EntryOf<'released'>[]
  /** Lifts flags: see `pastFlags`. */
  readonly lifts: readonly EntryOf<'lifted'>[]
}

/**
 * What was recorded, folded once: for each item and side, and for each decision, the entry with the latest `at` stands, ties broken by id.
 * Idempotent, and the order in which entries arrive does not matter.
 * @example recordOf([flexion95At9, flexion110At10]).finding('knee.move.flexion', 'right') // the entry of ten o'clock
 */
export class ExaminationRecord {
  private kept: Decisions | undefined

  private constructor(
    readonly entries: readonly Entry[],
    readonly slots: ReadonlyMap<string, Slot>,
  ) {}

  static from(entries: readonly Entry[]): ExaminationRecord {
    const slots = new Map<string, Slot>()
    for (const entry of entries) place(slots, entry)
    return new ExaminationRecord([...entries], slots)
  }

  /** The finding that stands of an item on one side; undefined when there is none or it was taken back. */
  finding(item: string, side: string): FindingEntry | undefined {
    const entry = this.slots.get(slotKey(item, side))?.standing
    return entry === undefined || !isFinding(entry) || entry.state === 'not-examined' ? undefined : entry
  }

  /** Every finding that stands and was not taken back. */
  get findings(): readonly FindingEntry[] {
    return [...this.slots.values()].flatMap(({ standing }) => (isFinding(standing) && standing.state !== 'not-examined' ? [standing] : []))
  }

  get decisions(): Decisions {
    return (this.kept ??= decisionsAmong([...this.slots.values()].map(({ standing }) => standing).filter(isDecision)))
  }

  /** The record after one more entry. */
  with(entry: Entry): ExaminationRecord {
    const slots = new Map(this.slots)
    place(slots, entry)
    return new ExaminationRecord([...this.entries, entry], slots)
  }

  /** The record as if some entries had never been made. */
  without(gone: (entry: Entry) => boolean): ExaminationRecord {
    return recordOf(this.entries.filter((entry) => !gone(entry)))
  }
}

const folded = new WeakMap<readonly Entry[], ExaminationRecord>()

/** The record of a list of entries, folded once for as long as the list lives and nothing is added to it. */
export function recordOf(entries: readonly Entry[]): ExaminationRecord {
  const known = folded.get(entries)
  if (known?.entries.length === entries.length) return known
  const record = ExaminationRecord.from(entries)
  folded.set(entries, record)
  return record
}

function place(slots: Map<string, Slot>, entry: Entry): void {
  const { about, side } = subjectOf(entry)
  const key = slotKey(about, side)
  const slot = slots.get(key)
  if (slot === undefined) slots.set(key, { standing: entry, all: [entry] })
  else slots.set(key, { standing: isLater(entry, slot.standing) ? entry : slot.standing, all: slot.all.includes(entry) ? slot.all : [...slot.all, entry] })
}

function decisionsAmong(standing: readonly Decision[]): Decisions {
  const of = <S extends Decision['state']>(state: S): EntryOf<S>[] => standing.filter((entry): entry is EntryOf<S> & Decision => entry.state === state)
  return { choice: of('chosen')[0], acceptance: of('accepted')[0], releases: of('released'), lifts: of('lifted') }
}

/** Whether an entry stands over another of the same item and side: later `at`, then the greater id. */
export const isLater = (a: Entry, b: Entry): boolean => compareTime(a, b) > 0

/** By time, then by id. */
export const compareTime = (a: Entry, b: Entry): number => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
