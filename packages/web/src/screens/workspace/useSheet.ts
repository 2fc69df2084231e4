import { useCallback, useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { judgedSides, sidesOf, type FlagVerdict, type HoldVerdict, type Item, type Pack, type Side } from '@kneecap-awl/core'
import type { ExaminationDetail } from '../../api/queries'
import { useRecord, type Draft } from '../../record/useRecord'
import { useKeys } from './useKeys'
import { layoutOf } from './layout'
import { useWorkspace } from './useWorkspace'
import type { Answer } from './ValueControl'

export type SidePick = 'both' | 'right' | 'left'

/** What the examiner does on the sheet: which stop and row are in hand, answering, and the keys. */
export function useSheet(detail: ExaminationDetail, pack: Pack, by: string, complaints: readonly string[], amends: string | undefined) {
  const navigate = useNavigate()
  const { entries, stored, record, undo } = useRecord(detail, by, amends)
  const [fetched, setFetched] = useState<ReadonlySet<string>>(new Set())
  const view = useWorkspace(pack, detail, entries, fetched)
  const { stops, items, entryOf, heldBy, isAnswered } = view
  const [stopId, setStopId] = useState('story')
  const [rowId, setRowId] = useState('')
  const [pick, setPick] = useState<SidePick>('both')
  const [couldNot, setCouldNot] = useState<Item>()
  const [lifting, setLifting] = useState<{ item: Item; hold: HoldVerdict }>()
  const [lifted, setLifted] = useState<ReadonlyMap<string, { hold: string; reason: string }>>(new Map())
  const [showKeys, setShowKeys] = useState(false)
  const isReadOnly = detail.signedAt !== null && !amends
  const stop = stops.find((one) => one.stop.id === stopId) ?? stops[0]
  const rows = stop?.items ?? []
  const current = items.get(rowId)
  useComplaints(complaints, detail, pack, record, entries.length)

  const go = useCallback((id: string): void => {
    setStopId(id)
    setRowId('')
  }, [])
  const goToItem = useCallback(
    (id: string): void => {
      const item = items.get(id)
      if (!item) return
      setFetched((now) => new Set([...now, id]))
      setStopId(item.stage === 'patient' ? 'story' : (layoutOf(pack).stopOf.get(id) ?? 'screen'))
      setRowId(id)
      requestAnimationFrame(() => document.getElementById(`row-${id}`)?.scrollIntoView({ block: 'center' }))
    },
    [items, pack],
  )
  const answer = useCallback(
    (item: Item, side: Side, given: Answer): void => {
      const override = lifted.get(item.id)
      record([{ item: item.id, side, state: 'examined', ...given, ...(override ? { override } : {}) }])
    },
    [lifted, record],
  )
  const lift = useCallback((item: Item, hold: HoldVerdict) => setLifting({ item, hold }), [])
  const giveReason = (reason: string): void => {
    if (lifting) setLifted((now) => new Map([...now, [lifting.item.id, { hold: lifting.hold.id, reason }]]))
    setLifting(undefined)
  }
  const liftFlag = (flag: FlagVerdict, reason: string): void => record([{ item: flag.id, side: flag.side, state: 'lifted', reason }])
  const isBlocked = (item: Item): boolean => heldBy.has(item.id) && !lifted.has(item.id)

  const normal = (item: Item): Draft[] => {
    if (!item.normal || isBlocked(item)) return []
    const override = lifted.get(item.id)
    return sidesOf(item, pick === 'both' ? undefined : [pick]).map((side) => ({
      item: item.id,
      side,
      state: 'examined' as const,
      ...item.normal,
      ...(override ? { override } : {}),
    }))
  }
  const markRest = (): void => record(rows.filter((item) => !item.answeredAlone && item.stage !== 'story' && !isAnswered(item)).flatMap(normal))
  const move = (by: number): void => {
    const at = rows.findIndex((item) => item.id === rowId)
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))]
    if (!next) return
    setRowId(next.id)
    document.getElementById(`row-${next.id}`)?.scrollIntoView({ block: 'nearest' })
  }
  const step = (by: number): void => {
    const at = stops.findIndex((one) => one.stop.id === stop?.stop.id)
    const next = stops[Math.min(stops.length - 1, Math.max(0, at + by))]
    if (next) go(next.stop.id)
  }
  /** A digit is the grade itself where the item is graded, else the nth choice; it answers the sore side, or the side picked. */
  const grade = (digit: string): void => {
    if (!current || isBlocked(current) || current.options.length === 0 || current.kind === 'multi') return
    const value = current.scale && current.options.includes(digit) ? digit : current.options[Number(digit) - 1]
    if (value === undefined) return
    for (const side of sidesOf(current, pick === 'both' ? view.sides : [pick])) {
      const qualifiers = entryOf(current.id, side)?.qualifiers
      answer(current, side, { value, ...(qualifiers ? { qualifiers } : {}) })
    }
  }
  const openVerdict = (): void => void navigate(`/examinations/${detail.id}/verdict`)
  const looking = { n: () => step(1), p: () => step(-1), v: openVerdict, '?': () => setShowKeys(true), ArrowDown: () => move(1), ArrowUp: () => move(-1) }
  const recording = {
    '.': () => {
      if (current) record(normal(current))
      move(1)
    },
    '>': markRest,
    digit: (event: KeyboardEvent) => grade(event.key),
    r: () => setPick(pick === 'right' ? 'both' : 'right'),
    l: () => setPick(pick === 'left' ? 'both' : 'left'),
    b: () => setPick('both'),
    x: () => current && setCouldNot(current),
    u: undo,
  }
  useKeys(isReadOnly ? looking : { ...looking, ...recording }, !couldNot && !lifting && !showKeys)

  return {
    view, stored, record, stop, rows, rowId, setRowId, current, pick, isReadOnly, lifted,
    go, goToItem, answer, lift, liftFlag, markRest, step, openVerdict,
    couldNot, setCouldNot, lifting, setLifting, giveReason, showKeys, setShowKeys,
  } // prettier-ignore
}

/** What was tapped at the start fills the story once, and is not asked again. */
function useComplaints(complaints: readonly string[], detail: ExaminationDetail, pack: Pack, record: (drafts: readonly Draft[]) => void, known: number): void {
  const done = useRef(false)
  useEffect(() => {
    if (done.current || complaints.length === 0 || known > 4) return
    done.current = true
    record(complaints.flatMap((one) => complaintDrafts(one, detail, pack)))
  }, [complaints, detail, known, pack, record])
}

function complaintDrafts(complaint: string, detail: ExaminationDetail, pack: Pack): Draft[] {
  const [id = '', word = ''] = complaint.split('=')
  const item = pack.items.find((candidate) => candidate.id === id)
  if (!item) return []
  const value = item.kind === 'multi' ? [word] : word
  return sidesOf(item, judgedSides(pack, detail)).map((side) => ({ item: id, side, state: 'examined' as const, value }))
}
