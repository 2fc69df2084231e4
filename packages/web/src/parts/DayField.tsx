import { parseDate, type DateValue } from '@internationalized/date'
import { DateField, DateInput, DateSegment, Label, Text } from 'react-aria-components'
import styled from 'styled-components'
import { MONO } from '../theme/GlobalStyle'
import { Soft } from './controls'

interface Props {
  readonly label: string
  /** YYYY-MM-DD, or empty while none was given. */
  readonly value: string
  readonly onChange: (value: string) => void
  readonly minValue?: DateValue
  readonly maxValue?: DateValue
  /** The day in words, so that day and month are never mistaken for each other. */
  readonly says: string
}

/** A day in the order that the user's own language writes it, and in words beside it. */
export function DayField({ label, value, onChange, says, ...bounds }: Props) {
  return (
    <DateField value={value === '' ? null : parseDate(value)} onChange={(date) => onChange(date?.toString() ?? '')} {...bounds}>
      <Label>{label}</Label>
      <Segments>{(segment) => <DateSegment segment={segment} />}</Segments>
      <Soft as={Text} slot="description">
        {says}
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
