import type { ReactNode } from 'react'
import { Form, Label, TextField, type TextFieldProps } from 'react-aria-components'
import styled from 'styled-components'
import { Button, Input, Soft } from './controls'

/** A field with its name above it and what is expected below. */
export function Labelled({ label, hint, ...field }: TextFieldProps & { readonly label: string; readonly hint?: string }) {
  return (
    <TextField isRequired {...field}>
      <Label>{label}</Label>
      <Input />
      {hint && <Soft as="div">{hint}</Soft>}
    </TextField>
  )
}

/** Fields, what was wrong with them, and the button that sends them. */
export function Fields({
  fault,
  submit,
  onSubmit,
  children,
}: {
  readonly fault: string
  readonly submit: string
  readonly onSubmit: () => void
  readonly children: ReactNode
}) {
  return (
    <Column
      onSubmit={(event) => {
        event.preventDefault()
        onSubmit()
      }}
    >
      {children}
      {fault && <Fault role="alert">{fault}</Fault>}
      <Button type="submit" $tone="copper">
        {submit}
      </Button>
    </Column>
  )
}

const Column = styled(Form)`
  display: grid;
  gap: 12px;
  label {
    display: block;
    margin-bottom: 4px;
    font-weight: 600;
  }
`
const Fault = styled.p`
  color: ${({ theme }) => theme.copper};
`
