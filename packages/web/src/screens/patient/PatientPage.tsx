import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { complaintWords } from '@kneecap-awl/core'
import { patients } from '@kneecap-awl/contract'
import { patientById, session, type Corrected, type ExaminationSummary } from '../../api/queries'
import { Button, Card, Download, Reading, SmallTitle, Soft } from '../../parts/controls'
import { Loaded } from '../../parts/Loaded'
import { PriorityTag } from '../../parts/PriorityTag'
import { Shell } from '../../parts/Shell'
import { ageWords, dayAndTime, dayOnly } from '../../parts/times'
import { CorrectPatient } from './CorrectPatient'
import { MergedRecords } from './MergedRecords'
import { MergePatient } from './MergePatient'

/** One patient: who, earlier examinations with the newest first, and what was corrected. */
export default function PatientPage() {
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const query = useQuery(patientById(id))
  const [isCorrecting, setCorrecting] = useState(false)
  const [isMerging, setMerging] = useState(false)
  const { data: account } = useQuery(session)
  const keepsRecords = account?.role === 'lead'
  const patient = query.data?.patient
  return (
    <Shell
      heading={
        <h1 style={{ fontSize: 18 }}>
          {patient ? (
            <>
              <bdi>{patient.name}</bdi>{' '}
              <Soft>
                {ageWords(patient.birthDate)} · born {dayOnly(patient.birthDate)} · {patient.localNumber} · {patient.sex ?? 'sex not asked'}
              </Soft>
            </>
          ) : (
            'Patient'
          )}
        </h1>
      }
      actions={
        <>
          <Button isDisabled={!patient} onPress={() => setCorrecting(true)}>
            Correct…
          </Button>
          <Button $tone="copper" onPress={() => void navigate(`/start?patient=${id}`)}>
            Start an examination
          </Button>
        </>
      }
    >
      <Page>
        <Loaded query={query} what="the patient">
          {({ examinations, corrections, mergedInto, merged, merges, patient }) => (
            <>
              {mergedInto && (
                <p role="status">
                  This record was merged into{' '}
                  <Link to={`/patients/${mergedInto.id}`}>
                    {mergedInto.localNumber} <bdi>{mergedInto.name}</bdi>
                  </Link>
                  , which shows its examinations.
                </p>
              )}
              <SmallTitle>Earlier examinations</SmallTitle>
              <Time>
                {examinations.map((one) => (
                  <Examined key={one.id} one={one} />
                ))}
              </Time>
              {examinations.length === 0 && !mergedInto && <p>No examination yet.</p>}
              <MergedRecords patient={patient} merged={merged} merges={merges} maySeparate={keepsRecords && !mergedInto} />
              {corrections.length > 0 && <SmallTitle>Corrected</SmallTitle>}
              <ul>
                {corrections.map((one) => (
                  <li key={`${one.at} ${one.field}`}>{correctionWords(one)}</li>
                ))}
              </ul>
              {keepsRecords && (
                <Keeping>
                  <Button isDisabled={mergedInto !== null} onPress={() => setMerging(true)}>
                    Merge another record of this patient…
                  </Button>
                  <Download href={patients.exportPatient.url.replace(':id', id)} download>
                    Everything of this patient as a file
                  </Download>
                </Keeping>
              )}
            </>
          )}
        </Loaded>
      </Page>
      {patient && isMerging && <MergePatient patient={patient} onClose={() => setMerging(false)} />}
      {patient && isCorrecting && <CorrectPatient patient={patient} onClose={() => setCorrecting(false)} />}
    </Shell>
  )
}

function Examined({ one }: { readonly one: ExaminationSummary }) {
  return (
    <li>
      <Reading>{dayOnly(one.startedAt)}</Reading>
      <Line>
        <div>
          <Link to={one.signedAt ? `/examinations/${one.id}/verdict` : `/examinations/${one.id}`}>{complaintWords(one)}</Link>
          <Soft as="div">
            {one.setting === 'emergency' ? 'urgent care' : 'general practice'} · {one.signedBy ?? one.startedBy}
            {one.verdictKind === 'amended' ? ' · amended' : ''}
            {one.discardedAt ? ` · discarded ${dayOnly(one.discardedAt)}: ${one.discardReason}` : one.signedAt ? '' : ' · draft'}
          </Soft>
        </div>
        {!one.discardedAt && <PriorityTag of={one} />}
      </Line>
    </li>
  )
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  name: 'Name',
  birthDate: 'Birth date',
  sex: 'Sex at birth',
  contact: 'Contact',
  side: 'Symptomatic side',
}

const correctionWords = ({ field, was, becomes, reason, by, at }: Corrected): string =>
  `${FIELD_WORDS[field] ?? field}: ${was || 'nothing'} became ${becomes || 'nothing'}, ${dayAndTime(at)}, ${by}: ${reason}`

const Page = styled.div`
  max-width: 760px;
  margin: 0 auto;
  padding: 24px 20px;
  ul li {
    padding: 2px 0;
  }
`
const Keeping = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 24px;
  padding-top: 16px;
  border-top: 1px solid ${({ theme }) => theme.rule};
`
const Time = styled.ol`
  margin: 12px 0 20px;
  > li {
    display: grid;
    grid-template-columns: 110px minmax(0, 1fr);
    gap: 16px;
    align-items: center;
    margin-bottom: 8px;
  }
  @media (max-width: 600px) {
    > li {
      grid-template-columns: minmax(0, 1fr);
      gap: 4px;
    }
  }
`
const Line = styled(Card).attrs({ as: 'div' })`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 16px;
  padding: 10px 14px;
`
