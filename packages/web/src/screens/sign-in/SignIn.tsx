import { useEffect, useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import { isUntold } from '../../api/leaving'
import { Soft } from '../../parts/controls'
import { PunchedStrip } from '../../parts/PunchedStrip'
import { SignInForm } from '../../parts/SignInForm'
import { outbox } from '../../record/outbox'
import { Gate } from './Gate'

export function SignIn() {
  const { state } = useLocation() as { state: { from?: string; name?: string } | null }
  const [unsent, setUnsent] = useState(0)
  const navigate = useNavigate()
  const client = useQueryClient()
  useEffect(() => void outbox.count().then(setUnsent), [])
  const enter = (): void => {
    client.clear()
    void navigate(state?.from ?? '/')
  }
  return (
    <Gate>
      <p>Look, feel, move: a structured examination of the painful joint, what is urgent in it, and the proof.</p>
      <PunchedStrip floor="weeks" ceiling="today" size="large" />
      {unsent > 0 && (
        <p role="status">{unsent} findings on this device are not sent yet. They are sent once whoever recorded them signs in and opens their examination.</p>
      )}
      {isUntold() && <p role="status">Signed out on this device. The server could not be told: it ends the session as soon as it can be reached.</p>}
      <SignInForm name={state?.name ?? ''} onSignedIn={enter} />
      <Soft>
        Were you given a code? <Link to="/welcome">Set your password</Link>
      </Soft>
      <Soft>It supports clinical judgement and never replaces it. Local pathways come first.</Soft>
    </Gate>
  )
}
