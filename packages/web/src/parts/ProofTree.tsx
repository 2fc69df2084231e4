import { proofLine, type ProofLine, type ProofNode, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from './controls'
import { timeOnly } from './times'

/** A proof that can be checked by hand: each step with what it stands on, down to the findings. */
export function ProofTree({ pack, proof }: { readonly pack: RegionPack; readonly proof: ProofNode }) {
  return <Line line={proofLine(pack, proof)} />
}

function Line({ line: { text, asked, truth, until, kids } }: { readonly line: ProofLine }) {
  const isFinding = kids.length === 0
  return (
    <Step>
      {isFinding ? <span>{text}</span> : <Soft>{text}</Soft>}
      {asked !== undefined && <Soft>{` (criterion: ${asked}${truth === 'met' ? '' : truth === 'unknown' ? ', not yet known' : ', not fulfilled'})`}</Soft>}
      {until !== undefined && <Soft>{` until ${timeOnly(until)}, and not lifted since`}</Soft>}
      {kids.map((kid, at) => (
        <Line key={at} line={kid} />
      ))}
    </Step>
  )
}

const Step = styled.div`
  padding: 2px 0 2px 12px;
  border-left: 2px solid ${({ theme }) => theme.rule};
`
