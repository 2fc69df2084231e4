import { useState } from 'react'
import { Form, Label, TextField } from 'react-aria-components'
import styled from 'styled-components'
import { accounts } from '@kneecap-awl/contract'
import { call } from '../api/http'
import type { Account } from '../api/queries'
import { Button, Input } from './controls'

/** Name and password. @param name filled in where it is known who it is */
export function SignInForm({ name = '', onSignedIn }: { readonly name?: string; readonly onSignedIn: (account: Account) => void }) {
  const [signIn, setSignIn] = useState(name)
  const [password, setPassword] = useState('')
  const [fault, setFault] = useState('')
  const enter = async (): Promise<void> => {
    setFault('')
    try {
      const { account } = await call(accounts.signIn, { body: { signIn, password } })
      onSignedIn(account)
    } catch (error) {
      setFault(error instanceof TypeError ? 'The server cannot be reached. Try again.' : (error as Error).message)
    }
  }
  return (
    <Fields
      onSubmit={(event) => {
        event.preventDefault()
        void enter()
      }}
    >
      <TextField value={signIn} onChange={setSignIn} autoComplete="username" isRequired>
        <Label>Sign-in name</Label>
        <Input />
      </TextField>
      <TextField value={password} onChange={setPassword} type="password" autoComplete="current-password" isRequired>
        <Label>Password</Label>
        <Input />
      </TextField>
      {fault && <Fault role="alert">{fault}</Fault>}
      <Button type="submit" $tone="copper">
        Sign in
      </Button>
    </Fields>
  )
}

const Fields = styled(Form)`
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
