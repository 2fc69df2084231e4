import type { Sex } from '@kneecap-awl/contract'
import { Label, TextField } from 'react-aria-components'
import type { PatientSummary } from '../api/queries'
import { BirthDateField } from './BirthDateField'
import { Input } from './controls'
import { SexChoice } from './SexChoice'

/** Who a patient is, as it is typed: an empty birth date or sex is one that was not given. */
export interface PatientTyped {
  readonly name: string
  /** ISO date, or empty. */
  readonly birthDate: string
  readonly sex: Sex | ''
  readonly contact: string
}

export const NOBODY: PatientTyped = { name: '', birthDate: '', sex: '', contact: '' }
export const typedOf = (patient: PatientSummary): PatientTyped => ({ ...NOBODY, ...patient, sex: patient.sex ?? '' })

/** The fields that say who a patient is: the same for a new one and for one who is corrected. */
export function PatientFields({
  nameLabel = 'Name',
  value,
  onChange,
}: {
  readonly nameLabel?: string
  readonly value: PatientTyped
  readonly onChange: (now: PatientTyped) => void
}) {
  return (
    <>
      <TextField value={value.name} onChange={(name) => onChange({ ...value, name })}>
        <Label>{nameLabel}</Label>
        <Input />
      </TextField>
      <BirthDateField value={value.birthDate} onChange={(birthDate) => onChange({ ...value, birthDate })} />
      <SexChoice value={value.sex} onChange={(sex) => onChange({ ...value, sex })} />
      <TextField value={value.contact} onChange={(contact) => onChange({ ...value, contact })}>
        <Label>Where to reach the patient, for the letter</Label>
        <Input />
      </TextField>
    </>
  )
}
