import { useState } from 'react'
import { accounts } from '@kneecap-awl/contract'
import { ApiProblem, call } from '../api/http'
import { arrived } from '../api/leaving'
import type { Account } from '../api/queries'
import { vault } from '../record/vault'
import { faultWords } from './faultWords'
import { Fields, Labelled } from './Labelled'

/** Name and password, then the code of the second factor where there is one. @param name filled in where it is known who it is */
export function SignInForm({ name = '', onSignedIn }: { readonly name?: string; readonly onSignedIn: (account: Account) => void }) {
  const [signIn, setSignIn] = useState(name)
  const [password, setPassword] = useState('')
  const [code, setCode] = useState<string>()
  const [fault, setFault] = useState('')
  const enter = async (): Promise<void> => {
    setFault('')
    try {
      const { account, deviceKey } = await call(accounts.signIn, { body: { signIn, password, ...(code ? { code } : {}) } })
      arrived()
      await vault.hold(account, deviceKey)
      onSignedIn(account)
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'second-factor') setCode('')
      else setFault(faultWords(error))
    }
  }
  return (
    <Fields fault={fault} submit="Sign in" onSubmit={() => void enter()}>
      <Labelled label="Sign-in name" value={signIn} onChange={setSignIn} autoComplete="username" />
      <Labelled label="Password" value={password} onChange={setPassword} type="password" autoComplete="current-password" />
      {code !== undefined && (
        <Labelled
          label="One-time code"
          hint="Six digits of your authenticator, or one of your recovery codes"
          value={code}
          onChange={setCode}
          autoComplete="one-time-code"
          inputMode="text"
          autoFocus
        />
      )}
    </Fields>
  )
}
