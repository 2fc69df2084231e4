import { memo } from 'react'
import { findingWords, isAbnormalEntry, type Entry, type HoldVerdict, type Item, type Pack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, Soft } from '../../parts/controls'
import { ArcBar } from './ArcBar'
import { ValueControl, type Answer } from './ValueControl'

export interface RowProps {
  readonly pack: Pack
  readonly item: Item
  readonly right: Entry | undefined
  readonly left: Entry | undefined
  readonly none: Entry | undefined
  readonly complaint: readonly Side[]
  readonly isCurrent: boolean
  readonly because: string | undefined
  readonly hold: HoldVerdict | undefined
  readonly isLifted: boolean
  readonly isReadOnly: boolean
  readonly onFocus: (item: string) => void
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
  readonly onLift: (item: Item, hold: HoldVerdict) => void
  readonly onCouldNot: (item: Item) => void
}

/** One item, facing the patient: their right on the left of the screen, the item between. */
export const SheetRow = memo(function SheetRow(props: RowProps) {
  const { item, isCurrent, because, hold, isLifted, isReadOnly, onFocus, onLift, onCouldNot } = props
  const stopped = hold !== undefined && !isLifted
  return (
    <Row id={`row-${item.id}`} data-current={isCurrent || undefined} onFocusCapture={() => onFocus(item.id)} onMouseDown={() => onFocus(item.id)}>
      {because && <Because>asked because {because}</Because>}
      {hold && (
        <Because>
          On hold, {hold.title.toLowerCase()}: {hold.reason}
          {stopped && !isReadOnly && (
            <Button $tone="quiet" onPress={() => onLift(item, hold)}>
              Go on anyway…
            </Button>
          )}
        </Because>
      )}
      <Cell $end>
        {item.sided ? (
          <Sided {...props} side="right" entry={props.right} stopped={stopped} />
        ) : (
          <Sided {...props} side="none" entry={props.none} stopped={stopped} />
        )}
      </Cell>
      <Middle>
        <Name>{item.label}</Name>
        {item.hint && <Soft>{item.hint}</Soft>}
        {item.kind === 'angle' && item.normText && <Soft>norm {item.normText}</Soft>}
        {isCurrent && !isReadOnly && (
          <Button $tone="quiet" onPress={() => onCouldNot(item)}>
            could not…
          </Button>
        )}
      </Middle>
      <Cell>{item.sided && <Sided {...props} side="left" entry={props.left} stopped={stopped} />}</Cell>
    </Row>
  )
})

function Sided({
  pack,
  item,
  side,
  entry,
  right,
  left,
  stopped,
  isReadOnly,
  onAnswer,
}: RowProps & { readonly side: Side; readonly entry: Entry | undefined; readonly stopped: boolean }) {
  const mirrored = side !== 'left'
  const reading = item.readings[item.readings.length - 1]
  const worth = (of: Entry | undefined): number | undefined => {
    const raw = reading === undefined ? of?.value : of?.qualifiers?.[reading]
    return typeof raw === 'number' ? raw : undefined
  }
  const opposite = worth(side === 'right' ? left : right)
  const own = worth(entry)
  const odd = entry && (entry.state !== 'examined' || isAbnormalEntry(pack, entry))
  return (
    <>
      <Side $mirrored={mirrored}>
        <ValueControl
          pack={pack}
          item={item}
          side={side}
          entry={entry}
          isDisabled={stopped || isReadOnly}
          mirrored={mirrored}
          onAnswer={(answer) => onAnswer(item, side, answer)}
        />
        {item.kind === 'angle' && item.sided && (
          <ArcBar
            value={own}
            other={opposite}
            norm={item.norm}
            min={item.min ?? 0}
            max={item.max ?? 180}
            mirrored={mirrored}
            isShort={own !== undefined && opposite !== undefined && opposite - own >= 10}
          />
        )}
      </Side>
      {entry && entry.state !== 'examined' && <Told $odd={Boolean(odd)}>{findingWords(pack, entry)}</Told>}
      {entry?.override && <Told $odd>done against a hold</Told>}
    </>
  )
}

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 172px minmax(0, 1fr);
  align-items: center;
  gap: 2px 12px;
  min-height: 46px;
  padding: 5px 8px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  scroll-margin: 90px;
  &[data-current] {
    background: ${({ theme }) => theme.selection};
    border-radius: 8px;
    border-bottom-color: transparent;
  }
`
const Because = styled.p`
  grid-column: 1 / -1;
  font-size: 12px;
  color: ${({ theme }) => theme.copper};
  button {
    font-size: 12px;
    min-height: 24px;
  }
`
const Cell = styled.div<{ $end?: boolean }>`
  display: grid;
  justify-items: ${({ $end }) => ($end ? 'end' : 'start')};
  min-width: 0;
`
const Side = styled.div<{ $mirrored: boolean }>`
  display: flex;
  flex-wrap: wrap;
  flex-direction: ${({ $mirrored }) => ($mirrored ? 'row-reverse' : 'row')};
  align-items: center;
  gap: 4px 8px;
`
const Middle = styled.div`
  display: grid;
  justify-items: center;
  text-align: center;
  line-height: 1.25;
  button {
    font-size: 12px;
    min-height: 24px;
  }
`
const Name = styled.span`
  font-weight: 650;
`
const Told = styled.span<{ $odd: boolean }>`
  font-size: 12px;
  color: ${({ theme, $odd }) => ($odd ? theme.copper : theme.soft)};
`
