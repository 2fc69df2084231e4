import { useState } from 'react'
import { ToggleButton } from 'react-aria-components'
import type { Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { PackSummary } from '../../api/queries'
import { Toggle, ToggleRow } from '../../parts/controls'
import { drawingColours, useDrawing } from '../../plates/drawings'
import { placesOf, type Joint, type View } from './places'

export interface Sore {
  readonly region: string
  readonly sides: readonly Side[]
}

interface Props {
  readonly regions: PackSummary['regions']
  readonly sore: readonly Sore[]
  readonly onChange: (sore: readonly Sore[]) => void
}

const VIEWS = ['front', 'back'] as const
/** The part of the drawing that is shown, in its units: the body without the paper beside it. */
const BODY = { x: 90, y: 0, width: 180, height: 440 }
/** Where the body stands in the figure, percent of its width and height. */
const AT = { left: 29, width: 42, top: 11, height: 83.7 }
/** How far down the names above the body reach, percent. */
const MIDDLE_NAMES = 5.6
const EDGE = { left: 24.5, right: 75.5 }

/** The drawn patient, facing the examiner or from behind: every joint is named beside the body, with a line to where it is. One joint or several, of each one side or both; in the order in which they were chosen. */
export function Figure({ regions, sore, onChange }: Props) {
  const [view, setView] = useState<View>('front')
  const drawing = useDrawing(`body-${view}`, BODY)
  const sidesOf = (region: string): readonly Side[] => sore.find((one) => one.region === region)?.sides ?? []
  const flip = ({ region, side }: Joint): void => {
    const now = sidesOf(region)
    const sides = now.includes(side) ? now.filter((one) => one !== side) : [...now, side].sort(rightFirst)
    const changed = now.length > 0 ? sore.map((one) => (one.region === region ? { region, sides } : one)) : [...sore, { region, sides }]
    onChange(changed.filter((one) => one.sides.length > 0))
  }
  const isSore = ({ region, side }: Joint): boolean => sidesOf(region).includes(side)
  const joints = placesOf(regions, view)
  const x = (percent: number): number => AT.left + ((percent * 3.6 - BODY.x) / BODY.width) * AT.width
  const y = (percent: number): number => AT.top + (percent / 100) * AT.height
  return (
    <>
      <ToggleRow
        aria-label="View of the figure"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[view]}
        onSelectionChange={([key]) => key !== undefined && setView(key as View)}
      >
        {VIEWS.map((one) => (
          <Toggle key={one} id={one}>
            {one === 'front' ? 'From the front' : 'From behind'}
          </Toggle>
        ))}
      </ToggleRow>
      <Whole>
        <Body aria-hidden dangerouslySetInnerHTML={{ __html: drawing }} />
        <Lines aria-hidden viewBox="0 0 100 100" preserveAspectRatio="none">
          {joints.map((joint) => (
            <line
              key={joint.key}
              data-sore={isSore(joint) || undefined}
              x1={joint.column === 'middle' ? joint.at : EDGE[joint.column]}
              y1={joint.column === 'middle' ? MIDDLE_NAMES : joint.top}
              x2={x(joint.x)}
              y2={y(joint.y)}
            />
          ))}
        </Lines>
        {joints.map((joint) => (
          <Lamp key={joint.key} aria-hidden data-sore={isSore(joint) || undefined} style={{ left: `${x(joint.x)}%`, top: `${y(joint.y)}%` }} />
        ))}
        {joints.map((joint) => (
          <Name
            key={joint.key}
            $column={joint.column}
            style={joint.column === 'middle' ? { left: `${joint.at}%`, top: 0 } : { top: `${joint.top}%` }}
            aria-label={`${joint.side === 'none' ? '' : `${joint.side} `}${joint.name.toLowerCase()}, ${view}`}
            isSelected={isSore(joint)}
            onChange={() => flip(joint)}
          >
            {joint.name}
          </Name>
        ))}
        <Which $column="left">{view === 'front' ? 'right' : 'left'}</Which>
        <Which $column="right">{view === 'front' ? 'left' : 'right'}</Which>
      </Whole>
    </>
  )
}

const rightFirst = (a: Side, b: Side): number => Number(b === 'right') - Number(a === 'right')

const Whole = styled.div`
  position: relative;
  width: 100%;
  max-width: 440px;
  aspect-ratio: 440 / 540;
  margin-top: 10px;
`
const Body = styled.div`
  position: absolute;
  left: ${AT.left}%;
  top: ${AT.top}%;
  width: ${AT.width}%;
  height: ${AT.height}%;
  ${drawingColours}
  svg {
    display: block;
    width: 100%;
    height: 100%;
  }
`
const Lines = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  line {
    stroke: ${({ theme }) => theme.rule};
    vector-effect: non-scaling-stroke;
  }
  line[data-sore] {
    stroke: ${({ theme }) => theme.copper};
    stroke-width: 2px;
  }
`
const Lamp = styled.span`
  position: absolute;
  width: 9px;
  height: 9px;
  transform: translate(-50%, -50%);
  border-radius: 50%;
  border: 2px solid ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.sheet};
  pointer-events: none;
  &[data-sore] {
    width: 15px;
    height: 15px;
    background: ${({ theme }) => theme.copper};
  }
`
const Name = styled(ToggleButton)<{ $column: Joint['column'] }>`
  position: absolute;
  ${({ $column }) => ($column === 'left' ? 'left: 0;' : $column === 'right' ? 'right: 0;' : '')}
  width: ${({ $column }) => ($column === 'middle' ? 'auto' : '24%')};
  min-height: 30px;
  padding: 0 6px;
  transform: translate(${({ $column }) => ($column === 'middle' ? '-50%, 0' : '0, -50%')});
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  font-size: 13px;
  line-height: 1.1;
  cursor: pointer;
  &[data-selected] {
    background: ${({ theme }) => theme.copper};
    border-color: ${({ theme }) => theme.copper};
    color: ${({ theme }) => theme.onCopper};
  }
  &[data-hovered] {
    border-color: ${({ theme }) => theme.copper};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 2px;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`
const Which = styled.span<{ $column: 'left' | 'right' }>`
  position: absolute;
  top: 0;
  ${({ $column }) => $column}: 0;
  width: 24%;
  text-align: center;
  font-size: 12px;
  font-weight: 650;
  color: ${({ theme }) => theme.soft};
`
