import { scaleLinear } from 'd3-scale'
import styled from 'styled-components'

interface Props {
  readonly value: number | undefined
  readonly other: number | undefined
  readonly norm: number | undefined
  readonly min: number
  readonly max: number
  readonly mirrored: boolean
  readonly isShort: boolean
}

/** A range of movement as a bar that grows away from the middle; the other side (dashed) and the norm (solid) stand as ticks. */
export function ArcBar({ value, other, norm, min, max, mirrored, isShort }: Props) {
  const x = scaleLinear()
    .domain([min, max])
    .range(mirrored ? [100, 0] : [0, 100])
    .clamp(true)
  const zero = x(Math.max(min, 0))
  const bar = value === undefined ? undefined : [Math.min(zero, x(value)), Math.max(zero, x(value))]
  return (
    <Svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden>
      <rect className="track" x="0" y="1" width="100" height="8" />
      {bar && <rect className={isShort ? 'short' : 'full'} x={bar[0]} y="1" width={Math.max(0.8, (bar[1] ?? 0) - (bar[0] ?? 0))} height="8" />}
      {other !== undefined && <line className="tick" x1={x(other)} x2={x(other)} y1="0" y2="10" strokeDasharray="2 1" />}
      {norm !== undefined && <line className="tick" x1={x(norm)} x2={x(norm)} y1="0" y2="10" />}
    </Svg>
  )
}

const Svg = styled.svg`
  width: 100%;
  max-width: 232px;
  height: 14px;
  .track {
    fill: ${({ theme }) => theme.wash};
  }
  .full {
    fill: ${({ theme }) => theme.ink};
  }
  .short {
    fill: ${({ theme }) => theme.copper};
  }
  .tick {
    stroke: ${({ theme }) => theme.soft};
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
`
