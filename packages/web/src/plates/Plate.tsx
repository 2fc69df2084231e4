import { memo, useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from 'react'
import { mirrored, type Plate as PlateOf } from '@kneecap-awl/core'
import styled from 'styled-components'
import { drawingColours, useDrawing, WHOLE } from './drawings'
import { nearest, type Direction } from './nearest'
import { Found, Spot, type SpotOf } from './Spot'

interface Props {
  readonly plate: Pick<PlateOf, 'drawing' | 'view'>
  /** True for the left: the drawing is turned over, its words are not. */
  readonly isMirrored: boolean
  /** What the group is called: "Right, front". */
  readonly label: string
  readonly spots: readonly SpotOf[]
  readonly isReadOnly: boolean
  /** True for a picture of what was found: nothing in it is pressed. */
  readonly isPicture?: boolean
  /** A touch: one more of it. */
  readonly onTouch: (spot: string) => void
  /** A digit typed on it. */
  readonly onDigit: (spot: string, digit: string) => void
  /** Held, or entered: its row, for values and for what could not be done. */
  readonly onOpen: (spot: string) => void
}

const DIRECTIONS: Readonly<Record<string, Direction>> = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'left', ArrowRight: 'right' }

/** A drawing with its landmarks: touched, or walked by the arrow keys from one to the nearest, where digits grade. */
export const Plate = memo(function Plate({ plate, isMirrored, label, spots, isReadOnly, isPicture = false, onTouch, onDigit, onOpen }: Props) {
  const view = plate.view ?? WHOLE
  const drawing = useDrawing(plate.drawing, view)
  const group = useRef<HTMLDivElement>(null)
  // One landmark is a stop of the Tab key: from there the arrows go on.
  const [entered, setEntered] = useState('')
  const entry = spots.some(({ key }) => key === entered) ? entered : spots[0]?.key
  const press = usePress(onOpen, isReadOnly ? undefined : onTouch)
  const left = (x: number): number => ((isMirrored ? mirrored(x) - mirrored(view.x + view.width) : x - view.x) / view.width) * 100
  const top = (y: number): number => ((y - view.y) / view.height) * 100
  const move = (event: KeyboardEvent): void => {
    const buttons = [...(group.current?.querySelectorAll<HTMLElement>('button') ?? [])]
    const at = buttons.findIndex((button) => button === event.target)
    const direction = DIRECTIONS[event.key]
    const from = spots[at]
    if (!from) return
    if (/^\d$/.test(event.key) && !isReadOnly) onDigit(from.key, event.key)
    if (!direction) return
    event.preventDefault()
    const to = nearest(
      spots.map((spot) => ({ x: isMirrored ? mirrored(spot.x) : spot.x, y: spot.y })),
      at,
      direction,
    )
    if (to !== undefined) buttons[to]?.focus()
  }
  const style = { aspectRatio: `${view.width} / ${view.height}` }
  const picture = <Drawing aria-hidden $isMirrored={isMirrored} dangerouslySetInnerHTML={{ __html: drawing }} />
  const place = (spot: SpotOf) => ({ mark: spot.mark, state: spot.state, size: spot.size, left: left(spot.x), top: top(spot.y) })
  if (isPicture)
    return (
      <Frame role="img" aria-label={label} style={style}>
        {picture}
        {spots.map((spot) => (
          <Found key={spot.key} {...place(spot)} />
        ))}
      </Frame>
    )
  return (
    <Frame
      ref={group}
      onFocus={({ target }) => setEntered(target.dataset.spot ?? '')}
      role="group"
      aria-label={label}
      data-own-keys
      onKeyDown={move}
      {...press}
      style={style}
    >
      {picture}
      {spots.map((spot) => (
        <Spot key={spot.key} spot={spot.key} label={spot.label} badge={spot.badge} {...place(spot)} isCurrent={spot.isCurrent} isEntry={spot.key === entry} />
      ))}
    </Frame>
  )
})

const LONG_MS = 500

/** A touch on a landmark makes it one more; held, it opens its row. One pair of hands for the whole plate, so that no landmark is drawn anew for them. */
function usePress(onHold: (spot: string) => void, onTouch: ((spot: string) => void) | undefined) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const wasHeld = useRef(false)
  const release = (): void => clearTimeout(timer.current)
  return {
    onPointerDown: (event: PointerEvent): void => {
      const spot = spotAt(event)
      wasHeld.current = false
      if (spot === undefined) return
      release()
      timer.current = setTimeout(() => {
        wasHeld.current = true
        onHold(spot)
      }, LONG_MS)
    },
    onPointerUp: release,
    onPointerLeave: release,
    onPointerCancel: release,
    onClick: (event: MouseEvent): void => {
      const spot = spotAt(event)
      if (spot !== undefined && !wasHeld.current) onTouch?.(spot)
    },
  }
}

const spotAt = ({ target }: { readonly target: EventTarget }): string | undefined =>
  target instanceof Element ? target.closest<HTMLElement>('[data-spot]')?.dataset.spot : undefined

const Frame = styled.div`
  position: relative;
  contain: layout style;
  width: 100%;
  max-width: 300px;
  ${drawingColours}
  @media (pointer: coarse) {
    min-width: 560px;
    max-width: none;
  }
  @media print {
    --plate-paper: #fff;
    --plate-bone: #fff;
    --plate-ink: #000;
    --plate-skin: #000;
    --plate-mark: #000;
    max-width: 220px;
  }
`
/** A layer of its own: a mark that changes over it does not draw it anew. */
const Drawing = styled.div<{ $isMirrored: boolean }>`
  height: 100%;
  will-change: transform;
  transform: ${({ $isMirrored }) => ($isMirrored ? 'scaleX(-1)' : 'none')};
  svg {
    display: block;
    width: 100%;
    height: 100%;
  }
`
