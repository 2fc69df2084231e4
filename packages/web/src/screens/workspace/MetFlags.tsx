import { memo, useState } from 'react'
import { slotKey, type EarlierFlag, type FlagVerdict, type RegionPack, type Side } from '@kneecap-awl/core'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { ProofTree } from '../../parts/ProofTree'
import { tierName } from '../../parts/PunchedStrip'
import { timeOnly } from '../../parts/times'
import { LiftFlag } from './LiftFlag'

interface Props {
  readonly pack: RegionPack
  readonly flags: readonly FlagVerdict[]
  /** Lifts a flag that is held; left out while nothing can be recorded. */
  readonly onLift: ((flag: FlagVerdict, reason: string) => void) | undefined
}

/** The flags that are met, each with its proof one press away, and the way to lift one that is only held. */
export function MetFlags({ pack, flags, onLift }: Props) {
  const [opened, setOpened] = useState<string>()
  const keyOf = (flag: FlagVerdict): string => slotKey(flag.id, flag.side)
  const asked = flags.find((flag) => keyOf(flag) === opened)
  const about = pack.flags.find((flag) => flag.id === asked?.id)
  const close = (): void => setOpened(undefined)
  return (
    <>
      {flags.map((flag) => (
        <OneFlag
          key={keyOf(flag)}
          id={keyOf(flag)}
          title={flag.title}
          tier={tierName(flag.tier ?? 'here')}
          side={flag.side}
          until={flag.retained?.until}
          destination={pack.destinations.find((d) => d.id === flag.to[0])?.name}
          onOpen={setOpened}
        />
      ))}
      <Dialogue title={asked ? `Why: ${asked.title}` : ''} isOpen={asked !== undefined} onClose={close}>
        {asked?.retained && (
          <LiftFlag
            key={opened}
            until={asked.retained.until}
            onLift={
              onLift &&
              ((reason) => {
                onLift(asked, reason)
                close()
              })
            }
          />
        )}
        {asked?.retained && <Soft>What met it until then:</Soft>}
        {asked?.proof && <ProofTree pack={pack} proof={asked.proof} />}
        {asked && (
          <Soft as="p">
            {about?.why} Source: {about?.source}.
          </Soft>
        )}
      </Dialogue>
    </>
  )
}

interface OneFlagProps {
  readonly id: string
  readonly title: string
  readonly tier: string
  readonly side: Side
  /** Until when it was met, where it is only held. */
  readonly until: string | undefined
  readonly destination: string | undefined
  readonly onOpen: (id: string) => void
}

const OneFlag = memo(function OneFlag({ id, title, tier, side, until, destination, onOpen }: OneFlagProps) {
  return (
    <FlagCard onPress={() => onOpen(id)}>
      <strong>{title}</strong>
      <span>
        {tier}
        {side === 'none' ? '' : `, ${side}`}
        {until === undefined ? ' · why?' : `, held since ${timeOnly(until)} · why, lift?`}
      </span>
      <Soft>{destination}</Soft>
    </FlagCard>
  )
})

/** What was urgent and is not held: found otherwise since, or lifted by name. */
export function EarlierFlags({ earlier }: { readonly earlier: readonly EarlierFlag[] }) {
  return (
    <ul aria-label="Earlier flags">
      {earlier.map(({ flag, tier, until, lifted }) => (
        <li key={slotKey(flag.id, flag.side)}>
          {flag.title}, {tierName(tier)}{' '}
          <Soft>
            {flag.side === 'none' ? '' : `${flag.side}, `}until {timeOnly(until)}
            {lifted ? `; lifted ${timeOnly(lifted.at)} by ${lifted.by}: ${lifted.reason}` : ''}
          </Soft>
        </li>
      ))}
    </ul>
  )
}

const FlagCard = styled(AriaButton)`
  display: grid;
  width: 100%;
  text-align: left;
  gap: 1px;
  margin-bottom: 6px;
  padding: 8px 12px;
  cursor: pointer;
  border: none;
  border-left: 4px solid ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.copperWash};
  color: ${({ theme }) => theme.ink};
  span:last-child {
    color: ${({ theme }) => theme.ink};
    opacity: 0.85;
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
`
