import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { Button, Reading, Soft } from '../../parts/controls'
import type { Stored } from '../../record/useRecord'

interface Props {
  readonly startedAt: string
  readonly stored: Stored
  /** How many findings the server did not take. */
  readonly refused: number
  /** How many of somebody else wait here for them. */
  readonly ofOthers: number
  readonly onRefused: () => void
  readonly onKeys: () => void
  /** Left out where the pack of this examination has none. */
  readonly onStopRules?: (() => void) | undefined
}

/** The clock of the examination, whether everything is stored, and the keys most used. */
export function BottomBar({ startedAt, stored, refused, ofOthers, onRefused, onKeys, onStopRules }: Props) {
  return (
    <Bar>
      <Clock startedAt={startedAt} />
      <State role="status" $bad={refused > 0 || (stored.kind !== 'stored' && stored.kind !== 'sending')}>
        {words(stored)}
        {ofOthers > 0 && `. ${ofOthers} of somebody else wait on this device for them to sign in`}
        {refused > 0 && (
          <Button $tone="quiet" onPress={onRefused}>
            {refused} not taken: see why
          </Button>
        )}
      </State>
      <Keys>
        {[
          ['.', 'normal'],
          ['x', 'could not'],
          ['n', 'next stop'],
          ['u', 'take back'],
        ].map(([key, what]) => (
          <Soft key={key}>
            <kbd>{key}</kbd> {what}
          </Soft>
        ))}
        {onStopRules && (
          <Button $tone="quiet" onPress={onStopRules}>
            when to stop
          </Button>
        )}
        <Button $tone="quiet" onPress={onKeys}>
          all keys
        </Button>
      </Keys>
    </Bar>
  )
}

function words(stored: Stored): string {
  switch (stored.kind) {
    case 'stored':
      return 'Everything stored'
    case 'sending':
      return `Storing ${stored.count}`
    case 'waiting':
      return `${stored.count} kept on this device, no connection; sent again by itself`
    case 'signed-out':
      return `${stored.count} kept on this device; signed out, sent once you sign in`
    case 'closed':
      return `${stored.count} kept on this device: ${stored.why}`
  }
}

function Clock({ startedAt }: { readonly startedAt: string }) {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [])
  const seconds = Math.max(0, Math.floor((now - Date.parse(startedAt)) / 1000))
  const hours = Math.floor(seconds / 3600)
  return (
    <Reading aria-label="time since the start">
      {hours > 0
        ? `${hours} h ${Math.floor((seconds % 3600) / 60)} min`
        : `${String(Math.floor(seconds / 60)).padStart(2, '0')}:${String(seconds % 60).padStart(2, '0')}`}
    </Reading>
  )
}

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 24px;
  min-height: 44px;
  flex-wrap: wrap;
  padding: 0 20px;
  border-top: 1px solid ${({ theme }) => theme.rule};
`
const State = styled.span<{ $bad: boolean }>`
  flex: 1;
  color: ${({ theme, $bad }) => ($bad ? theme.copper : theme.soft)};
`
const Keys = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  kbd {
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 4px;
    padding: 1px 6px;
    background: ${({ theme }) => theme.sheet};
  }
`
