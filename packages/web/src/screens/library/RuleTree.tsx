import { useState } from 'react'
import { calcLines, type RegionPack, type RuleLine } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button } from '../../parts/controls'

/** A rule as an outline to be read from the top; what a line stands on opens beneath it. */
export function RuleTree({ pack, line }: { readonly pack: RegionPack; readonly line: RuleLine }) {
  const [isOpen, setOpen] = useState(false)
  const { leads } = line
  const calc = leads?.kind === 'score' ? pack.calcs.find((one) => one.id === leads.id) : undefined
  const joins = line.kids.length > 0
  return (
    <Step $joins={joins}>
      <span>
        {line.text}
        {calc && (
          <Button $tone="quiet" aria-expanded={isOpen} onPress={() => setOpen(!isOpen)}>
            {isOpen ? 'close' : 'what is that?'}
          </Button>
        )}
      </span>
      {line.kids.map((kid, at) => (
        <RuleTree key={at} pack={pack} line={kid} />
      ))}
      {calc && isOpen && calcLines(pack, calc).map((kid, at) => <RuleTree key={at} pack={pack} line={kid} />)}
    </Step>
  )
}

const Step = styled.div<{ $joins: boolean }>`
  padding: 2px 0 2px 12px;
  border-left: 2px solid ${({ theme }) => theme.rule};
  > span {
    color: ${({ $joins, theme }) => ($joins ? theme.soft : theme.ink)};
  }
`
