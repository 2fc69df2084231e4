import { useState } from 'react'
import { Form, Label, TextField } from 'react-aria-components'
import { useNavigate } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { api } from '../../api/http'
import { Button, Card, Input, Soft } from '../../parts/controls'
import { PunchedStrip } from '../../parts/PunchedStrip'

export function SignIn() {
  const [signIn, setSignIn] = useState('')
  const [password, setPassword] = useState('')
  const [fault, setFault] = useState('')
  const navigate = useNavigate()
  const client = useQueryClient()
  const enter = async (): Promise<void> => {
    setFault('')
    try {
      await api('POST', '/api/session', { signIn, password })
      client.clear()
      void navigate('/')
    } catch (error) {
      setFault((error as Error).message)
    }
  }
  return (
    <Page>
      <Box as="main">
        <Mark>
          <img src="/awl.svg" alt="" width={30} height={30} />
          <h1>Kneecap Awl</h1>
        </Mark>
        <p>Look, feel, move: a structured examination of the painful joint, what is urgent in it, and the proof.</p>
        <PunchedStrip floor="weeks" ceiling="today" size="large" />
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
        <Soft>It supports clinical judgement and never replaces it. Local pathways come first.</Soft>
      </Box>
    </Page>
  )
}

const Page = styled.div`
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 20px;
`
const Box = styled(Card)`
  width: min(400px, 100%);
  padding: 28px;
  display: grid;
  gap: 18px;
`
const Mark = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  h1 {
    font-size: 24px;
  }
`
const Fields = styled(Form)`
  display: grid;
  gap: 14px;
  label {
    display: block;
    margin-bottom: 4px;
    font-weight: 600;
  }
  button {
    min-height: 44px;
  }
`
const Fault = styled.p`
  background: ${({ theme }) => theme.copperWash};
  border-radius: 8px;
  padding: 8px 12px;
`
