import { tellingLines, type FlagVerdict, type RegionPack } from '@kneecap-awl/core'
import { useState } from 'react'
import styled from 'styled-components'
import { Button, Card, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { tierName } from '../../parts/PunchedStrip'
import { ProofTree } from '../../parts/ProofTree'
import { timeOnly } from '../../parts/times'

interface Props {
  readonly pack: RegionPack
  readonly flags: readonly FlagVerdict[]
  /** How many core items nobody examined. */
  readonly unexamined: number
}

/** Findings to flag to tier, one line a flag; the whole proof is one press away. */
export function WhyChain({ pack, flags, unexamined }: Props) {
  const [shown, setShown] = useState<FlagVerdict>()
  if (flags.length === 0)
    return (
      <p>No flag is met. {unexamined === 0 ? 'The whole core was examined.' : `${unexamined} items of the core were not examined: a gap is not normal.`}</p>
    )
  return (
    <>
      {flags.map((flag) => (
        <Chain key={`${flag.id} ${flag.side}`}>
          <Box>
            {tellingLines(pack, flag)
              .slice(0, MOST)
              .map((line) => (
                <p key={line}>{line}</p>
              ))}
          </Box>
          <span aria-hidden>→</span>
          <Box $marked>
            <strong>{flag.title}</strong>
            <Soft>{pack.flags.find((one) => one.id === flag.id)?.why}</Soft>
            <Button $tone="quiet" onPress={() => setShown(flag)}>
              the whole proof
            </Button>
          </Box>
          <span aria-hidden>→</span>
          <Box>
            <strong>{tierName(flag.tier ?? 'here')}</strong>
            {flag.retained && <Soft>found otherwise at {timeOnly(flag.retained.until)}; held until it is lifted on the sheet</Soft>}
            <Soft>{pack.destinations.find((d) => d.id === flag.to[0])?.name}</Soft>
            {flag.modifiers
              .filter((m) => m.truth === 'met')
              .map((m) => (
                <Soft key={m.id}>moved by: {pack.modifiers.find((one) => one.id === m.id)?.title.toLowerCase()}</Soft>
              ))}
            {flag.clock && (
              <Soft>
                {flag.clock.passed ? 'repair window passed: late, discuss' : `repair window: ${Math.max(0, Math.floor(flag.clock.hoursLeft / 24))} days left`}
              </Soft>
            )}
          </Box>
        </Chain>
      ))}
      <Dialogue title={shown ? `Proof: ${shown.title}` : ''} isOpen={shown !== undefined} onClose={() => setShown(undefined)}>
        {shown?.proof && <ProofTree pack={pack} proof={shown.proof} />}
        {shown && (
          <Soft as="p">
            Source: {pack.flags.find((flag) => flag.id === shown.id)?.source}. Excluded only by: {pack.flags.find((flag) => flag.id === shown.id)?.excludedBy}
          </Soft>
        )}
      </Dialogue>
    </>
  )
}

const MOST = 5

const Chain = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) auto minmax(0, 1.2fr) auto minmax(0, 0.7fr);
  align-items: center;
  gap: 8px;
  margin-bottom: 8px;
`
const Box = styled(Card).attrs({ as: 'div' })<{ $marked?: boolean }>`
  display: grid;
  gap: 2px;
  height: 100%;
  align-content: center;
  padding: 8px 12px;
  border-left: ${({ theme, $marked }) => ($marked ? `5px solid ${theme.copper}` : `1px solid ${theme.rule}`)};
  button {
    justify-self: start;
    padding: 0;
    min-height: 24px;
    text-decoration: underline;
    font-size: 12px;
  }
`
