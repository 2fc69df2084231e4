import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import { signedIn, signedOut } from '../api/signedOut'
import { session, type Account } from '../api/queries'
import { outbox } from '../record/outbox'
import { Soft } from './controls'
import { Dialogue } from './Dialogue'
import { SignInForm } from './SignInForm'

/** When the session has ended it is asked for again over the screen as it is: nothing on it, and nothing that waits on this device, is lost. */
export function SignInAgain({ account }: { readonly account: Account }) {
  const [isOut, setIsOut] = useState(false)
  const [unsent, setUnsent] = useState(0)
  const client = useQueryClient()
  const navigate = useNavigate()
  useEffect(
    () =>
      signedOut.listen(() => {
        setIsOut(true)
        void outbox.count().then(setUnsent)
      }),
    [],
  )
  const enter = (now: Account): void => {
    setIsOut(false)
    if (now.id !== account.id) {
      client.clear()
      void navigate('/')
      return
    }
    client.setQueryData(session.queryKey, now)
    void client.invalidateQueries()
    signedIn.tell()
  }
  return (
    <Dialogue title="Signed out" isOpen={isOut} onClose={() => setIsOut(false)}>
      <p>
        The server no longer knows who you are.{' '}
        {unsent > 0 ? `${unsent} findings are kept on this device and are sent once you sign in.` : 'Nothing is lost: sign in and go on.'}
      </p>
      <SignInForm name={account.signIn} onSignedIn={enter} />
      <Soft>Signing in as somebody else closes this examination here; what waits is sent the next time it is opened.</Soft>
    </Dialogue>
  )
}
