import { optionsHere, type FindingEntry, type Item, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { HoldTimer } from './HoldTimer'
import { Extra, kept, type Answer } from './ValueControl'

interface Props {
  readonly pack: RegionPack
  readonly item: Item
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly isReadOnly: boolean
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
}

/** That it equals the other side, and how exactly a time is known, are told where the value is. */
const TOLD_ELSEWHERE: ReadonlySet<string> = new Set(['equal', 'precision'])

/** How the finding in hand was taken, side by side: method, technique, how long it was held, where the familiar pain was and from which angle. */
export function HowDone({ pack, item, entryOf, isReadOnly, onAnswer }: Props) {
  const details = Object.entries(item.qualifiers).filter(([name, { inRow }]) => !inRow && !item.readings.includes(name) && !TOLD_ELSEWHERE.has(name))
  if (details.length === 0) return null
  const sides: readonly Side[] = item.sided ? ['right', 'left'] : ['none']
  return (
    <Lines $sides={sides.length}>
      {details.map(([name, qualifier]) => (
        <Line key={name}>
          <Soft>{qualifier.label}</Soft>
          {sides.map((side) => {
            const entry = entryOf(item.id, side)
            const isFree = !isReadOnly && entry?.state === 'examined'
            const set = (value: string | number | boolean | readonly string[]): void =>
              onAnswer(item, side, kept({ item, entry }, { qualifiers: { [name]: value } }))
            return (
              <span key={side}>
                {name === 'held' && <HoldTimer seconds={item.holdSeconds ?? 0} isDisabled={!isFree} onHeld={set} />}
                <Extra
                  label={`${item.label}${side === 'none' ? '' : `, ${side}`}, ${qualifier.label}`}
                  qualifier={qualifier}
                  options={optionsHere(qualifier, pack.regions[0].id)}
                  meaning={undefined}
                  value={entry?.state === 'examined' ? entry.qualifiers?.[name] : undefined}
                  isDisabled={!isFree}
                  mirrored={false}
                  onPick={set}
                />
              </span>
            )
          })}
        </Line>
      ))}
    </Lines>
  )
}

const Lines = styled.div<{ $sides: number }>`
  display: grid;
  grid-template-columns: minmax(110px, auto) repeat(${({ $sides }) => $sides}, minmax(0, 1fr));
  align-items: center;
  gap: 4px 12px;
  @media (max-width: 700px) {
    grid-template-columns: repeat(${({ $sides }) => $sides}, minmax(0, 1fr));
  }
`
const Line = styled.div`
  display: contents;
  > span:not(:first-child) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
  }
  @media (max-width: 700px) {
    > :first-child {
      grid-column: 1 / -1;
    }
  }
`
