import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { isReason } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, Input, Soft, Toggle, ToggleRow } from '../../parts/controls'
import { timeOnly } from '../../parts/times'

const USUAL_REASONS = ['normal on both sides when checked again', 'entered by mistake', 'another cause, seen with a senior', 'ruled out by imaging']

/** A flag that stays Now although a later check found otherwise: whoever lifts it does so by name, with a reason that stays in note and letter. */
export function LiftFlag({ until, onLift }: { readonly until: string; readonly onLift: ((reason: string) => void) | undefined }) {
  const [reason, setReason] = useState('')
  return (
    <Box>
      <p>What met it was found otherwise at {timeOnly(until)}. It stays Now until a clinician lifts it.</p>
      {onLift ? (
        <>
          <Reasons
            aria-label="Usual reasons"
            selectionMode="single"
            selectedKeys={USUAL_REASONS.includes(reason) ? [reason] : []}
            onSelectionChange={(keys) => setReason(String([...keys][0] ?? ''))}
          >
            {USUAL_REASONS.map((one) => (
              <Toggle key={one} id={one}>
                {one}
              </Toggle>
            ))}
          </Reasons>
          <TextField value={reason} onChange={setReason}>
            <Label>Why it no longer holds</Label>
            <Input />
          </TextField>
          <Button $tone="copper" isDisabled={!isReason(reason)} onPress={() => onLift(reason.trim())}>
            Lift this flag in my name
          </Button>
          <Soft>The reason, your name and the time go into the note and the letter. When in doubt leave it: lifting never makes a limb safer.</Soft>
        </>
      ) : (
        <Soft>This examination is signed: amend it to lift the flag.</Soft>
      )}
    </Box>
  )
}

const Reasons = styled(ToggleRow)`
  flex-wrap: wrap;
`
const Box = styled.div`
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  border: 1px solid ${({ theme }) => theme.copper};
  border-radius: 8px;
  button {
    justify-self: start;
  }
`
