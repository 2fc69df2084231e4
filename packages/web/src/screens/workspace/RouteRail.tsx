import { memo } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { POSITION_WORDS } from './positions'
import type { StopView } from './useWorkspace'

/** The stops of the route, grouped by the patient's position where it goes by that; done and left, flags raised, holds. */
export const RouteRail = memo(function RouteRail({
  stops,
  current,
  onGo,
}: {
  readonly stops: readonly StopView[]
  readonly current: string
  readonly onGo: (stop: string) => void
}) {
  return (
    <nav aria-label="Route">
      {stops.map(({ stop, items, answered, onHold, flags }, at) => {
        // Reports are read, whatever the position.
        const isFirst = at === 0 || (stop.position !== 'asking' && stops[at - 1]?.stop.position !== stop.position)
        return <Step key={stop.id} {...{ stop, answered, onHold, flags, isFirst, onGo }} shown={items.length} isCurrent={current === stop.id} />
      })}
    </nav>
  )
})

interface StepProps extends Pick<StopView, 'stop' | 'answered' | 'onHold' | 'flags'> {
  /** How many items it shows now. */
  readonly shown: number
  /** Of its position. */
  readonly isFirst: boolean
  readonly isCurrent: boolean
  readonly onGo: (stop: string) => void
}

const Step = memo(function Step({ stop, shown, answered, onHold, flags, isFirst, isCurrent, onGo }: StepProps) {
  const kind = shown === 0 || answered === 0 ? 'empty' : answered === shown ? 'full' : 'half'
  return (
    <div>
      {isFirst && stop.position && <Place>{POSITION_WORDS[stop.position]}</Place>}
      <Stop aria-current={isCurrent ? 'step' : 'false'} $current={isCurrent} onPress={() => onGo(stop.id)}>
        <Dot $kind={kind} aria-hidden />
        <span>{stop.title}</span>
        <Count>
          {flags > 0 && <b aria-label={`${flags} findings behind a flag`}>⚑ </b>}
          {onHold && <i>hold </i>}
          {answered}/{shown}
        </Count>
      </Stop>
    </div>
  )
})

const Place = styled.p`
  margin: 12px 0 2px 12px;
  font-size: 12px;
  font-weight: 650;
  color: ${({ theme }) => theme.soft};
`
const Stop = styled(AriaButton)<{ $current: boolean }>`
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 34px;
  padding: 0 10px;
  text-align: left;
  cursor: pointer;
  border-radius: 8px;
  border: 1px solid ${({ theme, $current }) => ($current ? theme.rule : 'transparent')};
  background: ${({ theme, $current }) => ($current ? theme.sheet : 'transparent')};
  font-weight: ${({ $current }) => ($current ? 700 : 400)};
  color: ${({ theme }) => theme.ink};
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
  span:nth-child(2) {
    flex: 1;
  }
`
const Dot = styled.span<{ $kind: 'empty' | 'half' | 'full' }>`
  width: 10px;
  height: 10px;
  flex: none;
  border-radius: 50%;
  border: 2px solid ${({ theme }) => theme.copper};
  background: ${({ theme, $kind }) => ($kind === 'full' ? theme.copper : $kind === 'half' ? `linear-gradient(90deg, ${theme.copper} 50%, transparent 50%)` : 'transparent')};
`
const Count = styled.span`
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
  font-variant-numeric: tabular-nums;
  b {
    color: ${({ theme }) => theme.copper};
  }
  i {
    font-style: normal;
  }
`
