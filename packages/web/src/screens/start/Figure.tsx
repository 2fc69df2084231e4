import { ToggleButton } from 'react-aria-components'
import styled from 'styled-components'

type LimbSide = 'right' | 'left'

/** The drawn patient, facing the examiner and from behind. The knees are tapped; both may be. */
export function Figure({ sides, onChange }: { readonly sides: readonly LimbSide[]; readonly onChange: (sides: readonly LimbSide[]) => void }) {
  const flip = (side: LimbSide): void => onChange(sides.includes(side) ? sides.filter((one) => one !== side) : [...sides, side])
  return (
    <Pair>
      {(['front', 'back'] as const).map((view) => (
        <View key={view}>
          <Body view={view} />
          {(['right', 'left'] as const).map((side) => (
            <Knee
              key={side}
              $left={(side === 'right') === (view === 'front') ? '36%' : '64%'}
              aria-label={`${side} knee, ${view}`}
              isSelected={sides.includes(side)}
              onChange={() => flip(side)}
            >
              {side === 'right' ? 'R' : 'L'}
            </Knee>
          ))}
          <Caption>{view}</Caption>
        </View>
      ))}
    </Pair>
  )
}

function Body({ view }: { readonly view: 'front' | 'back' }) {
  return (
    <svg viewBox="0 0 120 300" aria-hidden width="100%">
      <g fill="none" stroke="currentColor" strokeWidth="2" strokeLinecap="round" strokeLinejoin="round">
        <circle cx="60" cy="24" r="16" />
        <path d="M53 40v8c-12 3-22 6-25 16l-9 50-5 34M67 40v8c12 3 22 6 25 16l9 50 5 34" />
        <path d="M33 66l5 36-3 38c-2 24 2 46 4 70l2 66-8 10h18l2-74 7-62M87 66l-5 36 3 38c2 24-2 46-4 70l-2 66 8 10H69l-2-74-7-62" />
        <path d="M38 102c14 5 30 5 44 0M35 140c16 6 34 6 50 0" opacity="0.35" />
        {view === 'back' && <path d="M60 52v62M48 58c2 10 2 16-2 22M72 58c-2 10-2 16 2 22" opacity="0.35" />}
      </g>
    </svg>
  )
}

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin-top: 12px;
`
const View = styled.div`
  position: relative;
  color: ${({ theme }) => theme.soft};
`
const Knee = styled(ToggleButton)<{ $left: string }>`
  position: absolute;
  left: ${({ $left }) => $left};
  top: 68%;
  width: 44px;
  height: 44px;
  transform: translate(-50%, -50%);
  border-radius: 50%;
  border: 2px dashed ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.copper};
  font-weight: 700;
  cursor: pointer;
  &[data-selected] {
    background: ${({ theme }) => theme.copper};
    color: ${({ theme }) => theme.onCopper};
    border-style: solid;
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 2px;
  }
`
const Caption = styled.p`
  text-align: center;
  font-size: 12px;
`
