import { useCallback, useState } from 'react'
import { useNavigate } from 'react-router'
import {
  itemsById,
  saidAgain,
  sidesOf,
  subjectOf,
  type Entry,
  type FindingEntry,
  type FlagVerdict,
  type Item,
  type RegionPack,
  type Side,
  type StandingHold,
} from '@kneecap-awl/core'
import type { ExaminationDetail } from '../../api/queries'
import { useRecord, type Draft } from '../../record/useRecord'
import type { Said } from './Notice'
import { normalDrafts, restOfStop, whyNotNormal, wordOfDigit, type SheetState } from './restOfStop'
import { useKeys } from './useKeys'
import { layoutOf, type Order } from './layout'
import { useOrder } from './OrderPicker'
import { usePlace } from './usePlace'
import { useWorkspace } from './useWorkspace'
import type { Answer } from './ValueControl'

export type SidePick = 'both' | 'right' | 'left'

/** What the examiner does on the sheet: which stop and row are in hand, answering, and the keys. */
export function useSheet(detail: ExaminationDetail, pack: RegionPack, by: string, amends: string | undefined) {
  const navigate = useNavigate()
  const { entries, arrived, record, undo, ...sending } = useRecord(detail, by, amends)
  const { place, goStop, goRow } = usePlace()
  const [fetched, setFetched] = useState<ReadonlySet<string>>(() => new Set(place.row === '' ? [] : [place.row]))
  const { order, setOrder } = useOrder()
  const view = useWorkspace(pack, detail, entries, fetched, order)
  const { items, entryOf, holdOf, releasedBy } = view
  const [pick, setPick] = useState<SidePick>('both')
  const [couldNot, setCouldNot] = useState<Item>()
  const [lifting, setLifting] = useState<{ item: Item; hold: StandingHold }>()
  const [lifted, setLifted] = useState<ReadonlyMap<string, { hold: string; reason: string }>>(new Map())
  const [showKeys, setShowKeys] = useState(false)
  const [said, setSaid] = useState<Said>()
  const [toldOf, setToldOf] = useState(arrived)
  if (toldOf !== arrived) {
    setToldOf(arrived)
    setSaid({ text: arrivedWords(pack, arrived), left: [] })
  }
  const isReadOnly = (detail.signedAt !== null && !amends) || detail.discardedAt !== null
  const stopHere = view.stops.some((one) => one.stop.id === place.stop) ? place.stop : layoutOf(pack, order).stopOf.get(place.row)
  // A station with nothing to ask is not shown, unless somebody stands in it.
  const stops = view.stops.filter((one) => one.items.length > 0 || one.stop.id === stopHere)
  const stop = stops.find((one) => one.stop.id === stopHere) ?? stops[0]
  const rows = stop?.items ?? []
  const current = items.get(place.row)

  const go = useCallback(
    (id: string): void => {
      setSaid(undefined)
      goStop(id)
    },
    [goStop],
  )
  const goToItem = useCallback(
    (id: string): void => {
      const item = items.get(id)
      if (!item) return
      setFetched((now) => new Set([...now, id, ...(item.alongside === undefined ? [] : [item.alongside])]))
      goRow(id, item.stage === 'patient' ? 'story' : (layoutOf(pack, order).stopOf.get(id) ?? 'screen'))
      requestAnimationFrame(() => requestAnimationFrame(() => document.getElementById(`row-${id}`)?.scrollIntoView({ block: 'center' })))
    },
    [goRow, items, order, pack],
  )
  /** Goes on in the other order, at the row in hand. */
  const changeOrder = (next: Order): void => {
    setOrder(next)
    goRow(place.row, layoutOf(pack, next).stopOf.get(place.row === '' ? (rows[0]?.id ?? '') : place.row) ?? 'story')
  }
  const overrideOf = useCallback(
    (item: Item): FindingEntry['override'] => {
      const release = releasedBy.get(item.id)
      return lifted.get(item.id) ?? (release ? { hold: release.hold, reason: release.reason } : undefined)
    },
    [lifted, releasedBy],
  )
  const answer = useCallback(
    (item: Item, side: Side, given: Answer): void => {
      const override = overrideOf(item)
      setSaid(undefined)
      record([{ item: item.id, side, state: 'examined', ...given, ...(override ? { override } : {}) }])
    },
    [overrideOf, record],
  )
  const lift = useCallback((item: Item, hold: StandingHold) => setLifting({ item, hold }), [])
  /** Goes on against a hold: for this test alone, or for all that it stops. */
  const giveReason = (reason: string, isForAll: boolean): void => {
    if (!lifting) return
    const { item, hold } = lifting
    if (isForAll) record([{ state: 'released', hold: hold.id, side: hold.side, reason }])
    else setLifted((now) => new Map([...now, [item.id, { hold: hold.id, reason }]]))
    setLifting(undefined)
  }
  /** Which of two findings that do not agree is right: it is recorded once more, and ends the question. */
  const decide = useCallback(
    (right: FindingEntry, other: FindingEntry): void => {
      record([{ ...saidAgain(right), settles: [right.id, other.id] }])
    },
    [record],
  )
  const liftFlag = useCallback((flag: FlagVerdict, reason: string): void => record([{ state: 'lifted', flag: flag.id, side: flag.side, reason }]), [record])
  const setPriority = useCallback((draft: Draft): void => record([draft]), [record])
  const isBlocked = (item: Item): boolean => holdOf.has(item.id) && !lifted.has(item.id)
  const state: SheetState = { entryOf, isBlocked, overrideOf, ...(pick === 'both' ? {} : { sides: [pick] }) }

  /** One press, one row: the row in hand, or the first that is open. What needs a reading says so and is left. */
  const markNormal = (): void => {
    const item = rows.find((one) => one.id === place.row) ?? rows.find((one) => normalDrafts(one, state).length > 0) ?? rows[0]
    if (!item || stop?.stop.id === 'story') return
    const why = whyNotNormal(item, state)
    const drafts = why === undefined ? normalDrafts(item, state) : []
    if (why !== undefined) setSaid({ text: `${item.label}: ${why}.`, left: [] })
    else if (drafts.length === 0) setSaid({ text: `${item.label} is answered already and stays as it is.`, left: [] })
    else setSaid(undefined)
    record(drafts)
    goAfter(item.id)
  }
  const markRest = (): void => {
    const { drafts, recorded, left } = restOfStop(rows, state)
    record(drafts)
    const names = recorded.map((item) => item.label).join(', ')
    setSaid({
      text: recorded.length > 0 ? `Recorded as examined and normal, ${recorded.length}: ${names}.` : 'Nothing could be recorded as normal here.',
      left,
    })
  }
  const takeBack = (): void => {
    const batch = undo()
    const labels = [...new Set(batch.map((entry) => nameOf(pack, entry)))]
    setSaid({ text: labels.length > 0 ? `Taken back: ${labels.join(', ')}.` : 'Nothing recorded here in this sitting is left to take back.', left: [] })
  }
  const goAfter = (id: string, by = 1): void => {
    const at = rows.findIndex((item) => item.id === id)
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))]
    if (!next) return
    goRow(next.id)
    document.getElementById(`row-${next.id}`)?.scrollIntoView({ block: 'nearest' })
  }
  const step = (by: number): void => {
    const at = stops.findIndex((one) => one.stop.id === stop?.stop.id)
    const next = stops[Math.min(stops.length - 1, Math.max(0, at + by))]
    setSaid(undefined)
    if (next) goStop(next.stop.id)
  }
  /** A digit is the grade itself where the item is graded, else the nth choice; it answers the sore side, or the side picked. */
  const grade = (digit: string): void => {
    if (!current || isBlocked(current)) return
    const value = wordOfDigit(current, digit)
    if (value === undefined) return
    for (const side of sidesOf(current, pick === 'both' ? view.sides : [pick])) {
      const qualifiers = entryOf(current.id, side)?.qualifiers
      answer(current, side, { value, ...(qualifiers ? { qualifiers } : {}) })
    }
  }
  const openVerdict = (): void => void navigate(`/examinations/${detail.id}/verdict`)
  const looking = {
    n: () => step(1),
    p: () => step(-1),
    v: openVerdict,
    '/': () => document.getElementById('find-item')?.focus(),
    '?': () => setShowKeys(true),
    ArrowDown: () => goAfter(place.row, 1),
    ArrowUp: () => goAfter(place.row, -1),
  }
  const recording = {
    '.': markNormal,
    '>': markRest,
    digit: (event: KeyboardEvent) => grade(event.key),
    r: () => setPick(pick === 'right' ? 'both' : 'right'),
    l: () => setPick(pick === 'left' ? 'both' : 'left'),
    b: () => setPick('both'),
    x: () => (current ? setCouldNot(current) : setSaid({ text: 'Pick the row first: arrow keys, or a press on it.', left: [] })),
    u: takeBack,
  }
  useKeys(isReadOnly ? looking : { ...looking, ...recording }, !couldNot && !lifting && !showKeys)

  return {
    view, order, changeOrder, entries, sending, record, decide, stops, stop, rows, rowId: place.row, setRowId: goRow, current, pick, isReadOnly, lifted, said, setSaid,
    go, goToItem, answer, lift, liftFlag, setPriority, markRest, takeBack, step, openVerdict,
    couldNot, setCouldNot, lifting, setLifting, giveReason, showKeys, setShowKeys,
  } // prettier-ignore
}

/** Names that are told at once; the rows show all. */
const NAMED = 6

/** What was recorded on another device meanwhile, by whom. */
function arrivedWords(pack: RegionPack, arrived: readonly Entry[]): string {
  const names = [...new Set(arrived.map((entry) => nameOf(pack, entry)))]
  const more = names.length - NAMED
  return `Recorded meanwhile by ${[...new Set(arrived.map(({ by }) => by))].join(', ')}: ${names.slice(0, NAMED).join(', ')}${more > 0 ? ` and ${more} more` : ''}.`
}

/** What an entry speaks of, by name and side. */
function nameOf(pack: RegionPack, entry: Entry): string {
  const { about, side } = subjectOf(entry)
  const titled = [...pack.flags, ...pack.holds].find(({ id }) => id === about)?.title
  return `${itemsById(pack).get(about)?.label ?? titled ?? about}${side === 'none' ? '' : ` ${side}`}`
}
