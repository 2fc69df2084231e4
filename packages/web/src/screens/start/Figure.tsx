import { ToggleButton } from 'react-aria-components'
import type { FigurePoint, Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { PackSummary } from '../../api/queries'

export interface Sore {
  readonly region: string
  readonly sides: readonly Side[]
}

interface Props {
  readonly regions: PackSummary['regions']
  readonly sore: Sore | undefined
  readonly onChange: (sore: Sore | undefined) => void
}

const VIEWS = ['front', 'back'] as const
type View = (typeof VIEWS)[number]

/** The drawn patient, facing the examiner and from behind: every joint of the pack is tapped where it is; of one joint both sides may be. */
export function Figure({ regions, sore, onChange }: Props) {
  const flip = (region: string, side: Side): void => {
    const now = sore?.region === region ? sore.sides : []
    const sides = now.includes(side) ? now.filter((one) => one !== side) : side === 'none' ? [side] : [...now, side]
    onChange(sides.length > 0 ? { region, sides } : undefined)
  }
  return (
    <Pair>
      {VIEWS.map((view) => (
        <View key={view}>
          <Body view={view} />
          {regions.flatMap((region) =>
            region.figure
              .filter((point) => point.view === view)
              .flatMap((point) =>
                placesOf(region.side, view, point).map(({ side, x }) => (
                  <Spot
                    key={`${region.id} ${side} ${point.y}`}
                    style={{ left: `${x}%`, top: `${point.y}%` }}
                    aria-label={`${side === 'none' ? '' : `${side} `}${region.name.toLowerCase()}, ${view}`}
                    isSelected={sore?.region === region.id && sore.sides.includes(side)}
                    onChange={() => flip(region.id, side)}
                  >
                    {side === 'none' ? '' : side === 'right' ? 'R' : 'L'}
                  </Spot>
                )),
              ),
          )}
          <Caption>{view}</Caption>
        </View>
      ))}
    </Pair>
  )
}

/** A point is given for the patient's right; the left one stands mirrored. */
const placesOf = (hasSide: boolean, view: View, { x }: FigurePoint): { readonly side: Side; readonly x: number }[] => {
  if (!hasSide) return [{ side: 'none', x }]
  const places = [
    { side: 'right' as const, x },
    { side: 'left' as const, x: 100 - x },
  ]
  return view === 'front' ? places : [...places].reverse()
}

const LIMBS = [
  { d: 'M100 46v18', width: 15 },
  { d: 'M66 84C58 120 50 140 45 156C40 180 36 196 33 212M134 84c8 36 16 56 21 72c5 24 9 40 12 56', width: 19 },
  { d: 'M33 214l-2 16M167 214l2 16', width: 15 },
  { d: 'M84 212C82 250 80 280 79 302C78 330 78 360 78 392M116 212c2 38 4 68 5 90c1 28 1 58 1 90', width: 25 },
  { d: 'M77 398l-9 10M123 398l9 10', width: 15 },
  { d: 'M70 84h60l-6 60l4 62H72l4-62z', width: 18 },
] as const

/** A plain figure: each part is drawn once wider as its edge and once as itself. */
function Body({ view }: { readonly view: View }) {
  return (
    <Drawing viewBox="0 0 200 430" aria-hidden>
      <g className="edge">
        {LIMBS.map(({ d, width }) => (
          <path key={d} d={d} strokeWidth={width + 3} />
        ))}
        <circle cx="100" cy="32" r="20" />
      </g>
      <g className="flesh">
        {LIMBS.map(({ d, width }) => (
          <path key={d} d={d} strokeWidth={width} />
        ))}
        <circle cx="100" cy="32" r="18.5" />
      </g>
      {view === 'back' ? (
        <path className="line" d="M100 72v128M84 92c4 16 2 28-6 36M116 92c-4 16-2 28 6 36" />
      ) : (
        <path className="line" d="M76 88c14 6 34 6 48 0M72 198c18 8 38 8 56 0" />
      )}
    </Drawing>
  )
}

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin-top: 8px;
`
const View = styled.div`
  position: relative;
`
const Drawing = styled.svg`
  display: block;
  width: 100%;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
  .edge path {
    stroke: ${({ theme }) => theme.soft};
  }
  .edge circle {
    fill: ${({ theme }) => theme.soft};
  }
  .flesh path {
    stroke: ${({ theme }) => theme.sheet};
  }
  .flesh path:last-of-type {
    fill: ${({ theme }) => theme.sheet};
  }
  .flesh circle {
    fill: ${({ theme }) => theme.sheet};
  }
  .line {
    stroke: ${({ theme }) => theme.rule};
    stroke-width: 2;
  }
`
const Spot = styled(ToggleButton)`
  position: absolute;
  width: 30px;
  height: 30px;
  padding: 0;
  transform: translate(-50%, -50%);
  border-radius: 50%;
  border: 2px dashed ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.copper};
  font-size: 12px;
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
  @media (pointer: coarse) {
    width: 44px;
    height: 44px;
  }
`
const Caption = styled.p`
  margin-top: 4px;
  text-align: center;
  font-size: 12px;
  color: ${({ theme }) => theme.soft};
`
