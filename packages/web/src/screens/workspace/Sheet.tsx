import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { HoldVerdict, Item, Pack, Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { ExaminationDetail } from '../../api/queries'
import { Button, Soft } from '../../parts/controls'
import { Shell } from '../../parts/Shell'
import { ageAt } from '../../parts/times'
import { useRecord, type Draft, type Stored } from '../../record/useRecord'
import { BottomBar } from './BottomBar'
import { CouldNotDialogue, KeysDialogue, LiftDialogue } from './dialogues'
import { FindItem } from './FindItem'
import { ItemDetail } from './ItemDetail'
import { RouteRail } from './RouteRail'
import { SheetRow } from './SheetRow'
import { StoryCard } from './StoryCard'
import { homeOf, useSidePick, useWorkspace } from './useWorkspace'
import { useKeys } from './useKeys'
import type { Answer } from './ValueControl'
import { VerdictRail } from './VerdictRail'

/** The examination workspace: route on the left, the sheet facing the patient, the verdict on the right. */
export function Sheet({
  detail,
  pack,
  by,
  complaints,
  amends,
}: {
  readonly detail: ExaminationDetail
  readonly pack: Pack
  readonly by: string
  readonly complaints: readonly string[]
  readonly amends: string | undefined
}) {
  const navigate = useNavigate()
  const { entries, stored, record, undo } = useRecord(detail, by, amends)
  const [fetched, setFetched] = useState<ReadonlySet<string>>(new Set())
  const view = useWorkspace(pack, detail, entries, fetched)
  const { stops, items, entryOf, heldBy, verdict, isAnswered } = view
  const [stopId, setStopId] = useState('story')
  const [rowId, setRowId] = useState('')
  const { pick, setPick } = useSidePick()
  const [couldNot, setCouldNot] = useState<Item>()
  const [lifting, setLifting] = useState<{ item: Item; hold: HoldVerdict }>()
  const [lifted, setLifted] = useState<ReadonlyMap<string, { hold: string; reason: string }>>(new Map())
  const [showKeys, setShowKeys] = useState(false)
  const isReadOnly = detail.signedAt !== null && !amends
  const stop = stops.find((one) => one.stop.id === stopId) ?? stops[0]
  const current = items.get(rowId)
  useComplaints(complaints, detail, pack, record, entries.length)

  const go = useCallback((id: string): void => {
    setStopId(id)
    setRowId('')
  }, [])
  const goToItem = useCallback(
    (id: string): void => {
      const item = items.get(id)
      if (!item || !view.region) return
      setFetched((now) => new Set([...now, id]))
      setStopId(item.stage === 'patient' ? 'story' : homeOf(item, view.region))
      setRowId(id)
      requestAnimationFrame(() => document.getElementById(`row-${id}`)?.scrollIntoView({ block: 'center' }))
    },
    [items, view.region],
  )
  const answer = useCallback(
    (item: Item, side: Side, given: Answer): void => {
      const override = lifted.get(item.id)
      record([{ item: item.id, side, state: 'examined', ...given, ...(override ? { override } : {}) }])
    },
    [lifted, record],
  )
  const lift = useCallback((item: Item, hold: HoldVerdict) => setLifting({ item, hold }), [])
  const isBlocked = (item: Item): boolean => heldBy.has(item.id) && !lifted.has(item.id)

  const rows = stop?.items ?? []
  const sidesInHand = (item: Item): readonly Side[] => (!item.sided ? ['none'] : pick === 'both' ? ['left', 'right'] : [pick])
  const normal = (item: Item): Draft[] =>
    item.normal && !isBlocked(item)
      ? (sidesInHand(item).map((side) => ({
          item: item.id,
          side,
          state: 'examined' as const,
          ...item.normal,
          ...(lifted.has(item.id) ? { override: lifted.get(item.id) } : {}),
        })) as Draft[])
      : []
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
  const grade = (digit: string): void => {
    if (!current || isBlocked(current) || current.options.length === 0 || current.kind === 'multi') return
    const value = current.scale && current.options.includes(digit) ? digit : current.options[Number(digit) - 1]
    const sides: readonly Side[] = current.sided ? (pick === 'both' ? detail.sides : [pick]) : ['none']
    if (value !== undefined)
      sides.forEach((side) =>
        answer(current, side, { value, ...(entryOf(current.id, side)?.qualifiers ? { qualifiers: entryOf(current.id, side)?.qualifiers ?? {} } : {}) }),
      )
  }
  const markRest = (): void => record(rows.filter((item) => !item.answeredAlone && item.stage !== 'story' && !isAnswered(item)).flatMap(normal))
  const keys: Record<string, (event: KeyboardEvent) => void> = {
    '.': () => {
      if (!current) return move(1)
      record(normal(current))
      move(1)
    },
    '>': markRest,
    digit: (event) => grade(event.key),
    r: () => setPick(pick === 'right' ? 'both' : 'right'),
    l: () => setPick(pick === 'left' ? 'both' : 'left'),
    b: () => setPick('both'),
    x: () => current && setCouldNot(current),
    n: () => step(1),
    p: () => step(-1),
    u: undo,
    v: () => void navigate(`/examinations/${detail.id}/verdict`),
    '?': () => setShowKeys(true),
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
  }
  useKeys(
    isReadOnly ? { n: keys.n ?? (() => undefined), p: keys.p ?? (() => undefined), v: keys.v ?? (() => undefined), '?': keys['?'] ?? (() => undefined) } : keys,
    !couldNot && !lifting && !showKeys,
  )

  const searchable = useMemo(
    () => pack.items.filter((item) => item.stage !== 'patient' && item.stage !== 'story' && item.derive?.measure !== 'days-since'),
    [pack],
  )
  const because = verdict.asked.because
  if (!stop) return null
  return (
    <Shell
      heading={
        <>
          <Link to={`/patients/${detail.patientId}`}>
            <strong>{detail.patientName}</strong>
          </Link>{' '}
          <Soft>
            {ageAt(detail.birthDate)} · {detail.sides.join(' and ')} {detail.region} · {detail.setting === 'emergency' ? 'urgent care' : 'general practice'}
            {amends ? ' · amending' : detail.signedAt ? ' · signed, read only' : ''}
          </Soft>
        </>
      }
      actions={
        <>
          <FindItem items={searchable} onPick={goToItem} />
          <Button $tone="copper" onPress={() => void navigate(`/examinations/${detail.id}/verdict`)}>
            Verdict sheet
          </Button>
        </>
      }
    >
      <Frame>
        <Left>
          <RouteRail stops={stops} current={stop.stop.id} onGo={go} />
        </Left>
        <Middle key={stop.stop.id}>
          <Head>
            <h1>{stop.stop.title}</h1>
            <Soft>{stop.stop.advice}</Soft>
            {stop.stop.id !== 'story' && !isReadOnly && <Button onPress={markRest}>Rest of this stop normal</Button>}
          </Head>
          {stop.stop.id === 'story' ? (
            <StoryCard
              pack={pack}
              items={rows}
              because={because}
              sides={detail.sides}
              startedAt={detail.startedAt}
              isReadOnly={isReadOnly}
              entryOf={entryOf}
              isAnswered={isAnswered}
              onAnswer={answer}
              onRecord={record}
            />
          ) : (
            <>
              <Columns aria-hidden>
                <Column $sore={detail.sides.includes('right')} $end>
                  Right{detail.sides.includes('right') ? ', painful' : ''}
                </Column>
                <Soft>{pick === 'both' ? `${detail.sides.includes('right') ? 'left' : 'right'} first` : `${pick} side in hand`}</Soft>
                <Column $sore={detail.sides.includes('left')}>Left{detail.sides.includes('left') ? ', painful' : ''}</Column>
              </Columns>
              {rows.map((item) => (
                <SheetRow
                  key={item.id}
                  pack={pack}
                  item={item}
                  right={entryOf(item.id, 'right')}
                  left={entryOf(item.id, 'left')}
                  none={entryOf(item.id, 'none')}
                  complaint={detail.sides}
                  isCurrent={item.id === rowId}
                  because={item.depth === 'core' ? undefined : because.get(item.id)}
                  hold={heldBy.get(item.id)}
                  isLifted={lifted.has(item.id)}
                  isReadOnly={isReadOnly}
                  onFocus={setRowId}
                  onAnswer={answer}
                  onLift={lift}
                  onCouldNot={setCouldNot}
                />
              ))}
              {current && rows.includes(current) && <ItemDetail item={current} />}
            </>
          )}
          <Onward>
            <Button onPress={() => step(1)} isDisabled={stop.stop.id === stops[stops.length - 1]?.stop.id}>
              Next stop
            </Button>
          </Onward>
        </Middle>
        <VerdictRail pack={pack} verdict={verdict} open={view.open} conditions={view.conditions} firstSeen={view.firstSeen} onGo={goToItem} />
      </Frame>
      <BottomBar startedAt={detail.startedAt} stored={stored satisfies Stored} onKeys={() => setShowKeys(true)} />
      <CouldNotDialogue
        key={couldNot?.id ?? 'none'}
        item={couldNot}
        sides={pick === 'both' ? detail.sides : [pick]}
        onClose={() => setCouldNot(undefined)}
        onRecord={record}
      />
      <LiftDialogue
        key={lifting?.item.id ?? 'no lift'}
        about={lifting}
        onClose={() => setLifting(undefined)}
        onLift={(reason) => {
          if (lifting) setLifted((now) => new Map([...now, [lifting.item.id, { hold: lifting.hold.id, reason }]]))
          setLifting(undefined)
        }}
      />
      <KeysDialogue isOpen={showKeys} onClose={() => setShowKeys(false)} />
    </Shell>
  )
}

/** What was tapped at the start fills the story once, and is not asked again. */
function useComplaints(complaints: readonly string[], detail: ExaminationDetail, pack: Pack, record: (drafts: readonly Draft[]) => void, known: number): void {
  const done = useRef(false)
  useEffect(() => {
    if (done.current || complaints.length === 0 || known > 4) return
    done.current = true
    record(
      complaints.flatMap((one) => {
        const [id = '', value = ''] = one.split('=')
        const item = pack.items.find((candidate) => candidate.id === id)
        if (!item) return []
        return (item.sided ? detail.sides : (['none'] as const)).map((side) => ({ item: id, side, state: 'examined' as const, value }))
      }),
    )
  }, [complaints, detail, known, pack, record])
}

const Frame = styled.div`
  display: grid;
  grid-template-columns: 204px minmax(0, 1fr) 304px;
  height: calc(100vh - 56px - 44px);
`
const Left = styled.div`
  padding: 4px 8px 12px 12px;
  overflow: auto;
  border-right: 1px solid ${({ theme }) => theme.rule};
`
const Middle = styled.div`
  padding: 12px 16px 24px;
  overflow: auto;
  outline: none;
`
const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: 12px;
  margin-bottom: 8px;
  h1 {
    font-size: 20px;
    white-space: nowrap;
  }
  span {
    flex: 1;
  }
`
const Columns = styled.div`
  position: sticky;
  top: -12px;
  z-index: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 172px minmax(0, 1fr);
  gap: 12px;
  padding: 4px 8px;
  text-align: center;
  background: ${({ theme }) => theme.ground};
  border-bottom: 2px solid ${({ theme }) => theme.ink};
`
const Column = styled.strong<{ $sore: boolean; $end?: boolean }>`
  text-align: ${({ $end }) => ($end ? 'right' : 'left')};
  color: ${({ theme, $sore }) => ($sore ? theme.copper : theme.ink)};
`
const Onward = styled.div`
  display: flex;
  justify-content: flex-end;
  margin-top: 12px;
`
