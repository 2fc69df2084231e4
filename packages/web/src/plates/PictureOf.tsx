import { findingWords, type FindingEntry, type Item, type Picture, type RegionPack, type Side } from '@kneecap-awl/core'
import { arc as d3Arc } from 'd3-shape'
import styled from 'styled-components'
import { drawingColours, useDrawing, WHOLE } from './drawings'
import { isShort } from './isShort'

interface Props {
  readonly pack: RegionPack
  readonly item: Item
  /** The sides in question; lines are drawn on the first of them. */
  readonly sides: readonly Side[]
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
}

/** How the item in hand is done, or how far a limb turns: on a drawing, where the content has one. */
export function PictureOf({ pack, item, sides, entryOf }: Props) {
  const picture = pack.pictures.find((one) => one.item === item.id)
  if (!picture) return null
  const { arc, caption } = picture
  if (!arc)
    return (
      <Figure>
        <Layer picture={picture} isMirrored={sides[0] === 'left'}>
          {picture.lines?.map(({ path, is }) => (
            <path key={path} className={is} d={path} markerEnd={is === 'tape' ? undefined : 'url(#picture-arrow)'} />
          ))}
        </Layer>
        <figcaption>{caption}</figcaption>
      </Figure>
    )
  const readings = (['right', 'left'] as const).map((side) => {
    const entry = entryOf(item.id, side)
    const reading = readingOf(entry)
    return { side, reading, words: reading ? wordsOf(reading) : entry ? findingWords(pack, entry) : 'not measured' }
  })
  const [right, left] = readings.map(({ reading }) => reading?.value)
  return (
    <Figure>
      <div>
        {readings.map(({ side, reading, words }) => (
          <div key={side}>
            <Turned picture={picture} arc={arc} reading={reading} other={side === 'right' ? left : right} item={item} isMirrored={side === 'left'} />
            <p>
              {side}: {words}
            </p>
          </div>
        ))}
      </div>
      <figcaption>
        {caption} {item.norm === undefined ? '' : `Solid tick: usual, ${item.norm}°. `}Dashed tick: the other side.
      </figcaption>
    </Figure>
  )
}

interface Reading {
  readonly value: number
  readonly active?: number
  readonly passive?: number
}

/** Degrees that were read; what could not be examined has none. */
function readingOf(entry: FindingEntry | undefined): Reading | undefined {
  if (entry?.state !== 'examined') return undefined
  const degrees = (told: unknown): number | undefined => (typeof told === 'number' ? told : undefined)
  const [active, passive] = [degrees(entry.qualifiers?.active), degrees(entry.qualifiers?.passive)]
  const value = degrees(entry.value) ?? passive ?? active
  if (value === undefined) return undefined
  return { value, ...(active === undefined ? {} : { active }), ...(passive === undefined ? {} : { passive }) }
}

function wordsOf({ value, active, passive }: Reading): string {
  const both = [active === undefined ? '' : `active ${active}°`, passive === undefined ? '' : `passive ${passive}°`].filter(Boolean)
  return both.length > 0 ? both.join(', ') : `${value}°`
}

interface TurnedProps {
  readonly picture: Picture
  readonly arc: NonNullable<Picture['arc']>
  readonly reading: Reading | undefined
  readonly other: number | undefined
  readonly item: Item
  readonly isMirrored: boolean
}

/** A limb turned as far as it was read, its arc over it: passive outside of active, the usual end and the other side as ticks. */
function Turned({ picture, arc, reading, other, item, isMirrored }: TurnedProps) {
  const { x, y, zero, turn, radius } = arc
  const way = turn === 'clockwise' ? 1 : -1
  const radians = (degrees: number): number => ((zero + way * degrees) * Math.PI) / 180
  const band = (to: number, inner: number, outer: number): string =>
    d3Arc()({ innerRadius: radius + inner, outerRadius: radius + outer, startAngle: radians(0), endAngle: radians(to) }) ?? ''
  const tick = (at: number, inner: number, outer: number) => {
    const [along, up] = [Math.sin(radians(at)), -Math.cos(radians(at))]
    return { x1: (radius + inner) * along, y1: (radius + inner) * up, x2: (radius + outer) * along, y2: (radius + outer) * up }
  }
  return (
    <Layer picture={picture} isMirrored={isMirrored} turned={reading ? `rotate(${way * reading.value}deg)` : undefined} about={arc}>
      <g transform={`translate(${x} ${y})`}>
        <path className="track" d={band(Math.min(item.max ?? 180, 180), -1, 1)} />
        {reading && <path className={isShort(reading.value, other) ? 'read short' : 'read'} d={band(reading.active ?? reading.value, -5, 5)} />}
        {reading?.passive !== undefined && <path className="passive" d={band(reading.passive, 8, 15)} />}
        {item.norm !== undefined && <line className="tick" {...tick(item.norm, -12, 18)} />}
        {other !== undefined && <line className="tick" strokeDasharray="5 4" {...tick(other, -34, 18)} />}
      </g>
    </Layer>
  )
}

interface LayerProps {
  readonly picture: Picture
  readonly isMirrored: boolean
  /** How the part that moves is turned; undefined where nothing was read, and it is only hinted at. */
  readonly turned?: string | undefined
  readonly about?: { readonly x: number; readonly y: number }
  readonly children: React.ReactNode
}

function Layer({ picture, isMirrored, turned, about, children }: LayerProps) {
  const view = picture.view ?? WHOLE
  const drawing = useDrawing(picture.drawing, view)
  return (
    <Box
      aria-hidden
      $isMirrored={isMirrored}
      style={{
        aspectRatio: `${view.width} / ${view.height}`,
        ...({ '--turned': turned ?? 'none', '--about': `${about?.x ?? 0}px ${about?.y ?? 0}px` } as object),
      }}
      data-open={(about && turned === undefined) || undefined}
    >
      <div dangerouslySetInnerHTML={{ __html: drawing }} />
      <svg viewBox={`${view.x} ${view.y} ${view.width} ${view.height}`}>
        <defs>
          <marker id="picture-arrow" viewBox="0 0 10 10" refX="8" refY="5" markerWidth="5" markerHeight="5" orient="auto-start-reverse">
            <path className="head" d="M0 0L10 5L0 10Z" />
          </marker>
        </defs>
        {children}
      </svg>
    </Box>
  )
}

const Figure = styled.figure`
  margin: 6px 0;
  > div {
    display: flex;
    gap: 16px;
  }
  p {
    font-size: 12px;
    text-align: center;
  }
  figcaption {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`
const Box = styled.div<{ $isMirrored: boolean }>`
  position: relative;
  width: 230px;
  max-width: 100%;
  transform: ${({ $isMirrored }) => ($isMirrored ? 'scaleX(-1)' : 'none')};
  ${drawingColours}
  svg {
    display: block;
    width: 100%;
    height: 100%;
    overflow: hidden;
  }
  > svg {
    position: absolute;
    inset: 0;
    fill: none;
  }
  .moving {
    transform: var(--turned);
    transform-origin: var(--about);
  }
  &[data-open] .moving {
    opacity: 0.4;
  }
  .track {
    fill: ${({ theme }) => theme.rule};
  }
  .read {
    fill: ${({ theme }) => theme.ink};
  }
  .short {
    fill: ${({ theme }) => theme.copper};
  }
  .passive {
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 1.5px;
  }
  .tick {
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 2.5px;
  }
  .sweep,
  .press,
  .tape {
    stroke: ${({ theme }) => theme.copper};
    stroke-width: 4px;
    stroke-linecap: round;
  }
  .tape {
    stroke-width: 3px;
    stroke-dasharray: 8 5;
  }
  .head {
    fill: ${({ theme }) => theme.copper};
  }
`
