import { memo } from 'react'
import {
  findingWords,
  isAbnormalEntry,
  readingStatements,
  whoRecorded,
  type Conclusion,
  type Disagreement,
  type FindingEntry,
  type Item,
  type RegionPack,
  type Side,
  type StandingHold,
} from '@kneecap-awl/core'
import { CircleSlash2 } from 'lucide-react'
import styled from 'styled-components'
import { Button, LinkButton, Soft } from '../../parts/controls'
import { isPointerDown } from '../../parts/pointer'
import { timeOnly } from '../../parts/times'
import { isShort } from '../../plates/isShort'
import { ArcBar } from './ArcBar'
import { Conclusions } from './Conclusions'
import { ValueControl, type Answer } from './ValueControl'

export interface RowProps {
  readonly pack: RegionPack
  readonly item: Item
  readonly right: FindingEntry | undefined
  readonly left: FindingEntry | undefined
  readonly none: FindingEntry | undefined
  readonly isCurrent: boolean
  readonly because: string | undefined
  /** The usual range, degrees in words. */
  readonly usual: string | undefined
  readonly hold: StandingHold | undefined
  readonly isLifted: boolean
  readonly isReadOnly: boolean
  /** What two devices found of it within minutes, and nobody decided between. */
  readonly disagreements: readonly Disagreement[]
  /** What it contradicts, in words. */
  readonly contradictions: readonly string[]
  /** What readings taken anew say against those before. */
  readonly since: readonly string[]
  /** What it means together with findings before it. */
  readonly conclusions: readonly Conclusion[]
  readonly onFocus: (item: string) => void
  readonly onGo: (item: string) => void
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
  readonly onDecide: (right: FindingEntry, other: FindingEntry) => void
  readonly onLift: (item: Item, hold: StandingHold) => void
  readonly onCouldNot: (item: Item) => void
}

/**
 * One item, facing the patient: their right on the left of the screen, the item between. What has no side stands in the middle. A press takes
 * the row in hand once it is released, and nothing in a row moves with that: what lies under the finger stays there.
 */
export const SheetRow = memo(function SheetRow(props: RowProps) {
  const { item, isCurrent, because, onFocus } = props
  const take = (): void => onFocus(item.id)
  return (
    <Row id={`row-${item.id}`} data-current={isCurrent || undefined} onFocusCapture={() => !isPointerDown() && take()} onPointerUpCapture={take}>
      {because && <Because>asked because: {because}</Because>}
      <HoldLine {...props} />
      <Disagreements {...props} />
      {props.contradictions.map((says) => (
        <Because key={says} role="alert">
          Contradictory: {says}. Correct the one that is wrong.
        </Because>
      ))}
      {item.sided ? (
        <>
          <Cell $end>
            <OneSide {...props} side="right" entry={props.right} />
          </Cell>
          <Name {...props} />
          <Cell>
            <OneSide {...props} side="left" entry={props.left} />
          </Cell>
        </>
      ) : (
        <Across>
          <Name {...props} />
          <OneSide {...props} side="none" entry={props.none} />
        </Across>
      )}
      <CouldNot {...props} />
      <Statements {...props} />
      <Conclusions pack={props.pack} conclusions={props.conclusions} onGo={props.onGo} />
    </Row>
  )
})

const isStopped = ({ hold, isLifted }: RowProps): boolean => hold !== undefined && !isLifted

/** Its place is the same in every row, in hand or not. */
function CouldNot({ item, isReadOnly, onCouldNot }: RowProps) {
  return (
    <Last>
      {!isReadOnly && (
        <Button $tone="quiet" aria-label={`${item.label}: could not be done, or not valid`} onPress={() => onCouldNot(item)}>
          <CircleSlash2 size={15} aria-hidden />
        </Button>
      )}
    </Last>
  )
}

/** What the two sides, and the active and the passive range, say beside each other. */
function Statements({ item, right, left, since }: RowProps) {
  const statements = [...readingStatements(item, { right, left }), ...since]
  return statements.length === 0 ? null : <Said>{statements.join(' · ')}</Said>
}

function HoldLine(props: RowProps) {
  const { item, hold, isReadOnly, onLift, onGo } = props
  if (!hold) return null
  return (
    <Because>
      On hold, {hold.title.toLowerCase()}: {hold.reason}
      {hold.awaits.length > 0 && <> Not known yet:</>}
      {hold.awaits.map((one) => (
        <LinkButton key={`${one.item} ${one.side}`} onPress={() => onGo(one.item)}>
          {one.label}
        </LinkButton>
      ))}
      {isStopped(props) && !isReadOnly && <LinkButton onPress={() => onLift(item, hold)}>Go on anyway…</LinkButton>}
    </Because>
  )
}

/** Both findings with who and when, and the way to say which is right. */
function Disagreements({ pack, item, disagreements, isReadOnly, onDecide }: RowProps) {
  return disagreements.map(({ stands, other }) => (
    <Because key={stands.id} role="alert">
      Two devices do not agree{stands.side === 'none' ? '' : ` on the ${stands.side}`}; the more urgent stands.{' '}
      {[stands, other].map((one) => (
        <LinkButton
          key={one.id}
          isDisabled={isReadOnly}
          aria-label={`${item.label}: ${findingWords(pack, one)} is right`}
          onPress={() => onDecide(one, one === stands ? other : stands)}
        >
          {findingWords(pack, one)}, {whoRecorded(one)}, {timeOnly(one.at)}: this is right
        </LinkButton>
      ))}
    </Because>
  ))
}

function Name({ item, usual }: RowProps) {
  return (
    <Middle>
      <strong>{item.label}</strong>
      {item.hint && <Soft>{item.hint}</Soft>}
      {item.alternatives && <Soft>otherwise {item.alternatives.map(({ name }) => name).join(', or ')}</Soft>}
      {usual !== undefined && (
        <Soft>
          norm {usual}
          {/\d$/.test(usual) ? '°' : ''}
        </Soft>
      )}
    </Middle>
  )
}

function OneSide(props: RowProps & { readonly side: Side; readonly entry: FindingEntry | undefined }) {
  const { pack, item, side, entry, right, left, isReadOnly, onAnswer } = props
  const mirrored = side === 'right'
  const own = angleOf(item, entry)
  const opposite = angleOf(item, side === 'right' ? left : right)
  const isOdd = entry !== undefined && (entry.state !== 'examined' || isAbnormalEntry(pack, entry))
  return (
    <>
      <ValueControl
        pack={pack}
        item={item}
        side={side}
        entry={entry}
        isDisabled={isStopped(props) || isReadOnly}
        mirrored={mirrored}
        onAnswer={(answer) => onAnswer(item, side, answer)}
      />
      {item.kind === 'angle' && item.sided && (
        <ArcBar value={own} other={opposite} norm={item.norm} min={item.min ?? 0} max={item.max ?? 180} mirrored={mirrored} isShort={isShort(own, opposite)} />
      )}
      {entry && entry.state !== 'examined' && <Told $odd={isOdd}>{findingWords(pack, entry)}</Told>}
      {entry?.override && <Told $odd>done against a hold</Told>}
    </>
  )
}

/** The reading that the bar shows: the passive one where there are two. */
function angleOf(item: Item, entry: FindingEntry | undefined): number | undefined {
  const reading = item.readings[item.readings.length - 1]
  const raw = reading === undefined ? entry?.value : (entry?.qualifiers?.[reading] ?? entry?.qualifiers?.[item.readings[0] ?? ''])
  return typeof raw === 'number' ? raw : undefined
}

const Said = styled(Soft)`
  grid-column: 1 / -1;
  text-align: center;
`
const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 164px minmax(0, 1fr) 28px;
  align-items: center;
  gap: 2px 10px;
  min-height: 46px;
  padding: 5px 8px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  scroll-margin: 90px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 28px;
    gap: 6px 8px;
  }
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
    margin: 0 4px;
  }
`
const Cell = styled.div<{ $end?: boolean }>`
  display: grid;
  gap: 4px;
  justify-items: ${({ $end }) => ($end ? 'end' : 'start')};
  min-width: 0;
  @media (max-width: 700px) {
    grid-column: ${({ $end }) => ($end ? '1' : '2 / 4')};
    align-self: start;
  }
`
const Last = styled.div`
  grid-column: -2 / -1;
  @media (max-width: 700px) {
    grid-row: 1;
  }
  color: ${({ theme }) => theme.soft};
  button {
    min-height: 32px;
    width: 28px;
    padding: 0;
    color: inherit;
  }
`
const Across = styled.div`
  grid-column: 1 / -2;
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  align-items: center;
  gap: 4px 16px;
`
const Middle = styled.div`
  @media (max-width: 700px) {
    grid-column: 1 / 3;
    grid-row: 1;
  }
  display: grid;
  justify-items: center;
  text-align: center;
  line-height: 1.25;
  min-width: 0;
  overflow-wrap: anywhere;
`
const Told = styled.span<{ $odd: boolean }>`
  font-size: 12px;
  color: ${({ theme, $odd }) => ($odd ? theme.copper : theme.soft)};
`
