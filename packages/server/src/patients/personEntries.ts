import type { Entry } from '@kneecap-awl/core'
import { uuid7 } from '../db/uuid7.js'
import type { Patient } from './queries.js'

const DAY_MS = 86_400_000
const DAYS_A_YEAR = 365.2425
const INFANT_YEARS = 2

/** What the patient's own record already says on the card: the age, and the sex if somebody asked. */
export function personEntries(patient: Pick<Patient, 'birthDate' | 'sex'>, by: string, now = Date.now()): Entry[] {
  const at = new Date(now).toISOString()
  const days = (now - Date.parse(patient.birthDate)) / DAY_MS
  const years = days / DAYS_A_YEAR
  const known = (item: string, value: string | number): Entry => ({ id: uuid7(), item, side: 'none', state: 'examined', value, by, at })
  return [
    known('patient.age-years', years < INFANT_YEARS ? Math.round(years * 100) / 100 : Math.floor(years)),
    ...(patient.sex === null ? [] : [known('patient.sex', patient.sex)]),
    ...(years < INFANT_YEARS ? [known('patient.age-days', Math.floor(days))] : []),
  ]
}
