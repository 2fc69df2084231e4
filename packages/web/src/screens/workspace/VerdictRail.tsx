import { memo, useState } from 'react'
import { localChoices, setWords } from '@kneecap-awl/core'
import type {
  Priority,
  ConditionRange,
  EarlierFlag,
  FlagVerdict,
  nerveLevels,
  OpenItem,
  RegionPack,
  TellingTest,
  UnexaminedStop,
  Verdict,
} from '@kneecap-awl/core'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { Cautions } from '../../parts/Cautions'
import { LinkButton, SmallTitle, Soft } from '../../parts/controls'
import { NerveLevel } from '../../parts/NerveLevel'
import { PunchedStrip, rangeWords, tierName } from '../../parts/PunchedStrip'
import { SetPriority } from '../../parts/SetPriority'
import { siteZone, timeOnly } from '../../parts/times'
import type { Draft } from '../../record/useRecord'
import { chanceWords, useChances } from '../../reason/useChances'
import { Unexamined } from '../../parts/Unexamined'
import { EarlierFlags, MetFlags } from './MetFlags'

interface Props {
  readonly pack: RegionPack
  readonly verdict: Verdict
  readonly priority: Priority
  /** What was urgent before a finding was checked anew, and is not held. */
  readonly earlier: readonly EarlierFlag[]
  readonly open: readonly OpenItem[]
  readonly unexamined: readonly UnexaminedStop[]
  readonly conditions: readonly ConditionRange[]
  readonly telling: readonly TellingTest[]
  readonly nerve: ReturnType<typeof nerveLevels>
  readonly firstSeen: string | undefined
  readonly onGo: (item: string) => void
  /** Sets the priority; left out while nothing can be recorded. */
  readonly onSet: ((draft: Draft) => void) | undefined
  readonly onLift: ((flag: FlagVerdict, reason: string) => void) | undefined
}

/** The calm rail: the strip, what is met and why, what would bring the ceiling down, what is likely. */
export const VerdictRail = memo(function VerdictRail({
  pack,
  verdict,
  priority,
  earlier,
  open,
  unexamined,
  conditions,
  telling,
  nerve,
  firstSeen,
  onGo,
  onSet,
  onLift,
}: Props) {
  const [isWhole, setWhole] = useState(false)
  const set = setWords(pack, priority, siteZone())
  const now = verdict.flags.filter((flag) => flag.tier === 'now')
  const shown = verdict.flags.filter((flag) => flag.tier !== 'here')
  return (
    <Rail aria-label="Verdict">
      <PunchedStrip floor={verdict.floor} ceiling={verdict.ceiling} size="large" />
      <Range aria-live="polite" data-testid="range">
        <strong>{priority.tier === verdict.floor ? rangeWords(verdict.floor, verdict.ceiling) : tierName(priority.tier)}</strong>
        <Soft>
          {verdict.floor === verdict.ceiling ? 'settled' : priority.tier === verdict.floor ? '' : `findings: ${rangeWords(verdict.floor, verdict.ceiling)}`}
        </Soft>
      </Range>
      {set && <Soft as="p">{set}.</Soft>}
      {onSet && <SetPriority pack={pack} priority={priority} onSet={onSet} />}
      {now.length > 0 && <ActNow pack={pack} flags={now} firstSeen={firstSeen} />}
      {shown.length > 0 && <Title>Flags</Title>}
      <MetFlags pack={pack} flags={shown} onLift={onLift} />
      {earlier.length > 0 && <Title>Earlier in this examination</Title>}
      {earlier.length > 0 && <EarlierFlags earlier={earlier} />}
      <Title>{verdict.floor === verdict.ceiling ? 'Still open' : 'Brings the ceiling down'}</Title>
      {open.length === 0 && <Soft as="p">Nothing left unexamined could change it.</Soft>}
      <ul aria-label="Missing findings">
        {(isWhole ? open : open.slice(0, FEW)).map((one) => (
          <li key={one.item}>
            <Missing onPress={() => onGo(one.item)}>
              <span>
                {one.label}
                {one.held ? ' (on hold)' : ''}
              </span>
              <Soft>
                {tierName(one.tier)} · {Math.ceil(one.seconds)} s
              </Soft>
            </Missing>
          </li>
        ))}
      </ul>
      {open.length > FEW && (
        <LinkButton aria-expanded={isWhole} onPress={() => setWhole(!isWhole)}>
          {isWhole ? 'Fewer' : `and ${open.length - FEW} more`}
        </LinkButton>
      )}
      <Unexamined unexamined={unexamined} onGo={onGo} />
      <NerveLevel pack={pack} {...nerve} onGo={onGo} />
      {conditions.length > 0 && <LikelyBars conditions={conditions} />}
      {telling.length > 0 && (
        <>
          <Title>Would tell most about these</Title>
          <ul aria-label="Telling tests">
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
        <Cautions cautions={pack.cautions} pack={pack.version} local={localChoices(pack.schools, pack.regions[0].id).length} />
      </Foot>
    </Rail>
  )
})

/** Missing findings that are shown before the list is opened. */
const FEW = 5

/** A flag of tier Now takes the rail over: what to do and whom to call. It never stops the recording. */
function ActNow({ pack, flags, firstSeen }: { readonly pack: RegionPack; readonly flags: readonly FlagVerdict[]; readonly firstSeen: string | undefined }) {
  const actions = [...new Set(flags.flatMap((flag) => flag.doNow))].flatMap((id) => pack.actions.find((action) => action.id === id) ?? [])
  const avoid = [...new Set(flags.flatMap((flag) => flag.avoid))]
  return (
    <Urgent role="alert">
      <strong>Act now</strong>
      {firstSeen && <Soft>first seen {timeOnly(firstSeen)}</Soft>}
      <p>Call: {[...new Set(flags.flatMap((flag) => flag.to))].map((id) => pack.destinations.find((d) => d.id === id)?.name ?? id).join(', ')}</p>
      <ol>
        {actions.slice(0, 5).map((action) => (
          <li key={action.id}>{action.text}</li>
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
      <Title>Likely, as estimates</Title>
      <ul>
        {likely.slice(0, 4).map((one) => (
          <Band key={`${one.id} ${one.side}`} title={chanceWords(one)}>
            <span>{one.name}</span>
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

const Rail = styled.aside`
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
  strong {
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
  grid-template-columns: 1fr 110px;
  align-items: center;
  gap: 8px;
  padding: 2px 0;
`
const Track = styled.span`
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
