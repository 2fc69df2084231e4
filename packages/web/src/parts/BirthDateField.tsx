import { today, getLocalTimeZone } from '@internationalized/date'
import { DayField } from './DayField'
import { ageWords, dayOnly } from './times'

interface Props {
  /** YYYY-MM-DD, or empty while none was given. */
  readonly value: string
  readonly onChange: (value: string) => void
}

/** A birth date, with the age that it gives. */
export function BirthDateField({ value, onChange }: Props) {
  const says = value === '' ? 'Day, month and year.' : `${dayOnly(value)}, aged ${ageWords(value)}`
  return <DayField label="Birth date" value={value} onChange={onChange} maxValue={today(getLocalTimeZone())} says={says} />
}
