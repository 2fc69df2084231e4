import { useEffect, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { Card, Soft } from '../../parts/controls'
import { PunchedStrip } from '../../parts/PunchedStrip'
import { SignInForm } from '../../parts/SignInForm'
import { outbox } from '../../record/outbox'

export function SignIn() {
  const { state } = useLocation() as { state: { from?: string } | null }
  const [unsent, setUnsent] = useState(0)
  const navigate = useNavigate()
  const client = useQueryClient()
  useEffect(() => void outbox.count().then(setUnsent), [])
  const enter = (): void => {
    client.clear()
    void navigate(state?.from ?? '/')
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
        {unsent > 0 && <p role="status">{unsent} findings on this device are not sent yet. They are sent once you sign in and open their examination.</p>}
        <SignInForm onSignedIn={enter} />
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
