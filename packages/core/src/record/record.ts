import { SIDE_INDEX, type Side } from '../model/side.js'
import { isDecision, isFinding, subjectOf } from './decisions.js'
import type { Decision, Entry, EntryOf, FindingEntry } from './entry.js'

/** By what an item on one side is known, or a flag, a hold or a decision. */
export const slotKey = (about: string, side: string): string => `${about}|${side}`

/** What was said of one thing: what stands, and what it stands over, in the order in which it came in. */
export interface Slot {
  readonly standing: Entry
  readonly passed: readonly Entry[]
}

const NONE_PASSED: readonly Entry[] = []

/** Of one subject: its slots by side, right, left, none. */
type Sides = readonly [Slot | undefined, Slot | undefined, Slot | undefined]

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
  private ofAll: readonly Slot[] | undefined
  private ofRepeated: readonly Slot[] | undefined
  private decided: Decisions | undefined

  private constructor(
    readonly entries: readonly Entry[],
    private readonly subjects: ReadonlyMap<string, Sides>,
  ) {}

  static from(entries: readonly Entry[]): ExaminationRecord {
    const subjects = new Map<string, [Slot | undefined, Slot | undefined, Slot | undefined]>()
    for (const entry of entries) {
      const { about, side } = subjectOf(entry)
      const sides = subjects.get(about)
      const at = SIDE_INDEX[side]
      const made = sides ?? [undefined, undefined, undefined]
      made[at] = after(made[at], entry)
      if (!sides) subjects.set(about, made)
    }
    return new ExaminationRecord([...entries], subjects)
  }

  /** What was said of an item, a flag, a hold or a decision on one side. */
  slot(about: string, side: Side): Slot | undefined {
    return this.subjects.get(about)?.[SIDE_INDEX[side]]
  }

  get slots(): readonly Slot[] {
    return (this.ofAll ??= slotsOf(this.subjects))
  }

  /** Those of which something was said more than once. */
  get repeated(): readonly Slot[] {
    return (this.ofRepeated ??= this.slots.filter(({ passed }) => passed.length > 0))
  }

  /** The finding that stands of an item on one side; undefined when there is none or it was taken back. */
  finding(item: string, side: Side): FindingEntry | undefined {
    const entry = this.slot(item, side)?.standing
    return entry === undefined || !isFinding(entry) || entry.state === 'not-examined' ? undefined : entry
  }

  /** Every finding that stands and was not taken back. */
  get findings(): readonly FindingEntry[] {
    return this.slots.flatMap(({ standing }) => (isFinding(standing) && standing.state !== 'not-examined' ? [standing] : []))
  }

  get decisions(): Decisions {
    return (this.decided ??= decisionsAmong(this.slots.map(({ standing }) => standing).filter(isDecision)))
  }

  /** The record after one more entry. */
  with(entry: Entry): ExaminationRecord {
    const subjects = new Map(this.subjects)
    place(subjects, entry)
    return new ExaminationRecord([...this.entries, entry], subjects)
  }

  /** The record as if some entries had never been made. */
  without(gone: (entry: Entry) => boolean): ExaminationRecord {
    return recordOf(this.entries.filter((entry) => !gone(entry)))
  }
}

function slotsOf(subjects: ReadonlyMap<string, Sides>): readonly Slot[] {
  const slots: Slot[] = []
  for (const sides of subjects.values()) for (const slot of sides) if (slot !== undefined) slots.push(slot)
  return slots
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

const NOTHING: Sides = [undefined, undefined, undefined]

function place(subjects: Map<string, Sides>, entry: Entry): void {
  const { about, side } = subjectOf(entry)
  const sides = subjects.get(about) ?? NOTHING
  const at = SIDE_INDEX[side]
  subjects.set(about, sides.with(at, after(sides[at], entry)) as unknown as Sides)
}

function after(slot: Slot | undefined, entry: Entry): Slot {
  if (slot === undefined) return { standing: entry, passed: NONE_PASSED }
  const { standing, passed } = slot
  if (entry === standing || passed.includes(entry)) return slot
  return isLater(entry, standing) ? { standing: entry, passed: [...passed, standing] } : { standing, passed: [...passed, entry] }
}

function decisionsAmong(standing: readonly Decision[]): Decisions {
  const of = <S extends Decision['state']>(state: S): EntryOf<S>[] => standing.filter((entry): entry is EntryOf<S> & Decision => entry.state === state)
  return { choice: of('chosen')[0], acceptance: of('accepted')[0], releases: of('released'), lifts: of('lifted') }
}

/** Whether an entry stands over another of the same item and side: later `at`, then the greater id. */
export const isLater = (a: Entry, b: Entry): boolean => compareTime(a, b) > 0

/** By time, then by id. */
export const compareTime = (a: Entry, b: Entry): number => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
