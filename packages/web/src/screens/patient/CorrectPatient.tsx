import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { useQueryClient } from '@tanstack/react-query'
import { isReason } from '@kneecap-awl/core'
import { patients } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import type { PatientSummary } from '../../api/queries'
import { Button, Input, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { PatientFields, typedOf } from '../../parts/PatientFields'

/** Corrects who the patient is. What it was stays in the trace, and examinations that are not signed learn the new age and sex. */
export function CorrectPatient({ patient, onClose }: { readonly patient: PatientSummary; readonly onClose: () => void }) {
  const [who, setWho] = useState(typedOf(patient))
  const [reason, setReason] = useState('')
  const [fault, setFault] = useState('')
  const client = useQueryClient()
  const { name, birthDate, sex, contact } = who
  const changed = {
    ...(name.trim() === patient.name ? {} : { name }),
    ...(birthDate === patient.birthDate ? {} : { birthDate }),
    ...(sex === '' || sex === patient.sex ? {} : { sex }),
    ...(contact.trim() === patient.contact ? {} : { contact }),
  }
  const correct = async (): Promise<void> => {
    try {
      await call(patients.correctPatient, { params: { id: patient.id }, body: { ...changed, reason } })
      await client.invalidateQueries()
      onClose()
    } catch (error) {
      setFault((error as Error).message)
    }
  }
  return (
    <Dialogue title="Correct who this is" isOpen onClose={onClose}>
      <PatientFields value={who} onChange={setWho} />
      <TextField value={reason} onChange={setReason}>
        <Label>Why it is corrected</Label>
        <Input />
      </TextField>
      {fault && <p role="alert">{fault}</p>}
      <Button $tone="copper" isDisabled={Object.keys(changed).length === 0 || !isReason(reason)} onPress={() => void correct()}>
        Correct it
      </Button>
      <Soft>What it was, your name and the reason stay with the patient. Rules that read the age are judged again in every draft; signed ones stay.</Soft>
    </Dialogue>
  )
}
