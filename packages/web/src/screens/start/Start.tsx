import { useRef, useState } from 'react'
import { ToggleButtonGroup } from 'react-aria-components'
import { useNavigate, useSearchParams } from 'react-router'
import { v7 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { examinations } from '@kneecap-awl/contract'
import { call, ApiProblem } from '../../api/http'
import { complaintWords, hasLetters, plainText } from '@kneecap-awl/core'
import { currentPack, likePatients, patientById } from '../../api/queries'
import { SmallTitle, Soft, Toggle } from '../../parts/controls'
import { Shell } from '../../parts/Shell'
import { regionsFor } from '../../parts/regionsFor'
import { NOBODY, PatientFields } from '../../parts/PatientFields'
import { Figure, type Sore } from './Figure'
import { Complaint, type Complained } from './Complaint'
import { Like, Who } from './Who'

const NOTHING: Complained = { told: [] }
const listWords = (words: readonly string[]): string => new Intl.ListFormat('en-GB').format(words)

/** Two steps: who, and where it hurts: one joint, or several of one visit. */
export default function Start() {
  const [params] = useSearchParams()
  const [patientId, setPatientId] = useState(params.get('patient') ?? '')
  const [typed, setTyped] = useState(NOBODY)
  const { name, birthDate, sex, contact } = typed
  const [sore, setSore] = useState<readonly Sore[]>([])
  const [complained, setComplained] = useState<Complained>(NOTHING)
  const [setting, setSetting] = useState<'primary-care' | 'emergency'>('primary-care')
  const [fault, setFault] = useState('')
  const [isBeginning, setBeginning] = useState(false)
  /** The name and birth date of which somebody said that it is nobody who is here already. */
  const [other, setOther] = useState('')
  const navigate = useNavigate()
  const client = useQueryClient()
  const { data: pack } = useQuery(currentPack)
  const [first, ...others] = sore
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
      : !first
        ? 'Select the joint on the figure.'
        : others.length > 0 && complained.isOneEvent === undefined
          ? 'Say whether the joints share one event.'
          : ''

  const sent = useRef({ said: '', id: '' })
  const begin = async (): Promise<void> => {
    if (!first) return
    setFault('')
    setBeginning(true)
    try {
      const body = {
        ...(patientId
          ? { patientId }
          : { patient: { name, birthDate, ...(sex ? { sex } : {}), ...(contact.trim() ? { contact: contact.trim() } : {}), isNew: isOther } }),
        region: first.region,
        sides: first.sides,
        setting,
        told: complained.told,
        also: others.map((joint) => ({ ...joint, sameEvent: complained.isOneEvent === true })),
      }
      // The same, sent again because no answer came, is the same examination.
      const said = JSON.stringify(body)
      if (sent.current.said !== said) sent.current = { said, id: newId() }
      const { id } = await call(examinations.startExamination, { body: { ...body, id: sent.current.id } })
      void client.invalidateQueries({ queryKey: ['desk'] })
      void navigate(`/examinations/${id}`)
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
          <Soft aria-live="polite">{sore.length > 0 ? listWords(sore.map(complaintWords)) : "The figure faces you: the patient's right is on your left."}</Soft>
          <Figure
            regions={regions}
            sore={sore}
            onChange={(now) => {
              setSore(now)
              // What was told stands for the first joint: another one is told anew.
              if (now[0]?.region !== first?.region) setComplained(NOTHING)
            }}
          />
        </div>
        <Complaint
          sore={sore}
          pack={pack}
          complained={complained}
          onChange={setComplained}
          fault={fault}
          isReady={next === '' && !isBeginning}
          next={isBeginning ? 'The sheet is being laid out…' : next}
          onBegin={() => void begin()}
        />
      </Columns>
    </Shell>
  )
}

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
