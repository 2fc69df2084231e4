import { useState } from 'react'
import { Label, TextField, ToggleButtonGroup } from 'react-aria-components'
import { useNavigate, useSearchParams } from 'react-router'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { examinations } from '@kneecap-awl/contract'
import { call, ApiProblem } from '../../api/http'
import { hasLetters, plainText } from '@kneecap-awl/core'
import { currentPack, likePatients, patientById, patientSearch, type PatientSummary } from '../../api/queries'
import { Button, Card, Input, SmallTitle, Soft, Toggle } from '../../parts/controls'
import { Shell } from '../../parts/Shell'
import { regionsFor } from '../../parts/regionsFor'
import { NOBODY, PatientFields } from '../../parts/PatientFields'
import { ageWords, dayOnly } from '../../parts/times'
import { Figure, type Sore } from './Figure'

/** Two steps: who, and where it hurts. */
export default function Start() {
  const [params] = useSearchParams()
  const [patientId, setPatientId] = useState(params.get('patient') ?? '')
  const [typed, setTyped] = useState(NOBODY)
  const { name, birthDate, sex, contact } = typed
  const [sore, setSore] = useState<Sore>()
  const [complaints, setComplaints] = useState<ReadonlySet<string>>(new Set())
  const [setting, setSetting] = useState<'primary-care' | 'emergency'>('primary-care')
  const [fault, setFault] = useState('')
  const [isBeginning, setBeginning] = useState(false)
  /** The name and birth date of which somebody said that it is nobody who is here already. */
  const [other, setOther] = useState('')
  const navigate = useNavigate()
  const client = useQueryClient()
  const { data: pack } = useQuery(currentPack)
  const region = pack?.regions.find((one) => one.id === sore?.region)
  const { data: chosen } = useQuery({ ...patientById(patientId), enabled: patientId !== '' })
  const regions = regionsFor(pack?.regions ?? [], chosen?.patient.birthDate ?? birthDate)
  const isNamed = hasLetters(plainText(name)) && /^\d{4}-\d{2}-\d{2}$/.test(birthDate)
  const who = patientId !== '' || isNamed
  const key = `${plainText(name)} ${birthDate}`
  const isOther = other === key
  const { data: found } = useQuery({ ...likePatients(plainText(name), birthDate), enabled: isNamed && patientId === '' })
  const like = isNamed ? (found?.patients ?? []) : []
  const isDoubtful = patientId === '' && like.length > 0 && !isOther
  const next = !who
    ? 'Say who: find the patient, or give name and birth date.'
    : isDoubtful
      ? 'Choose the patient who is here already, or say that it is somebody else.'
      : !sore
        ? 'Select the joint on the figure.'
        : ''

  const begin = async (): Promise<void> => {
    if (!sore) return
    setFault('')
    setBeginning(true)
    try {
      const { id } = await call(examinations.startExamination, {
        body: {
          ...(patientId
            ? { patientId }
            : { patient: { name, birthDate, ...(sex ? { sex } : {}), ...(contact.trim() ? { contact: contact.trim() } : {}), isNew: isOther } }),
          region: sore.region,
          sides: sore.sides,
          setting,
        },
      })
      void client.invalidateQueries({ queryKey: ['desk'] })
      void navigate(`/examinations/${id}`, { state: { complaints: [...complaints] } })
    } catch (error) {
      setFault(error instanceof ApiProblem ? error.message : 'No connection to the server. Try again.')
      setBeginning(false)
    }
  }

  return (
    <Shell heading={<h1 style={{ fontSize: 18 }}>Start an examination</h1>}>
      <Columns>
        <div>
          <SmallTitle>Who</SmallTitle>
          <Who patientId={patientId} onPick={setPatientId} />
          {!patientId && (
            <Fields>
              <PatientFields nameLabel="New patient, name" value={typed} onChange={setTyped} />
              <Like like={like} isOther={isOther} onPick={setPatientId} onOther={() => setOther(key)} />
            </Fields>
          )}
          <SmallTitle as="h2" id="setting">
            Setting
          </SmallTitle>
          <Row
            aria-labelledby="setting"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[setting]}
            onSelectionChange={(keys) => setSetting([...keys][0] === 'emergency' ? 'emergency' : 'primary-care')}
          >
            <Toggle id="primary-care">General practice</Toggle>
            <Toggle id="emergency">Urgent care</Toggle>
          </Row>
        </div>
        <div>
          <SmallTitle>Site of pain</SmallTitle>
          <Soft aria-live="polite">
            {region && sore
              ? `${sore.sides.filter((side) => side !== 'none').join(' and ')} ${region.name.toLowerCase()}`.trim()
              : "The figure faces you: the patient's right is on your left."}
          </Soft>
          <Figure
            regions={regions}
            sore={sore}
            onChange={(now) => {
              setSore(now)
              setComplaints(new Set())
            }}
          />
        </div>
        <div>
          <SmallTitle>Presenting complaint</SmallTitle>
          <Soft>{region ? 'Select the presenting complaint. It fills in the history.' : 'Select the joint first.'}</Soft>
          <Row
            orientation="vertical"
            aria-label="Complaint"
            selectionMode="multiple"
            selectedKeys={complaints}
            onSelectionChange={(keys) => setComplaints(new Set([...keys].map(String)))}
          >
            {(region?.complaint ?? []).map((one) => (
              <Toggle key={`${one.item} ${one.value}`} id={`${one.item}=${one.value}`}>
                {one.label}
              </Toggle>
            ))}
          </Row>
          <Begin>
            {fault && <p role="alert">{fault}</p>}
            <Button $tone="copper" isDisabled={next !== '' || !region || isBeginning} onPress={() => void begin()}>
              Begin with the history
            </Button>
            <Soft aria-live="polite">{isBeginning ? 'The sheet is being laid out…' : next}</Soft>
          </Begin>
        </div>
      </Columns>
    </Shell>
  )
}

function Who({ patientId, onPick }: { readonly patientId: string; readonly onPick: (id: string) => void }) {
  const [search, setSearch] = useState('')
  const { data: found } = useQuery({ ...patientSearch(search), enabled: search.trim().length > 1 })
  const { data: chosen } = useQuery({ ...patientById(patientId), enabled: patientId !== '' })
  if (patientId) {
    return (
      <Chosen>
        <span>
          <strong>
            <bdi>{chosen?.patient.name ?? '…'}</bdi>
          </strong>{' '}
          {chosen && `${ageWords(chosen.patient.birthDate)}, born ${dayOnly(chosen.patient.birthDate)}`} <Soft>{chosen?.patient.localNumber}</Soft>
        </span>
        <Button onPress={() => onPick('')}>Another</Button>
      </Chosen>
    )
  }
  return (
    <>
      <TextField value={search} onChange={setSearch}>
        <Label>Find by name or number</Label>
        <Input />
      </TextField>
      <Found>
        {(search.trim().length > 1 ? (found?.patients ?? []) : []).slice(0, 6).map((patient) => (
          <li key={patient.id}>
            <Button onPress={() => onPick(patient.id)}>
              <bdi>{patient.name}</bdi>, {ageWords(patient.birthDate)}, born {dayOnly(patient.birthDate)} · {patient.localNumber}
            </Button>
          </li>
        ))}
      </Found>
    </>
  )
}

/** Those who may be the same person: one of them is chosen, or somebody says that it is somebody else. */
function Like({
  like,
  isOther,
  onPick,
  onOther,
}: {
  readonly like: readonly PatientSummary[]
  readonly isOther: boolean
  readonly onPick: (id: string) => void
  readonly onOther: () => void
}) {
  if (like.length === 0 || isOther) return null
  return (
    <Same role="status">
      <strong>Here already, perhaps the same person:</strong>
      {like.slice(0, 6).map((patient) => (
        <Button key={patient.id} onPress={() => onPick(patient.id)}>
          <bdi>{patient.name}</bdi>, born {dayOnly(patient.birthDate)} · {patient.localNumber}
        </Button>
      ))}
      <Button $tone="quiet" onPress={onOther}>
        None of these: somebody else
      </Button>
    </Same>
  )
}

const Same = styled.div`
  display: grid;
  justify-items: start;
  gap: 6px;
  padding: 10px 12px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.copper};
`
const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 440px minmax(0, 0.8fr);
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
    justify-items: stretch;
  }
  gap: 40px;
  max-width: 1200px;
  margin: 0 auto;
  padding: 24px 20px;
  h2 {
    margin: 16px 0 8px;
  }
  > div > h2:first-child {
    margin-top: 0;
  }
`
const Fields = styled.div`
  display: grid;
  gap: 12px;
  margin-top: 16px;
`
const Row = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
  &[data-orientation='vertical'] {
    flex-direction: column;
    align-items: flex-start;
  }
`
const Chosen = styled(Card).attrs({ as: 'div' })`
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 10px 14px;
`
const Found = styled.ul`
  display: grid;
  gap: 4px;
  margin-top: 6px;
`
const Begin = styled.div`
  display: grid;
  gap: 8px;
  margin-top: 28px;
  button {
    min-height: 44px;
  }
`
