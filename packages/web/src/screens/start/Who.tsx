import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { patientById, patientSearch, type PatientSummary } from '../../api/queries'
import { Button, Card, Input, Soft } from '../../parts/controls'
import { ageWords, dayOnly } from '../../parts/times'

/** The patient who is chosen, or the search for one. */
export function Who({ patientId, onPick }: { readonly patientId: string; readonly onPick: (id: string) => void }) {
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
export function Like({
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
