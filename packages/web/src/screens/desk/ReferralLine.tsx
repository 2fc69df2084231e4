import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { Link } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import { dueState, hasLetters, isCallDue, type Tier } from '@kneecap-awl/core'
import styled from 'styled-components'
import { referrals } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import type { Referral } from '../../api/queries'
import { Button, Input, Reading, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { PunchedStrip, tierName } from '../../parts/PunchedStrip'
import { dayAndTime, fromNow, timeOnly } from '../../parts/times'
import { Line } from './ExaminationList'

interface Props {
  readonly referral: Referral
  readonly destination: string
  readonly callAgain: number | undefined
}

const STATE_WORDS = { 'in time': '', 'half gone': 'half of the time is gone', breached: 'overdue' } as const

/** A referral that waits: until when, whom to call, and who accepted it. */
export function ReferralLine({ referral, destination, callAgain }: Props) {
  const [isAsking, setAsking] = useState(false)
  const state = referral.dueAt ? dueState(referral.flaggedAt, referral.dueAt, new Date().toISOString()) : 'in time'
  return (
    <Line $urgent={state === 'breached'}>
      <div>
        <Name to={`/examinations/${referral.examinationId}/verdict`}>
          <bdi>{referral.patientName}</bdi>
        </Name>
        <Soft as="div">{destination}</Soft>
        <div>
          {referral.dueAt ? (
            <>
              due <Reading>{dayAndTime(referral.dueAt)}</Reading>, {fromNow(referral.dueAt)}
            </>
          ) : (
            'review in own clinic'
          )}
          {STATE_WORDS[state] && <strong> · {STATE_WORDS[state]}</strong>}
        </div>
        {isCallDue(referral.lastEvent, referral.lastEventAt, callAgain, new Date().toISOString()) && <strong>{callWords(referral)}</strong>}
      </div>
      <Priority>
        <PunchedStrip floor={referral.tier} ceiling={referral.tier satisfies Tier} />
        <TierWord>{tierName(referral.tier)}</TierWord>
        <Button onPress={() => setAsking(true)}>Accepted…</Button>
      </Priority>
      <AcceptedBy referral={referral} isOpen={isAsking} onClose={() => setAsking(false)} />
    </Line>
  )
}

function callWords({ lastEvent, lastEventAt, lastNote }: Referral): string {
  if (lastEvent === 'changed') return `Call now: ${lastNote}`
  return lastEvent === 'made' ? 'Nobody told yet: call now' : `No answer since ${timeOnly(lastEventAt)}: call again, then who is above`
}

/** Accepting takes a referral off the desk: it says who did, and can be taken back from its verdict sheet. */
function AcceptedBy({ referral, isOpen, onClose }: { readonly referral: Referral; readonly isOpen: boolean; readonly onClose: () => void }) {
  const [who, setWho] = useState('')
  const [fault, setFault] = useState('')
  const client = useQueryClient()
  const accept = async (): Promise<void> => {
    try {
      await call(referrals.addReferralEvent, { params: { id: referral.id }, body: { kind: 'accepted', note: who.trim() } })
      await client.invalidateQueries({ queryKey: ['referrals'] })
      onClose()
    } catch (error) {
      setFault((error as Error).message)
    }
  }
  return (
    <Dialogue title={`Accepted: ${referral.patientName}`} isOpen={isOpen} onClose={onClose}>
      <TextField value={who} onChange={setWho}>
        <Label>Who accepted, with role</Label>
        <Input />
      </TextField>
      {fault && <p role="alert">{fault}</p>}
      <Button $tone="copper" isDisabled={!hasLetters(who)} onPress={() => void accept()}>
        They have accepted
      </Button>
      <Soft>It leaves the desk. If that was wrong, open the patient&rsquo;s verdict sheet and put it back.</Soft>
    </Dialogue>
  )
}

const Name = styled(Link)`
  font-weight: 650;
`
const TierWord = styled.span`
  width: 52px;
`
const Priority = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  white-space: nowrap;
`
