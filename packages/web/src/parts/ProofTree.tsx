import { asEntry, beforeWords, findingWords, itemsById, type RegionPack, type ProofFinding, type ProofNode } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from './controls'
import { timeOnly } from './times'

const OPERATOR: Readonly<Record<string, string>> = { all: 'all of', any: 'any of', not: 'not', proven: 'proven', atLeast: 'at least' }
const TRUTH = { met: 'met', 'not-met': 'not met', unknown: 'not known' } as const

/** A proof that can be checked by hand: each step with what it stands on, down to the findings. */
export function ProofTree({ pack, proof }: { readonly pack: RegionPack; readonly proof: ProofNode }) {
  if (proof.op !== 'leaf' && proof.of?.length === 1 && proof.op !== 'not') {
    const only = proof.of[0]
    return only ? <ProofTree pack={pack} proof={only} /> : null
  }
  return (
    <Step>
      {proof.op === 'leaf' ? (
        <Leaf pack={pack} node={proof} />
      ) : (
        <Soft>
          {OPERATOR[proof.op]}
          {proof.n ? ` ${proof.n}` : ''}, {TRUTH[proof.truth]}
        </Soft>
      )}
      {proof.of?.map((kid, at) => (
        <ProofTree key={at} pack={pack} proof={kid} />
      ))}
    </Step>
  )
}

function Leaf({ pack, node }: { readonly pack: RegionPack; readonly node: ProofNode }) {
  if (!node.findings?.length)
    return (
      <span>
        <code>{calcName(pack, node.text ?? '')}</code>{' '}
        <Soft>
          {TRUTH[node.truth]}
          {node.until ? ` until ${timeOnly(node.until)}, and not lifted since` : ''}
        </Soft>
      </span>
    )
  return (
    <ul>
      {node.findings.map((finding) => (
        <li key={`${finding.item} ${finding.side}`}>
          <strong>{itemsById(pack).get(finding.item)?.label ?? finding.item}</strong>
          {finding.side === 'none' ? '' : `, ${finding.side}`}: {words(pack, finding)}{' '}
          <Soft>
            rule: {node.text}, {TRUTH[node.truth]}
          </Soft>
        </li>
      ))}
    </ul>
  )
}

const calcName = (pack: RegionPack, text: string): string => pack.calcs.reduce((shown, calc) => shown.replace(calc.id, calc.label), text)

function words(pack: RegionPack, finding: ProofFinding): string {
  if (finding.state === 'not-indicated') return 'not asked, nothing called for it'
  if (finding.state === 'derived') {
    const { value } = finding
    const unit = itemsById(pack).get(finding.item)?.unit
    const shown =
      typeof value === 'number'
        ? String(Math.round(value * 100) / 100)
        : typeof value === 'object' && 'low' in value
          ? `${Math.round(value.low * 10) / 10} to ${Math.round(value.high * 10) / 10}`
          : String(value)
    return `${shown}${unit ? ` ${unit}` : ''}, worked out`
  }
  return `${findingWords(pack, asEntry(finding))}${beforeWords(pack, finding)}`
}

const Step = styled.div`
  padding: 2px 0 2px 12px;
  border-left: 2px solid ${({ theme }) => theme.rule};
`
