import { useState } from 'react'
import { patients, type Merged, type PatientSummary } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { Button, SmallTitle } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { Fields, Labelled } from '../../parts/Labelled'
import { dayAndTime, dayOnly } from '../../parts/times'
import { useChange } from './useChange'

interface Props {
  readonly patient: PatientSummary
  readonly merged: readonly PatientSummary[]
  readonly merges: readonly Merged[]
  readonly maySeparate: boolean
}

/** Which other records this one stands for, since when and why; each can be separated again. */
export function MergedRecords({ patient, merged, merges, maySeparate }: Props) {
  const [parting, setParting] = useState<PatientSummary>()
  if (merges.length === 0) return null
  return (
    <>
      <SmallTitle>Merged records</SmallTitle>
      <ul>
        {merges.map((one) => {
          const still =
            one.kind === 'merged' && merges.find(({ patient: other }) => other === one.patient) === one && merged.find(({ id }) => id === one.patient)
          return (
            <li key={`${one.at} ${one.patient}`}>
              {mergeWords(one)}{' '}
              {still && maySeparate && (
                <Button $tone="quiet" onPress={() => setParting(still)}>
                  Separate…
                </Button>
              )}
            </li>
          )
        })}
      </ul>
      {parting && <Separate patient={patient} other={parting} onClose={() => setParting(undefined)} />}
    </>
  )
}

const mergeWords = ({ kind, name, birthDate, localNumber, reason, by, at }: Merged): string =>
  `${localNumber} ${name}, born ${dayOnly(birthDate)}, ${kind === 'merged' ? 'merged' : 'separated again'}, ${dayAndTime(at)}, ${by}: ${reason}`

function Separate({ patient, other, onClose }: { readonly patient: PatientSummary; readonly other: PatientSummary; readonly onClose: () => void }) {
  const { reason, setReason, fault, send } = useChange(
    'Say why they are two patients.',
    (reason) => call(patients.separatePatient, { params: { id: patient.id }, body: { patient: other.id, reason } }),
    onClose,
  )
  return (
    <Dialogue title={`Separate ${other.localNumber} again`} isOpen onClose={onClose}>
      <Fields fault={fault} submit="Separate" onSubmit={send}>
        <p>
          {other.localNumber} stands for itself again, with the examinations that were begun with it. What was begun since stays with {patient.localNumber}:
          look through it, and tell whoever got a letter meanwhile.
        </p>
        <Labelled label="Why they are two patients" value={reason} onChange={setReason} autoComplete="off" autoFocus />
      </Fields>
    </Dialogue>
  )
}
