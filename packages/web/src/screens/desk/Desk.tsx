import { Link, useNavigate } from 'react-router'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { complaintWords, dueState, isCallDue, type Tier } from '@kneecap-awl/core'
import styled from 'styled-components'
import { api } from '../../api/http'
import { currentPack, desk, openReferrals, type ExaminationSummary, type Referral } from '../../api/queries'
import { Cautions } from '../../parts/Cautions'
import { Button, Card, Reading, SmallTitle, Soft } from '../../parts/controls'
import { PunchedStrip, tierName } from '../../parts/PunchedStrip'
import { Shell } from '../../parts/Shell'
import { ageWords, dayAndTime, fromNow, timeOnly } from '../../parts/times'

/** What is on today: drafts, signed examinations, and referrals with a clock, breach first. */
export function Desk() {
  const navigate = useNavigate()
  const { data: today, isError } = useQuery(desk)
  const { data: waiting } = useQuery(openReferrals)
  const { data: pack } = useQuery(currentPack)
  const examinations = today?.examinations ?? []
  const drafts = examinations.filter((one) => !one.signedAt)
  const signed = examinations.filter((one) => one.signedAt)
  return (
    <Shell
      heading={<h1 style={{ fontSize: 18 }}>Desk</h1>}
      actions={
        <Button $tone="copper" onPress={() => void navigate('/start')}>
          Start an examination
        </Button>
      }
    >
      <Columns>
        <div>
          <Section title={`Drafts, ${drafts.length}`} empty="No draft is open. Start an examination when the next patient comes in." list={drafts} />
          <Section title="Signed in the last day and a half" empty="Nothing was signed today." list={signed} />
        </div>
        <div>
          <Title>Referrals with a clock</Title>
          <List>
            {(waiting?.referrals ?? []).map((referral) => (
              <ReferralLine
                key={referral.id}
                referral={referral}
                destination={pack?.destinations.find((d) => d.id === referral.destination)?.name ?? referral.destination}
                callAgain={pack?.tiers.find((tier) => tier.id === referral.tier)?.callAgain}
              />
            ))}
            {waiting?.referrals.length === 0 && <Empty>No referral is waiting for an answer.</Empty>}
          </List>
          {pack && <Cautions cautions={pack.cautions} pack={pack.version} />}
        </div>
      </Columns>
      {isError && <p role="alert">The desk could not be loaded. It is tried again by itself.</p>}
    </Shell>
  )
}

function Section({ title, empty, list }: { readonly title: string; readonly empty: string; readonly list: readonly ExaminationSummary[] }) {
  return (
    <>
      <Title>{title}</Title>
      <List>
        {list.map((one) => (
          <Line key={one.id}>
            <div>
              <Name to={one.signedAt ? `/examinations/${one.id}/verdict` : `/examinations/${one.id}`}>{one.patientName}</Name>{' '}
              <Reading>{ageWords(one.birthDate)}</Reading>
              <Soft as="div">
                {complaintWords(one)} · begun {fromNow(one.startedAt)} by {one.startedBy}
                {one.verdictKind === 'amended' ? ' · amended' : ''}
              </Soft>
            </div>
            {one.floor && one.ceiling && (
              <Priority>
                <PunchedStrip floor={one.floor} ceiling={one.ceiling} />
                <Tiers>
                  {tierName(one.floor)}
                  {one.ceiling !== one.floor && <Soft as="div">to {tierName(one.ceiling)}</Soft>}
                  {one.priority && one.priority !== one.floor && <Soft as="div">set {tierName(one.priority)}</Soft>}
                </Tiers>
              </Priority>
            )}
          </Line>
        ))}
        {list.length === 0 && <Empty>{empty}</Empty>}
      </List>
    </>
  )
}

const STATE_WORDS = { 'in time': '', 'half gone': 'half of the time is gone', breached: 'overdue' } as const

function ReferralLine({
  referral,
  destination,
  callAgain,
}: {
  readonly referral: Referral
  readonly destination: string
  readonly callAgain: number | undefined
}) {
  const client = useQueryClient()
  const state = referral.dueAt ? dueState(referral.flaggedAt, referral.dueAt, new Date().toISOString()) : 'in time'
  const accepted = async (): Promise<void> => {
    await api('POST', `/api/referrals/${referral.id}/events`, { kind: 'accepted' })
    await client.invalidateQueries({ queryKey: ['referrals'] })
  }
  return (
    <Line $urgent={state === 'breached'}>
      <div>
        <Name to={`/examinations/${referral.examinationId}/verdict`}>{referral.patientName}</Name>
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
        {isCallDue(referral.lastEvent, referral.lastEventAt, callAgain, new Date().toISOString()) && (
          <strong>
            {referral.lastEvent === 'made' ? 'Nobody told yet: call now' : `No answer since ${timeOnly(referral.lastEventAt)}: call again, then who is above`}
          </strong>
        )}
      </div>
      <Priority>
        <PunchedStrip floor={referral.tier} ceiling={referral.tier satisfies Tier} />
        <Button onPress={() => void accepted()}>Accepted</Button>
      </Priority>
    </Line>
  )
}

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 32px;
  max-width: 1240px;
  margin: 0 auto;
  padding: 12px 20px 32px;
  @media (max-width: 800px) {
    grid-template-columns: 1fr;
  }
`
const Title = styled(SmallTitle)`
  margin: 16px 0 8px;
`
const List = styled(Card).attrs({ as: 'ul' })`
  margin-bottom: 12px;
`
const Line = styled.li<{ $urgent?: boolean }>`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  padding: 10px 14px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  border-left: 4px solid ${({ theme, $urgent }) => ($urgent ? theme.copper : 'transparent')};
  &:last-child {
    border-bottom: none;
  }
`
const Name = styled(Link)`
  font-weight: 650;
`
const Priority = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  white-space: nowrap;
`
const Tiers = styled.div`
  width: 56px;
  line-height: 1.15;
`
const Empty = styled.li`
  padding: 14px;
  color: ${({ theme }) => theme.soft};
`
