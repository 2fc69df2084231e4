import { Link, useNavigate, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { complaintWords } from '@kneecap-awl/core'
import { patientById } from '../../api/queries'
import { Button, Card, Reading, SmallTitle, Soft } from '../../parts/controls'
import { PunchedStrip, tierName } from '../../parts/PunchedStrip'
import { Shell } from '../../parts/Shell'
import { ageWords, dayOnly } from '../../parts/times'

/** One patient: earlier examinations, newest first. */
export default function PatientPage() {
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const { data, error } = useQuery(patientById(id))
  return (
    <Shell
      heading={
        data ? (
          <>
            <strong>{data.patient.name}</strong>{' '}
            <Soft>
              {ageWords(data.patient.birthDate)} · born {dayOnly(data.patient.birthDate)} · {data.patient.localNumber}
            </Soft>
          </>
        ) : (
          'Patient'
        )
      }
      actions={
        <Button $tone="copper" onPress={() => void navigate(`/start?patient=${id}`)}>
          Start an examination
        </Button>
      }
    >
      <Page>
        {error && <p role="alert">{error.message}</p>}
        <SmallTitle>Earlier examinations</SmallTitle>
        <Time>
          {data?.examinations.map((one) => (
            <li key={one.id}>
              <Reading>{dayOnly(one.startedAt)}</Reading>
              <Line>
                <div>
                  <Link to={one.signedAt ? `/examinations/${one.id}/verdict` : `/examinations/${one.id}`}>{complaintWords(one)}</Link>
                  <Soft as="div">
                    {one.setting === 'emergency' ? 'urgent care' : 'general practice'} · {one.signedBy ?? one.startedBy}
                    {one.verdictKind === 'amended' ? ' · amended' : ''}
                  </Soft>
                </div>
                {one.floor && one.ceiling ? (
                  <Strip>
                    <PunchedStrip floor={one.floor} ceiling={one.ceiling} /> {tierName(one.floor)}
                    {one.priority && one.priority !== one.floor && <Soft>, set to {tierName(one.priority)}</Soft>}
                  </Strip>
                ) : (
                  <Soft>draft</Soft>
                )}
              </Line>
            </li>
          ))}
        </Time>
        {data?.examinations.length === 0 && <p>No examination yet.</p>}
      </Page>
    </Shell>
  )
}

const Page = styled.div`
  max-width: 760px;
  margin: 0 auto;
  padding: 24px 20px;
`
const Time = styled.ol`
  margin-top: 12px;
  li {
    display: grid;
    grid-template-columns: 110px 1fr;
    gap: 16px;
    align-items: center;
    margin-bottom: 8px;
  }
`
const Line = styled(Card).attrs({ as: 'div' })`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  padding: 10px 14px;
`
const Strip = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 10px;
`
