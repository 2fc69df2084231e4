import { memo } from 'react'
import styled from 'styled-components'

/** How a landmark shows: each looks different without any colour. */
export type SpotState = 'open' | 'normal' | 'abnormal' | 'could-not'

export interface SpotOf {
  readonly key: string
  /** In the units of the drawing, as it is drawn. */
  readonly x: number
  readonly y: number
  /** What it is and what was found, in words. */
  readonly label: string
  /** A digit or a sign that stands in it. */
  readonly mark: string
  readonly state: SpotState
  /** 0 to 3: how large it is drawn. */
  readonly size: number
  /** True for the row in hand. */
  readonly isCurrent: boolean
  /** How it stands to what explains a limb best, one sign beside it. */
  readonly badge?: string | undefined
}

interface Props extends Omit<SpotOf, 'key' | 'x' | 'y'> {
  /** Its key, by which its plate knows it. */
  readonly spot: string
  /** Percent of the plate. */
  readonly left: number
  readonly top: number
  /** True for the one that the Tab key reaches. */
  readonly isEntry: boolean
}

/** A landmark on a plate, drawn anew only when something of it changes: its plate takes what is done to it. */
export const Spot = memo(function Spot({ spot, left, top, label, mark, badge, state, size, isCurrent, isEntry }: Props) {
  return (
    <Mark
      type="button"
      aria-label={label}
      title={label}
      data-spot={spot}
      data-state={state}
      tabIndex={isEntry ? 0 : -1}
      data-current={isCurrent || undefined}
      $size={size}
      style={{ left: `${left}%`, top: `${top}%` }}
    >
      <span>{mark}</span>
      {badge && <b>{badge}</b>}
    </Mark>
  )
})

/** The same in a picture: nothing to press. */
export const Found = ({ left, top, mark, state, size }: Pick<Props, 'left' | 'top' | 'mark' | 'state' | 'size'>) => (
  <Mark as="span" aria-hidden data-state={state} $size={size} style={{ left: `${left}%`, top: `${top}%` }}>
    <span>{mark}</span>
  </Mark>
)

const Mark = styled.button<{ $size: number }>`
  position: absolute;
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  transform: translate(-50%, -50%);
  border: none;
  background: none;
  cursor: pointer;
  touch-action: manipulation;
  @media (pointer: coarse) {
    width: 44px;
    height: 44px;
  }
  span {
    display: grid;
    place-items: center;
    width: ${({ $size }) => 14 + 4 * $size}px;
    height: ${({ $size }) => 14 + 4 * $size}px;
    border-radius: 50%;
    font-size: 11px;
    font-weight: 700;
    line-height: 1;
    border: 2px dashed ${({ theme }) => theme.soft};
    background: ${({ theme }) => theme.sheet};
    color: ${({ theme }) => theme.ink};
  }
  b {
    position: absolute;
    left: calc(50% + 8px);
    top: calc(50% - 20px);
    min-width: 15px;
    padding: 0 2px;
    border: 1px solid ${({ theme }) => theme.ink};
    border-radius: 4px;
    background: ${({ theme }) => theme.sheet};
    color: ${({ theme }) => theme.ink};
    font-size: 11px;
    line-height: 14px;
    pointer-events: none;
  }
  &[data-state='normal'] span {
    border: 2px solid ${({ theme }) => theme.ink};
  }
  &[data-state='abnormal'] span {
    border: 2px solid ${({ theme }) => theme.copper};
    background: ${({ theme }) => theme.copper};
    color: ${({ theme }) => theme.onCopper};
  }
  &[data-state='could-not'] span {
    border-radius: 3px;
    border: 2px solid ${({ theme }) => theme.ink};
  }
  &[data-current] span {
    outline: 2px solid ${({ theme }) => theme.selection};
  }
  &:focus-visible {
    outline: none;
  }
  &:focus-visible span {
    outline: 3px solid ${({ theme }) => theme.copper};
    outline-offset: 2px;
  }
  @media print {
    &[data-state='open'] {
      display: none;
    }
    span {
      border-color: #000 !important;
      background: #fff !important;
      color: #000 !important;
    }
  }
`
