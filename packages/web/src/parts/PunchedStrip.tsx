import { rangeWords as wordsOf, TIERS, type Tier } from '@kneecap-awl/core'
import styled from 'styled-components'

const HOLES: Readonly<Record<Tier, number>> = { now: 5, today: 4, days: 3, weeks: 2, routine: 1, here: 0 }
const NAMES: Readonly<Record<Tier, string>> = { now: 'Now', today: 'Today', days: 'Days', weeks: 'Weeks', routine: 'Routine', here: 'Here' }
const NAMED = { tiers: TIERS.map((id) => ({ id, name: NAMES[id] })) }
export const tierName = (tier: Tier): string => NAMES[tier]

/** Words for a range, the same wherever it stands: one that is not settled is never headed by its floor. */
export const rangeWords = (floor: Tier, ceiling: Tier): string => wordsOf(NAMED, floor, ceiling)

/** Priority as a leather strip: filled holes up to the floor, rings up to the ceiling. Never colour alone. */
export function PunchedStrip({ floor, ceiling, size = 'small' }: { readonly floor: Tier; readonly ceiling: Tier; readonly size?: 'small' | 'large' }) {
  return (
    <Leather $size={size} role="img" aria-label={`Priority: ${rangeWords(floor, ceiling)}${floor === ceiling ? ', settled' : ''}`}>
      {[1, 2, 3, 4, 5].map((hole) => (
        <Hole key={hole} $size={size} $kind={hole <= HOLES[floor] ? 'filled' : hole <= HOLES[ceiling] ? 'ring' : 'prick'} />
      ))}
    </Leather>
  )
}

const Leather = styled.span<{ $size: 'small' | 'large' }>`
  display: inline-flex;
  align-items: center;
  justify-content: space-between;
  flex: none;
  width: ${({ $size }) => ($size === 'large' ? '100%' : '76px')};
  max-width: 280px;
  height: ${({ $size }) => ($size === 'large' ? '34px' : '18px')};
  padding: 0 ${({ $size }) => ($size === 'large' ? '14px' : '7px')};
  background: ${({ theme }) => theme.leather};
  border-radius: 5px 999px 999px 5px;
  print-color-adjust: exact;
`
const Hole = styled.span<{ $size: 'small' | 'large'; $kind: 'filled' | 'ring' | 'prick' }>`
  --d: ${({ $size, $kind }) => ($kind === 'prick' ? ($size === 'large' ? 4 : 2) : $size === 'large' ? 15 : 8)}px;
  width: var(--d);
  height: var(--d);
  border-radius: 50%;
  background: ${({ $kind, theme }) => ($kind === 'filled' ? theme.hole : $kind === 'prick' ? theme.ink : 'transparent')};
  opacity: ${({ $kind }) => ($kind === 'prick' ? 0.45 : 1)};
  border: ${({ $kind, theme, $size }) => ($kind === 'ring' ? `${$size === 'large' ? 2 : 1.5}px dashed ${theme.hole}` : 'none')};
`
