import { Fragment, memo } from 'react'
import { SIDES, slotKey, usualRange, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { FeelPlates } from './FeelPlates'
import { ItemDetail } from './ItemDetail'
import { SheetRow, type RowProps } from './SheetRow'
import { POSITION_WORDS } from './positions'
import type { SidePick } from './useSheet'
import type { useWorkspace } from './useWorkspace'

interface Props extends Pick<RowProps, 'pack' | 'isReadOnly' | 'onFocus' | 'onGo' | 'onAnswer' | 'onDecide' | 'onLift' | 'onCouldNot'> {
  readonly view: ReturnType<typeof useWorkspace>
  readonly rows: readonly RowProps['item'][]
  readonly rowId: string
  readonly sore: readonly Side[]
  readonly pick: SidePick
  readonly lifted: ReadonlyMap<string, unknown>
  /** Whose usual ranges are shown, and the age they are shown for. */
  readonly norms: string | undefined
  readonly years: number | undefined
  /** True where a station takes the patient through several positions: each is named where it begins. */
  readonly isByStage: boolean
}

/** One stop of the sheet: the rows in two columns, the patient's right on the left of the screen, and what is known of the row in hand. */
export const StopTable = memo(function StopTable({ view, rows, rowId, sore, pick, lifted, norms, years, isByStage, ...row }: Props) {
  const { entryOf, holdOf, judged, disagreements, contradictions, conclusions, since } = view
  const current = rows.find((item) => item.id === rowId)
  return (
    <>
      <FeelPlates
        pack={row.pack}
        rows={rows}
        rowId={rowId}
        isReadOnly={row.isReadOnly}
        isStopped={(item) => holdOf.has(item.id) && !lifted.has(item.id)}
        levels={view.rail.nerve.levels}
        entryOf={entryOf}
        onFocus={row.onFocus}
        onAnswer={row.onAnswer}
        onGo={row.onGo}
      />
      <Columns aria-hidden>
        <Column $sore={sore.includes('right')} $end>
          Right{sore.includes('right') ? ', painful' : ''}
        </Column>
        <Soft>{pick === 'both' ? firstSide(sore) : `${pick} side in hand`}</Soft>
        <Column $sore={sore.includes('left')}>Left{sore.includes('left') ? ', painful' : ''}</Column>
      </Columns>
      {rows.map((item, at) => (
        <Fragment key={item.id}>
          {isByStage && item.position !== rows[at - 1]?.position && item.position !== 'asking' && <Place>{POSITION_WORDS[item.position]}</Place>}
          <SheetRow
            {...row}
            item={item}
            right={entryOf(item.id, 'right')}
            left={entryOf(item.id, 'left')}
            none={entryOf(item.id, 'none')}
            isCurrent={item.id === rowId}
            usual={item.kind === 'angle' ? usualRange(item, row.pack.referenceRanges, norms, years) : undefined}
            because={item.depth === 'core' ? undefined : judged.verdict.asked.because.get(item.id)}
            hold={holdOf.get(item.id)}
            isLifted={lifted.has(item.id)}
            contradictions={contradictions.get(item.id) ?? NO_WORDS}
            since={since.get(item.id) ?? NO_WORDS}
            conclusions={conclusions.get(item.id) ?? NO_CONCLUSIONS}
            disagreements={disagreements.size === 0 ? NONE : SIDES.flatMap((side) => disagreements.get(slotKey(item.id, side)) ?? [])}
          />
        </Fragment>
      ))}
      {current && <ItemDetail {...row} item={current} judged={judged} sides={view.sides} entryOf={entryOf} />}
    </>
  )
})

const NONE: RowProps['disagreements'] = []
const NO_WORDS: readonly string[] = []
const NO_CONCLUSIONS: RowProps['conclusions'] = []

/** The side that does not hurt is the measure of the other, so it is examined first. */
const firstSide = (sore: readonly Side[]): string => (sore.length > 1 ? 'the calmer side first' : `${sore.includes('right') ? 'left' : 'right'} first`)

const Place = styled.h2`
  margin: 10px 8px 2px;
  font-size: 12px;
  font-weight: 650;
  color: ${({ theme }) => theme.soft};
`
const Columns = styled.div`
  position: sticky;
  top: -12px;
  z-index: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 164px minmax(0, 1fr) 28px;
  gap: 10px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) auto minmax(0, 1fr);
  }
  padding: 4px 8px;
  text-align: center;
  background: ${({ theme }) => theme.ground};
  border-bottom: 2px solid ${({ theme }) => theme.ink};
`
const Column = styled.strong<{ $sore: boolean; $end?: boolean }>`
  text-align: ${({ $end }) => ($end ? 'right' : 'left')};
  color: ${({ theme, $sore }) => ($sore ? theme.copper : theme.ink)};
`
