import { ageOn, type Entry } from '@kneecap-awl/core'
import { v7 as uuid7 } from 'uuid'
import type { PatientSummary as Patient } from '@kneecap-awl/contract'

/** Below this age a fraction of a year and the days are told as well. */
const INFANT_YEARS = 2

/**
 * What the patient's own record already says on the card: the age, and the sex if somebody asked.
 * @param by who begins the examination, and the time zone in which days are counted there
 */
export function personEntries(
  patient: Pick<Patient, 'birthDate' | 'sex'>,
  by: { readonly name: string; readonly zone: string },
  at = new Date().toISOString(),
): Entry[] {
  const age = ageOn(patient.birthDate, at, by.zone)
  const known = (item: string, value: string | number): Entry => ({ id: uuid7(), item, side: 'none', state: 'examined', value, by: by.name, at })
  return [
    known('patient.age-years', age.years < INFANT_YEARS ? age.yearsExactly : age.years),
    ...(patient.sex === null ? [] : [known('patient.sex', patient.sex)]),
    ...(age.years < INFANT_YEARS ? [known('patient.age-days', age.days)] : []),
  ]
}
