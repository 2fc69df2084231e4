import { useState } from 'react'
import { Label, Slider, SliderOutput, SliderThumb, SliderTrack } from 'react-aria-components'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import styled from 'styled-components'
import { afterTest, likelihoodRatios, positivesOfThousand, type Accuracy } from '@kneecap-awl/core'
import { Reading, Soft } from '../../parts/controls'

interface Ratios {
  readonly positive?: number
  readonly negative?: number
}

/** How far a finding moves the odds: given as such, or worked out from sensitivity and specificity where both are known. */
export function ratiosOf({ sens, spec, lrPositive, lrNegative }: Accuracy): Ratios {
  const worked = sens !== undefined && spec !== undefined ? likelihoodRatios(sens, spec) : undefined
  const positive = lrPositive ?? worked?.positive
  const negative = lrNegative ?? worked?.negative
  return { ...(positive === undefined ? {} : { positive }), ...(negative === undefined ? {} : { negative }) }
}

const SIZE = { width: 240, height: 150, left: 30, bottom: 22 }
const x = scaleLinear()
  .domain([0, 1])
  .range([SIZE.left, SIZE.width - 6])
const y = scaleLinear()
  .domain([0, 1])
  .range([SIZE.height - SIZE.bottom, 6])
const STEPS = Array.from({ length: 51 }, (_, at) => Math.min(0.99, Math.max(0.01, at / 50)))
const path = (ratio: number): string =>
  line<number>(
    (p) => x(p),
    (p) => y(afterTest(p, ratio)),
  )(STEPS) ?? ''
const percent = (share: number): string => `${Math.round(share * 100)} %`

/** Before and after: the share of patients who have it, by what was thought before. Above the dashed line the test raises it, below it lowers it. */
export function LikelihoodPicture({ finding, ratios }: { readonly finding: string; readonly ratios: Ratios }) {
  const [before, setBefore] = useState(0.2)
  const after = {
    positive: ratios.positive === undefined ? undefined : afterTest(before, ratios.positive),
    negative: ratios.negative === undefined ? undefined : afterTest(before, ratios.negative),
  }
  return (
    <Box>
      <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} width={SIZE.width} height={SIZE.height} role="img" aria-label={`${finding}: ${told(before, after)}`}>
        <path className="same" d={path(1)} />
        {ratios.positive !== undefined && <path className="positive" d={path(ratios.positive)} />}
        {ratios.negative !== undefined && <path className="negative" d={path(ratios.negative)} />}
        <line className="now" x1={x(before)} x2={x(before)} y1={y(0)} y2={y(1)} />
        {after.positive !== undefined && <circle className="positive" cx={x(before)} cy={y(after.positive)} r={4} />}
        {after.negative !== undefined && <circle className="negative" cx={x(before)} cy={y(after.negative)} r={4} />}
        {[0, 0.5, 1].map((share) => (
          <g key={share}>
            <text x={x(share)} y={SIZE.height - 6} textAnchor={share === 0 ? 'start' : share === 1 ? 'end' : 'middle'}>
              {share * 100}
            </text>
            <text x={SIZE.left - 5} y={y(share) + 4} textAnchor="end">
              {share * 100}
            </text>
          </g>
        ))}
      </svg>
      <div>
        <Before minValue={0.01} maxValue={0.99} step={0.01} value={before} onChange={(value) => setBefore(Array.isArray(value) ? (value[0] ?? before) : value)}>
          <Label>Pre-test probability</Label>
          <SliderOutput>{percent(before)}</SliderOutput>
          <SliderTrack>
            <SliderThumb />
          </SliderTrack>
        </Before>
        {after.positive !== undefined && (
          <p>
            Positive: <Reading>{percent(after.positive)}</Reading> <Soft>ratio {round(ratios.positive)}</Soft>
          </p>
        )}
        {after.negative !== undefined && (
          <p>
            Negative: <Reading>{percent(after.negative)}</Reading> <Soft>ratio {round(ratios.negative)}</Soft>
          </p>
        )}
      </div>
    </Box>
  )
}

/** Said once a page, with the page's own numbers: sensitivity is not the chance that the patient has it. */
export function NotTheChance({ figures }: { readonly figures: readonly Accuracy[] }) {
  const known = figures.find(({ sens, spec, unverified }) => sens !== undefined && spec !== undefined && !unverified)
  if (known?.sens === undefined || known.spec === undefined) return null
  const { ill, well, right } = positivesOfThousand(known.sens, known.spec)
  return (
    <Aside>
      A sensitivity of {known.sens} % is not a chance of {known.sens} % that the patient has it. Had 100 of 1000 patients what the test looks for, {ill} of them
      would test positive, and {well} of the other 900 too: a positive test would be right in {ill} of {ill + well}, {percent(right)}.
    </Aside>
  )
}

const round = (ratio: number | undefined): string =>
  ratio === undefined ? '' : ratio >= 10 ? String(Math.round(ratio)) : String(Math.round(ratio * 100) / 100)
const told = (before: number, after: { readonly positive: number | undefined; readonly negative: number | undefined }): string =>
  [
    `${percent(before)} before`,
    after.positive !== undefined && `${percent(after.positive)} if positive`,
    after.negative !== undefined && `${percent(after.negative)} if negative`,
  ]
    .filter(Boolean)
    .join(', ')

const Aside = styled.p`
  margin-bottom: 10px;
`

const Box = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  svg {
    background: ${({ theme }) => theme.sheet};
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 8px;
  }
  text {
    font-size: 11px;
    fill: ${({ theme }) => theme.soft};
  }
  path {
    fill: none;
    stroke-width: 2;
    stroke: ${({ theme }) => theme.ink};
  }
  path.same {
    stroke: ${({ theme }) => theme.rule};
    stroke-dasharray: 4 3;
  }
  path.positive {
    stroke: ${({ theme }) => theme.copper};
  }
  circle.positive {
    fill: ${({ theme }) => theme.copper};
  }
  circle.negative {
    fill: ${({ theme }) => theme.ink};
  }
  line.now {
    stroke: ${({ theme }) => theme.rule};
  }
`
const Before = styled(Slider)`
  display: grid;
  grid-template-columns: 1fr auto;
  width: 220px;
  gap: 2px 8px;
  margin-bottom: 6px;
  font-size: 13px;
  .react-aria-SliderTrack {
    grid-column: 1 / -1;
    height: 28px;
    position: relative;
    &::before {
      content: '';
      position: absolute;
      top: 13px;
      width: 100%;
      height: 2px;
      background: ${({ theme }) => theme.rule};
    }
  }
  .react-aria-SliderThumb {
    width: 18px;
    height: 18px;
    top: 50%;
    border-radius: 50%;
    background: ${({ theme }) => theme.copper};
    &[data-focus-visible] {
      outline: 2px solid ${({ theme }) => theme.ink};
      outline-offset: 2px;
    }
  }
`
