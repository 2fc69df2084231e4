import { useCallback, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { complaintWords, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { ExaminationDetail } from '../../api/queries'
import { Button, Soft } from '../../parts/controls'
import { Shell } from '../../parts/Shell'
import { ageAt, ageWords } from '../../parts/times'
import { BottomBar } from './BottomBar'
import { CouldNotDialogue, KeysDialogue, LiftDialogue, StopRulesDialogue } from './dialogues'
import { FindItem } from './FindItem'
import { DraftMenu } from './DraftMenu'
import { Notice } from './Notice'
import { OrderPicker } from './OrderPicker'
import { RefusedDialogue } from './RefusedDialogue'
import { RouteRail } from './RouteRail'
import { useScroll } from './useScroll'
import { NormsPicker, useReferenceRange } from './NormsPicker'
import { StopTable } from './StopTable'
import { StoryCard } from './StoryCard'
import { useSheet } from './useSheet'
import { VerdictRail } from './VerdictRail'
import { VisitRail } from './VisitRail'

interface Props {
  readonly detail: ExaminationDetail
  readonly pack: RegionPack
  readonly by: string
  readonly amends: string | undefined
}

/** The examination workspace: route on the left, the sheet facing the patient, the verdict on the right. */
export function Sheet({ detail, pack, by, amends }: Props) {
  const sheet = useSheet(detail, pack, by, amends)
  const { view, stop, rows, isReadOnly } = sheet
  const searchable = useMemo(() => pack.items.filter((item) => item.stage !== 'patient' && item.stage !== 'plan' && item.derive === undefined), [pack])
  const [showRules, setShowRules] = useState(false)
  const [showRefused, setShowRefused] = useState(false)
  const norms = useReferenceRange()
  const scroll = useScroll(`${detail.id} ${stop?.stop.id ?? ''}`)
  const setRow = sheet.setRowId
  const takeRow = useCallback((row: string) => setRow(row), [setRow])
  if (!stop) return null
  const isStory = stop.stop.id === 'story'
  return (
    <Shell
      heading={<Who detail={detail} isAmending={amends !== undefined} />}
      actions={
        <>
          {!detail.signedAt && !detail.discardedAt && <DraftMenu detail={detail} pack={pack} entries={sheet.entries} />}
          <FindItem pack={pack} items={searchable} onPick={sheet.goToItem} />
          <Button $tone="copper" onPress={sheet.openVerdict}>
            Verdict sheet
          </Button>
        </>
      }
    >
      <Frame>
        <Left>
          <VisitRail detail={detail} pack={pack} sides={view.sides} entryOf={view.entryOf} />
          <OrderPicker order={sheet.order} onPick={sheet.changeOrder} />
          <RouteRail stops={sheet.stops} current={stop.stop.id} onGo={sheet.go} />
        </Left>
        <Middle key={stop.stop.id} ref={scroll} role="region" aria-label="Sheet" tabIndex={0}>
          <Head>
            <h1>{stop.stop.title}</h1>
            <Soft>{stop.stop.advice}</Soft>
            {!isReadOnly && (
              <Buttons>
                <Button onPress={sheet.takeBack}>Take back</Button>
                {!isStory && <Button onPress={sheet.markRest}>Rest of this stop normal</Button>}
              </Buttons>
            )}
          </Head>
          {isStory ? (
            <StoryCard
              pack={pack}
              items={rows}
              because={view.judged.verdict.asked.because}
              sides={view.sides}
              startedAt={detail.startedAt}
              isReadOnly={isReadOnly}
              entryOf={view.entryOf}
              isAnswered={view.isAnswered}
              onAnswer={sheet.answer}
              onRecord={sheet.record}
            />
          ) : (
            <StopTable
              pack={pack}
              view={view}
              rows={rows}
              rowId={sheet.rowId}
              sore={view.region?.side === false ? [] : view.sides}
              pick={sheet.pick}
              lifted={sheet.lifted}
              norms={norms.chosen}
              isByStage={sheet.order === 'stage'}
              years={ageAt(detail.birthDate, Date.parse(detail.startedAt))}
              isReadOnly={isReadOnly}
              onFocus={takeRow}
              onGo={sheet.goToItem}
              onDecide={sheet.decide}
              onAnswer={sheet.answer}
              onLift={sheet.lift}
              onCouldNot={sheet.setCouldNot}
            />
          )}
          <Onward>
            {rows.some((item) => item.norms !== undefined) && <NormsPicker references={pack.referenceRanges} {...norms} />}
            <Button onPress={() => sheet.step(1)} isDisabled={stop.stop.id === sheet.stops.at(-1)?.stop.id}>
              Next stop
            </Button>
          </Onward>
          <Notice said={sheet.said} onGo={sheet.goToItem} onClose={() => sheet.setSaid(undefined)} />
        </Middle>
        <VerdictRail
          rail={view.rail}
          onGo={sheet.goToItem}
          onSet={isReadOnly ? undefined : sheet.setPriority}
          onLift={isReadOnly ? undefined : sheet.liftFlag}
        />
      </Frame>
      <BottomBar
        startedAt={detail.startedAt}
        stored={sheet.sending.stored}
        refused={sheet.sending.refused.length}
        ofOthers={sheet.sending.ofOthers}
        onRefused={() => setShowRefused(true)}
        onKeys={() => sheet.setShowKeys(true)}
        onStopRules={pack.stopRules.length > 0 ? () => setShowRules(true) : undefined}
      />
      <CouldNotDialogue
        key={sheet.couldNot?.id ?? 'none'}
        item={sheet.couldNot}
        sides={sheet.pick === 'both' ? view.sides : [sheet.pick]}
        onClose={() => sheet.setCouldNot(undefined)}
        onRecord={sheet.record}
      />
      <LiftDialogue key={sheet.lifting?.item.id ?? 'no lift'} about={sheet.lifting} onClose={() => sheet.setLifting(undefined)} onLift={sheet.giveReason} />
      <RefusedDialogue
        pack={pack}
        refused={sheet.sending.refused}
        isOpen={showRefused}
        onClose={() => setShowRefused(false)}
        onTryAgain={sheet.sending.tryAgain}
        onSetAside={sheet.sending.setAside}
        onCorrect={(item) => {
          setShowRefused(false)
          sheet.goToItem(item)
        }}
      />
      <StopRulesDialogue pack={pack} isOpen={showRules} onClose={() => setShowRules(false)} />
      <KeysDialogue isOpen={sheet.showKeys} onClose={() => sheet.setShowKeys(false)} />
    </Shell>
  )
}

function Who({ detail, isAmending }: { readonly detail: ExaminationDetail; readonly isAmending: boolean }) {
  const place = detail.setting === 'emergency' ? 'urgent care' : 'general practice'
  const state = isAmending ? ' · amending' : detail.signedAt ? ' · signed, read only' : detail.discardedAt ? ' · discarded, read only' : ''
  return (
    <>
      <Link to={`/patients/${detail.patientId}`}>
        <strong>
          <bdi>{detail.patientName}</bdi>
        </strong>
      </Link>{' '}
      <Soft>
        {ageWords(detail.birthDate)} · {complaintWords(detail)} · {place}
        {state}
      </Soft>
    </>
  )
}

const Frame = styled.div`
  display: grid;
  grid-template-columns: 204px minmax(0, 1fr) 304px;
  height: calc(100vh - 56px - 44px);
  @media (max-width: 1024px) {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
  }
`
const Left = styled.div`
  padding: 4px 8px 12px 12px;
  overflow: auto;
  border-right: 1px solid ${({ theme }) => theme.rule};
`
const Buttons = styled.div`
  display: flex;
  gap: 6px;
`
const Middle = styled.div`
  position: relative;
  display: flex;
  flex-direction: column;
  padding: 12px 16px 24px;
  > * {
    flex: none;
  }
  overflow: auto;
  outline: none;
`
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 12px;
  margin-bottom: 8px;
  h1 {
    font-size: 20px;
    white-space: nowrap;
  }
  span {
    flex: 1;
  }
`
const Onward = styled.div`
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 24px;
  margin-top: 12px;
`
