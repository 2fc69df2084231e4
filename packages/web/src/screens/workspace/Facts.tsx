import { memo } from 'react'
import { SIDES, sidesOf, type FindingEntry, type Item, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { SinceWhen } from './SinceWhen'
import { Qualifiers, ValueControl, type Answer } from './ValueControl'
import { Segments } from './WordChoice'

interface Props {
  readonly pack: RegionPack
  readonly items: readonly Item[]
  readonly because: ReadonlyMap<string, string>
  readonly sides: readonly Side[]
  readonly startedAt: string
  readonly isReadOnly: boolean
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
}

/** Facts that are told, two in a row where there is room. */
export function Facts({ pack, items, because, sides, startedAt, isReadOnly, entryOf, onAnswer }: Props) {
  return (
    <List>
      {items.map((item) => (
        <OneFact
          key={item.id}
          pack={pack}
          startedAt={startedAt}
          isReadOnly={isReadOnly}
          onAnswer={onAnswer}
          item={item}
          because={because.get(item.id)}
          hasSides={item.sided && sides.length > 1}
          {...entriesOf(item, sides, entryOf)}
        />
      ))}
    </List>
  )
}

type Told = Partial<Record<Side, FindingEntry | null>>

/** What is told of each side that is asked: null where nothing is yet. */
const entriesOf = (item: Item, sides: readonly Side[], entryOf: Props['entryOf']): Told =>
  Object.fromEntries(sidesOf(item, sides).map((side) => [side, entryOf(item.id, side) ?? null]))

interface FactProps extends Pick<Props, 'pack' | 'startedAt' | 'isReadOnly' | 'onAnswer'>, Told {
  readonly item: Item
  readonly because: string | undefined
  readonly hasSides: boolean
}

/** Painted anew only when something is told of it: a card has some forty of them, so each is given what it needs and nothing that changes besides. */
const OneFact = memo(function OneFact({ item, because, hasSides, right, left, none, ...props }: FactProps) {
  const told = { right, left, none }
  return (
    <Fact id={`row-${item.id}`}>
      <span title={item.lay && `To the patient: ${item.lay}`}>{item.label}</span>
      <Answers>
        {SIDES.filter((side) => told[side] !== undefined).map((side) => (
          <span key={side}>
            {hasSides && <Soft>{side === 'right' ? 'R ' : 'L '}</Soft>}
            <FactControl {...props} item={item} side={side} entry={told[side] ?? undefined} />
          </span>
        ))}
      </Answers>
      {(because ?? item.hint) && <Hint title={item.hint}>{because === undefined ? item.hint : `asked because: ${because}`}</Hint>}
    </Fact>
  )
})

interface ControlProps extends Pick<Props, 'pack' | 'startedAt' | 'isReadOnly' | 'onAnswer'> {
  readonly item: Item
  readonly side: Side
  readonly entry: FindingEntry | undefined
}

function FactControl({ pack, item, side, entry, startedAt, isReadOnly, onAnswer }: ControlProps) {
  const set = (answer: Answer): void => onAnswer(item, side, answer)
  if (item.kind === 'moment')
    return <SinceWhen key={String(entry?.value)} label={item.label} usual={item.unit} entry={entry} startedAt={startedAt} isDisabled={isReadOnly} onSet={set} />
  const control = { pack, item, side, entry, isDisabled: isReadOnly, mirrored: false, onAnswer: set }
  if (item.kind !== 'sign') return <ValueControl {...control} />
  const told = entry?.value === undefined ? undefined : entry.value === 'present' ? 'yes' : 'no'
  return (
    <Sign>
      <Segments
        label={item.label}
        options={['no', 'yes']}
        calm={['no']}
        value={told}
        isDisabled={isReadOnly}
        mirrored={false}
        onPick={(word) => set({ value: word === 'yes' ? 'present' : 'absent' })}
      />
      {told === 'yes' && <Qualifiers {...control} />}
    </Sign>
  )
}

const List = styled.ul`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 24px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Fact = styled.li`
  display: grid;
  grid-template-columns: minmax(104px, 1fr) minmax(0, max-content);
  align-items: center;
  align-content: center;
  gap: 1px 8px;
  min-height: 44px;
  padding: 3px 0;
  line-height: 1.2;
  border-top: 1px solid ${({ theme }) => theme.rule};
  scroll-margin: 90px;
`
const Sign = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 4px;
`
const Answers = styled.div`
  display: grid;
  justify-items: end;
  gap: 4px;
`
const Hint = styled(Soft)`
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`
