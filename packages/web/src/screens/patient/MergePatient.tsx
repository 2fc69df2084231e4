import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { useQuery } from '@tanstack/react-query'
import { patients } from '@kneecap-awl/contract'
import styled from 'styled-components'
import { call } from '../../api/http'
import { patientSearch, type PatientSummary } from '../../api/queries'
import { Button, Input, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { Fields, Labelled } from '../../parts/Labelled'
import { Table } from '../../parts/Table'
import { dayOnly } from '../../parts/times'
import { useChange } from './useChange'

/** Two records of one person: which other one, what differs, and why it is sure. This one stands for both. */
export function MergePatient({ patient, onClose }: { readonly patient: PatientSummary; readonly onClose: () => void }) {
  const [search, setSearch] = useState('')
  const [other, setOther] = useState<PatientSummary>()
  const wanted = search.trim()
  const { data: found } = useQuery({ ...patientSearch(wanted), enabled: wanted.length > 1 })
  const others = wanted.length > 1 ? (found?.patients ?? []).filter((one) => one.id !== patient.id).slice(0, 6) : []
  return (
    <Dialogue title="Merge another record of the same patient" isOpen onClose={onClose}>
      {other ? (
        <Compared patient={patient} other={other} onClose={onClose} onAnother={() => setOther(undefined)} />
      ) : (
        <>
          <TextField value={search} onChange={setSearch} autoFocus>
            <Label>Find the other record by name or number</Label>
            <Input />
          </TextField>
          <Found>
            {others.map((one) => (
              <li key={one.id}>
                <Button onPress={() => setOther(one)}>
                  <bdi>{one.name}</bdi>, born {dayOnly(one.birthDate)} · {one.localNumber}
                </Button>
              </li>
            ))}
          </Found>
          {wanted.length > 1 && found && others.length === 0 && <Soft>No other record has that name or number.</Soft>}
        </>
      )}
    </Dialogue>
  )
}

/** Side by side, what differs marked: two people of one name must not become one. */
function Compared({
  patient,
  other,
  onClose,
  onAnother,
}: {
  readonly patient: PatientSummary
  readonly other: PatientSummary
  readonly onClose: () => void
  readonly onAnother: () => void
}) {
  const { reason, setReason, fault, send } = useChange(
    'Say how you know that both are the same person.',
    (reason) => call(patients.mergePatient, { params: { id: patient.id }, body: { patient: other.id, reason } }),
    onClose,
  )
  const rows = LINES.map(([label, words]) => ({ label, stays: words(patient), goes: words(other) }))
  const differs = rows.some(({ label, stays, goes }) => label !== 'Number' && stays !== goes)
  return (
    <Fields fault={fault} submit="Merge" onSubmit={send}>
      <Table>
        <thead>
          <tr>
            <th />
            <th>Stays</th>
            <th>Merged into it</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ label, stays, goes }) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>
                <bdi>{stays}</bdi>
              </td>
              <td>{stays === goes || label === 'Number' ? <bdi>{goes}</bdi> : <b>{goes}</b>}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {differs && <p role="status">What is bold differs. Two patients of one name are two patients: check the birth date with the patient.</p>}
      <Labelled label="How you know that both are the same person" value={reason} onChange={setReason} autoComplete="off" />
      <Soft>
        The record that stays shows the examinations of both. Nothing is moved or deleted: signed examinations stay as they were signed, and the two can be
        separated again.
      </Soft>
      <Button $tone="quiet" onPress={onAnother}>
        Another record
      </Button>
    </Fields>
  )
}

const LINES: readonly (readonly [string, (of: PatientSummary) => string])[] = [
  ['Name', ({ name }) => name],
  ['Birth date', ({ birthDate }) => dayOnly(birthDate)],
  ['Sex at birth', ({ sex }) => sex ?? 'not asked'],
  ['Contact', ({ contact }) => contact || 'none'],
  ['Number', ({ localNumber }) => localNumber],
]

const Found = styled.ul`
  display: grid;
  gap: 4px;
`
