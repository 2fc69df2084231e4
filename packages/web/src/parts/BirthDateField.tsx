import { parseDate, today, getLocalTimeZone } from '@internationalized/date'
import { DateField, DateInput, DateSegment, Label, Text } from 'react-aria-components'
import styled from 'styled-components'
import { MONO } from '../theme/GlobalStyle'
import { Soft } from './controls'
import { ageWords, dayOnly } from './times'

interface Props {
  /** YYYY-MM-DD, or empty while none was given. */
  readonly value: string
  readonly onChange: (value: string) => void
}

/** A birth date in the order that the user's own language writes it; in words beside it, so that day and month are never mistaken for each other. */
export function BirthDateField({ value, onChange }: Props) {
  return (
    <DateField value={value === '' ? null : parseDate(value)} onChange={(date) => onChange(date?.toString() ?? '')} maxValue={today(getLocalTimeZone())}>
      <Label>Birth date</Label>
      <Segments>{(segment) => <DateSegment segment={segment} />}</Segments>
      <Soft as={Text} slot="description">
        {value === '' ? 'Day, month and year.' : `${dayOnly(value)}, aged ${ageWords(value)}`}
      </Soft>
    </DateField>
  )
}

const Segments = styled(DateInput)`
  display: flex;
  align-items: center;
  min-height: 34px;
  padding: 0 10px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.sheet};
  font-family: ${MONO};
  font-variant-numeric: tabular-nums;
  & [role='spinbutton'] {
    padding: 2px 3px;
    border-radius: 4px;
  }
  & [data-focused] {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
`
