import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { useQuery } from '@tanstack/react-query'
import { hasLetters, isReason, isSamePerson, isSlower, needsSenior, type RegionPack, type Priority, type Tier } from '@kneecap-awl/core'
import styled from 'styled-components'
import { session } from '../api/queries'
import type { Draft } from '../record/useRecord'
import { Button, Input, Soft, Toggle, ToggleRow } from './controls'
import { Dialogue } from './Dialogue'
import { tierName } from './PunchedStrip'

interface Props {
  readonly pack: RegionPack
  readonly priority: Priority
  readonly onSet: (draft: Draft) => void
}

/** What the findings give is never moved by the program; a clinician may set another priority, and it says who did and why. */
export function SetPriority({ pack, priority, onSet }: Props) {
  const [isOpen, setOpen] = useState(false)
  const give = (draft: Draft): void => {
    onSet(draft)
    setOpen(false)
  }
  return (
    <>
      <Opener $tone="quiet" onPress={() => setOpen(true)}>
        Set the priority…
      </Opener>
      <Dialogue title="Set the priority" isOpen={isOpen} onClose={() => setOpen(false)}>
        <Choice pack={pack} priority={priority} onSet={give} />
      </Dialogue>
    </>
  )
}

function Choice({ pack, priority, onSet }: Props) {
  const { computed, set } = priority
  const [tier, setTier] = useState<Tier>(priority.tier)
  const [reason, setReason] = useState('')
  const [senior, setSenior] = useState('')
  const { data: account } = useQuery(session)
  const wantsReason = isSlower(tier, computed)
  const wantsSenior = needsSenior(tier, computed)
  const isOneself = account !== null && account !== undefined && isSamePerson(senior, account.name)
  const isComplete = tier !== computed && (!wantsReason || isReason(reason)) && (!wantsSenior || (hasLetters(senior) && !isOneself))
  const give = (): void => {
    const agreed = wantsSenior ? { senior: senior.trim(), seniorAt: new Date().toISOString() } : {}
    const why = reason.trim() === '' ? {} : { reason: reason.trim() }
    onSet({ state: 'chosen', tier, from: computed, ...agreed, ...why })
  }
  return (
    <>
      <p>The findings give {tierName(computed)}. That stays on the sheet, in the note and in the letter, whatever you set.</p>
      <Tiers
        aria-label="Priority"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[tier]}
        onSelectionChange={(keys) => setTier([...keys][0] as Tier)}
      >
        {pack.tiers.map((one) => (
          <Toggle key={one.id} id={one.id}>
            {one.name}
          </Toggle>
        ))}
      </Tiers>
      <TextField value={reason} onChange={setReason}>
        <Label>{wantsReason ? 'Why it may wait longer' : 'Reason, if you wish'}</Label>
        <Input />
      </TextField>
      {wantsSenior && (
        <TextField value={senior} onChange={setSenior}>
          <Label>Senior who has just agreed, with role</Label>
          <Input />
          {isOneself && <Soft role="alert">A senior is somebody else.</Soft>}
        </TextField>
      )}
      <Buttons>
        <Button $tone="copper" isDisabled={!isComplete} onPress={give}>
          {wantsReason ? `Lower to ${tierName(tier)}` : `Raise to ${tierName(tier)}`}
        </Button>
        {set && <Button onPress={() => onSet({ state: 'withdrawn', decision: 'chosen' })}>Back to what the findings give</Button>}
      </Buttons>
      <Soft>Raising needs no reason. What is lowered lapses as soon as the findings become more urgent than {tierName(computed)}.</Soft>
    </>
  )
}

/** In line with the words above it. */
const Opener = styled(Button)`
  margin-left: -9px;
  text-decoration: underline;
`
const Tiers = styled(ToggleRow)`
  flex-wrap: wrap;
`
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
