import { useCallback, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import { accounts } from '@kneecap-awl/contract'
import { call } from '../api/http'
import { signedIn, signedOut } from '../api/signedOut'
import { session, type Account } from '../api/queries'
import { outbox } from '../record/outbox'
import { vault } from '../record/vault'
import { Soft } from './controls'
import { Dialogue } from './Dialogue'
import { faultWords } from './faultWords'
import { Fields, Labelled } from './Labelled'
import { SignInForm } from './SignInForm'
import { useIdle } from './useIdle'

/** Nobody touched it for so long: the screen is covered, and the server asks for the password. As long as the server itself waits. */
const IDLE_MINUTES = 15

/** When the session has ended, or is locked, it is asked for again over the screen as it is: nothing on it, and nothing that waits on this device, is lost. */
export function SignInAgain({ account }: { readonly account: Account }) {
  const [state, setState] = useState<'in' | 'out' | 'locked'>('in')
  const [unsent, setUnsent] = useState(0)
  const client = useQueryClient()
  const navigate = useNavigate()
  useEffect(
    () =>
      signedOut.listen((how) => {
        setState(how)
        void outbox.count().then(setUnsent)
      }),
    [],
  )
  const lock = useCallback(() => {
    signedOut.tell('locked')
    void call(accounts.lockSession).catch(() => undefined)
  }, [])
  useIdle(IDLE_MINUTES, lock)
  // What stands behind the question is covered while the device may be in other hands.
  useEffect(() => {
    document.body.toggleAttribute('data-locked', state === 'locked')
    return () => document.body.removeAttribute('data-locked')
  }, [state])
  const enter = (now: Account): void => {
    setState('in')
    if (now.id !== account.id) {
      client.clear()
      void navigate('/')
      return
    }
    client.setQueryData(session.queryKey, now)
    void client.invalidateQueries()
    signedIn.tell(undefined)
  }
  const waits = unsent > 0 ? `${unsent} findings are kept on this device and are sent once you go on.` : 'Nothing is lost.'
  return (
    <>
      <Dialogue title="Signed out" isOpen={state === 'out'} onClose={() => setState('in')}>
        <p>The server no longer knows who you are. {waits}</p>
        <SignInForm name={account.signIn} onSignedIn={enter} />
        <Soft>Signing in as somebody else closes this examination here; what you recorded waits for you and is never sent in another name.</Soft>
      </Dialogue>
      <Dialogue title={`Locked: ${account.name}`} isOpen={state === 'locked'} onClose={() => undefined}>
        <p>Nobody used this screen for a while, or it was locked. {waits}</p>
        <Unlock onUnlocked={enter} />
        <Soft>
          Somebody else? <a href="/sign-in">Sign in as yourself</a>: what waits here is kept for {account.name}.
        </Soft>
      </Dialogue>
    </>
  )
}

function Unlock({ onUnlocked }: { readonly onUnlocked: (account: Account) => void }) {
  const [password, setPassword] = useState('')
  const [fault, setFault] = useState('')
  const unlock = async (): Promise<void> => {
    setFault('')
    try {
      const { account, deviceKey } = await call(accounts.unlockSession, { body: { password } })
      await vault.hold(account, deviceKey)
      onUnlocked(account)
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return (
    <Fields fault={fault} submit="Unlock" onSubmit={() => void unlock()}>
      <Labelled label="Password" value={password} onChange={setPassword} type="password" autoComplete="current-password" autoFocus />
    </Fields>
  )
}
