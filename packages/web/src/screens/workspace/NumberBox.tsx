import { useState } from 'react'
import type { Scalar } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Input, Soft } from '../../parts/controls'
import { afterRelease } from '../../parts/pointer'

interface Props {
  readonly label: string
  readonly caption?: string
  readonly unit: string | undefined
  readonly min: number | undefined
  readonly max: number | undefined
  readonly value: Scalar | undefined
  readonly isDisabled: boolean
  readonly onSet: (value: number) => void
}

/** A number is stored when the box is left or Enter is pressed; one out of range says what is wanted and stores nothing. */
export function NumberBox({ label, caption, unit, min, max, value, isDisabled, onSet }: Props) {
  const known = value === undefined ? '' : String(value)
  const [text, setText] = useState(known)
  const [seen, setSeen] = useState(known)
  const [fault, setFault] = useState(false)
  if (seen !== known) {
    setSeen(known)
    setText(known)
  }
  const wanted = rangeWords(min, max, unit)
  const commit = (): void => {
    const trimmed = text.trim().replace(',', '.').replace('−', '-')
    if (trimmed === '' || trimmed === known) return setFault(false)
    const number = Number(trimmed)
    const wrong = Number.isNaN(number) || number < (min ?? -Infinity) || number > (max ?? Infinity)
    setFault(wrong)
    if (!wrong) onSet(number)
  }
  return (
    <Box>
      {caption && <Soft>{caption}</Soft>}
      <Small
        $mono
        inputMode="decimal"
        aria-label={label}
        aria-invalid={fault}
        value={text}
        disabled={isDisabled}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => afterRelease(commit)}
        onKeyDown={(event) => event.key === 'Enter' && commit()}
      />
      {unit && <Soft>{unit}</Soft>}
      {fault && <Wrong role="alert">{wanted}</Wrong>}
    </Box>
  )
}

function rangeWords(min: number | undefined, max: number | undefined, unit: string | undefined): string {
  const shown = unit === undefined ? '' : unit === '°' ? '°' : ` ${unit}`
  if (min !== undefined && max !== undefined) return `wanted: ${min} to ${max}${shown}`
  return `wanted: a number${unit ? `, ${unit}` : ''}`
}

const Box = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 4px;
`
const Small = styled(Input)`
  width: 52px;
  min-height: 32px;
  padding: 0 6px;
  text-align: right;
`
const Wrong = styled.span`
  font-size: 12px;
  color: ${({ theme }) => theme.copper};
  white-space: nowrap;
`
