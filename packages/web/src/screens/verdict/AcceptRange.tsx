import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { isReason, type Tier } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, Input, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { NameList } from '../../parts/NameList'
import { tierName } from '../../parts/PunchedStrip'
import type { Draft } from '../../record/useRecord'

interface Props {
  /** How urgent it could still be. */
  readonly ceiling: Tier
  /** What would settle it, the first to take first. */
  readonly open: readonly string[]
  readonly isOpen: boolean
  readonly onClose: () => void
  readonly onAccept: (decision: Draft) => void
}

/** An examination that could still be Now or Today is not signed without a reason, a plan and a name. */
export function AcceptRange({ ceiling, open, isOpen, onClose, onAccept }: Props) {
  const [reason, setReason] = useState('')
  const [plan, setPlan] = useState('')
  const isComplete = [reason, plan].every(isReason)
  return (
    <Dialogue title={`It could still be ${tierName(ceiling)}`} isOpen={isOpen} onClose={onClose}>
      <p>
        Not examined: <NameList names={open} />
      </p>
      <TextField value={reason} onChange={setReason}>
        <Label>Why it stays unexamined</Label>
        <Input />
      </TextField>
      <TextField value={plan} onChange={setPlan}>
        <Label>Plan: who looks again, and when</Label>
        <Input />
      </TextField>
      <Done $tone="copper" isDisabled={!isComplete} onPress={() => onAccept({ state: 'accepted', ceiling, reason: reason.trim(), plan: plan.trim() })}>
        Leave it open and sign
      </Done>
      <Soft>Reason, plan and your name go into the note and the letter. Whoever reads them knows what nobody examined.</Soft>
    </Dialogue>
  )
}

const Done = styled(Button)`
  justify-self: start;
`
