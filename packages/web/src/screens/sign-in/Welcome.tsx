import { useState } from 'react'
import { useNavigate } from 'react-router'
import { accounts } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { Soft } from '../../parts/controls'
import { faultWords } from '../../parts/faultWords'
import { Fields, Labelled } from '../../parts/Labelled'
import { Gate } from './Gate'

/** Where a code from the administrator becomes a password. */
export function Welcome() {
  const [code, setCode] = useState('')
  const [password, setPassword] = useState('')
  const [again, setAgain] = useState('')
  const [fault, setFault] = useState('')
  const navigate = useNavigate()
  const set = async (): Promise<void> => {
    setFault('')
    if (password !== again) return setFault('The two passwords are not the same.')
    try {
      const { signIn } = await call(accounts.acceptInvitation, { body: { code, password } })
      void navigate('/sign-in', { state: { name: signIn } })
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return (
    <Gate>
      <p>Your administrator gave you a code that can be used once. With it you set the password of your account.</p>
      <Fields fault={fault} submit="Set password" onSubmit={() => void set()}>
        <Labelled label="Code" hint="Four groups of four, as in abcd-efgh-jkmn-pqrs" value={code} onChange={setCode} autoComplete="off" autoFocus />
        <Labelled
          label="New password"
          hint="12 characters or more. A few words are easier to keep in mind than signs."
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="new-password"
        />
        <Labelled label="The same again" type="password" value={again} onChange={setAgain} autoComplete="new-password" />
      </Fields>
      <Soft>Nobody else learns your password, your administrator neither: what you sign is in your name.</Soft>
    </Gate>
  )
}
