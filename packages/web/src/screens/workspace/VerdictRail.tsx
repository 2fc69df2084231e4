import { ActionLine } from '../../parts/ActionLine'
import { memo, useState } from 'react'
import { localChoices, type ConditionRange, type FlagVerdict, type Rail } from '@kneecap-awl/core'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { Cautions } from '../../parts/Cautions'
import { LinkButton, SmallTitle, Soft } from '../../parts/controls'
import { NerveLevel } from '../../parts/NerveLevel'
import { PunchedStrip, rangeWords, tierName } from '../../parts/PunchedStrip'
import { SetPriority } from '../../parts/SetPriority'
import { timeOnly } from '../../parts/times'
import type { Draft } from '../../record/useRecord'
import { aboutShare, beside, chanceWords, shareWords, useChances } from '../../reason/useChances'
import { Unexamined } from '../../parts/Unexamined'
import { EarlierFlags, MetFlags } from './MetFlags'

interface Props {
  readonly rail: Rail
  readonly onGo: (item: string) => void
  /** Sets the priority; left out while nothing can be recorded. */
  readonly onSet: ((draft: Draft) => void) | undefined
  readonly onLift: ((flag: FlagVerdict, reason: string) => void) | undefined
}

/** The calm rail: the strip, what is met and why, what would bring the ceiling down, what is likely. */
export const VerdictRail = memo(function VerdictRail({ rail, onGo, onSet, onLift }: Props) {
  const [isWhole, setWhole] = useState(false)
  const { pack, floor, ceiling, isSettled, isSet, priority, setBy, actNow, flags, earlier, open, telling } = rail
  return (
    <Frame aria-label="Verdict">
      <PunchedStrip floor={floor} ceiling={ceiling} size="large" />
      <Range aria-live="polite" data-testid="range">
        <strong>{isSet ? tierName(priority.tier) : rangeWords(floor, ceiling)}</strong>
        <Soft>{isSettled ? 'settled' : isSet ? `findings: ${rangeWords(floor, ceiling)}` : ''}</Soft>
      </Range>
      {setBy && <Soft as="p">{setBy}.</Soft>}
      {onSet && <SetPriority pack={pack} priority={priority} onSet={onSet} />}
      {actNow && <ActNow {...actNow} />}
      {flags.length > 0 && <Title>Flags</Title>}
      <MetFlags pack={pack} flags={flags} onLift={onLift} />
      {earlier.length > 0 && <Title>Earlier in this examination</Title>}
      {earlier.length > 0 && <EarlierFlags earlier={earlier} />}
      <Title>{isSettled ? 'Still open' : 'Brings the ceiling down'}</Title>
      {open.length === 0 && <Soft as="p">Nothing left unexamined could change it.</Soft>}
      <ul aria-label="Missing findings">
        {(isWhole ? open : open.slice(0, FEW)).map((one) => (
          <li key={one.item}>
            <OneMissing
              item={one.item}
              label={one.onHold ? `${one.label} (on hold)` : one.label}
              cost={`${tierName(one.tier)} · ${Math.ceil(one.seconds)} s`}
              onGo={onGo}
            />
          </li>
        ))}
      </ul>
      {open.length > FEW && (
        <LinkButton aria-expanded={isWhole} onPress={() => setWhole(!isWhole)}>
          {isWhole ? 'Fewer' : `and ${open.length - FEW} more`}
        </LinkButton>
      )}
      <Unexamined unexamined={rail.unexamined} onGo={onGo} />
      <NerveLevel pack={pack} {...rail.nerve} onGo={onGo} />
      {rail.likely.length > 0 && <LikelyBars conditions={rail.likely} />}
      {telling.length > 0 && (
        <>
          <Title>Most informative next</Title>
          <ul aria-label="Informative tests">
            {telling.map((one) => (
              <li key={`${one.item} ${one.side}`}>
                <Missing onPress={() => onGo(one.item)} aria-label={`${one.label}: ${one.conditions.join(', ')}`}>
                  <span>{one.label}</span>
                  <Soft title={`${one.bits.toFixed(2)} bit expected`}>{tellsWords(one.bits)}</Soft>
                </Missing>
              </li>
            ))}
          </ul>
        </>
      )}
      <Foot>
        <Cautions cautions={pack.cautions} pack={pack.version} local={localChoices(pack.practiceVariants, pack.regions[0].id).length} />
      </Foot>
    </Frame>
  )
})

interface OneMissingProps {
  readonly item: string
  readonly label: string
  /** The tier that it keeps open, and what it takes. */
  readonly cost: string
  readonly onGo: (item: string) => void
}

const OneMissing = memo(function OneMissing({ item, label, cost, onGo }: OneMissingProps) {
  return (
    <Missing onPress={() => onGo(item)}>
      <span>{label}</span>
      <Soft>{cost}</Soft>
    </Missing>
  )
})

/** Missing findings that are shown before the list is opened. */
const FEW = 5

/** A flag of tier Now takes the rail over: what to do and whom to call. It never stops the recording. */
function ActNow({ calls, actions, avoid, firstSeen }: NonNullable<Rail['actNow']>) {
  return (
    <Urgent role="alert">
      <strong>Act now</strong>
      {firstSeen && <Soft>first seen {timeOnly(firstSeen)}</Soft>}
      <p>Call: {calls.join(', ')}</p>
      <ol>
        {actions.slice(0, 5).map((action) => (
          <li key={action.id}>
            <ActionLine {...action} />
          </li>
        ))}
      </ol>
      <Soft>Avoid: {avoid.join('; ')}.</Soft>
    </Urgent>
  )
}

/** How much a test is expected to tell: a test as good as a sound Lachman at even odds tells much. */
const tellsWords = (bits: number): string => (bits >= 0.3 ? 'tells much' : bits >= 0.1 ? 'tells some' : 'tells a little')

function LikelyBars({ conditions }: { readonly conditions: readonly ConditionRange[] }) {
  const likely = useChances(conditions)
  return (
    <>
      <Title>Differential diagnosis, estimated</Title>
      <ul>
        {likely.slice(0, 4).map((one) => (
          <Band key={`${one.id} ${one.side}`} title={aboutShare(one)}>
            <span>
              {one.name} <Soft>{beside(one)}</Soft>
            </span>
            <Soft>{shareWords(one)}</Soft>
            <Track role="img" aria-label={chanceWords(one)}>
              <Bar $from={one.chance?.low ?? one.low} $to={one.chance?.high ?? one.high} />
              {one.chance && <Middle $at={one.chance.middle} />}
            </Track>
          </Band>
        ))}
      </ul>
    </>
  )
}

const Frame = styled.aside`
  padding: 14px 16px;
  background: ${({ theme }) => theme.sheet};
  border-left: 1px solid ${({ theme }) => theme.rule};
  overflow: auto;
  @media (max-width: 1024px) {
    border-left: none;
    border-top: 2px solid ${({ theme }) => theme.ink};
  }
`
const Range = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-top: 8px;
  gap: 8px;
  strong {
    font-size: 20px;
    line-height: 1.15;
  }
`
const Title = styled(SmallTitle)`
  margin: 14px 0 6px;
`
const Urgent = styled.div`
  display: grid;
  gap: 4px;
  margin-top: 10px;
  padding: 10px 12px;
  border: 2px solid ${({ theme }) => theme.copper};
  border-radius: 8px;
  > strong {
    color: ${({ theme }) => theme.copper};
    font-size: 16px;
  }
  ol {
    list-style: decimal;
    padding-left: 18px;
  }
`
const Missing = styled(AriaButton)`
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 6px 0;
  text-align: left;
  cursor: pointer;
  background: none;
  border: none;
  border-bottom: 1px dashed ${({ theme }) => theme.rule};
  color: ${({ theme }) => theme.ink};
  &[data-hovered] {
    text-decoration: underline;
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
  span:last-child {
    white-space: nowrap;
  }
`
const Band = styled.li`
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: baseline;
  gap: 2px 8px;
  padding: 3px 0;
`
const Track = styled.span`
  grid-column: 1 / -1;
  position: relative;
  height: 8px;
  border-radius: 4px;
  background: ${({ theme }) => theme.wash};
`
const Middle = styled.span<{ $at: number }>`
  position: absolute;
  top: -2px;
  bottom: -2px;
  width: 2px;
  left: ${({ $at }) => $at * 100}%;
  background: ${({ theme }) => theme.ink};
`
const Bar = styled.span<{ $from: number; $to: number }>`
  position: absolute;
  top: 0;
  bottom: 0;
  left: ${({ $from }) => $from * 100}%;
  width: ${({ $from, $to }) => Math.max(3, ($to - $from) * 100)}%;
  border-radius: 4px;
  background: ${({ theme }) => theme.soft};
`
const Foot = styled.div`
  margin-top: 18px;
`
