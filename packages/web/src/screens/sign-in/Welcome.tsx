import { useState } from 'react'
import { useNavigate } from 'react-router'
import { accounts } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { Soft } from '../../parts/controls'
import { faultWords } from '../../parts/faultWords'
import { Fields, Labelled } from '../../parts/Labelled'
import { isSameTwice, NewPassword, NO_PASSWORD } from '../../parts/NewPassword'
import { Gate } from './Gate'

/** Where a code from the administrator becomes a password. */
export function Welcome() {
  const [code, setCode] = useState('')
  const [chosen, setChosen] = useState(NO_PASSWORD)
  const [fault, setFault] = useState('')
  const navigate = useNavigate()
  const set = async (): Promise<void> => {
    setFault('')
    if (!isSameTwice(chosen)) return setFault('The two passwords are not the same.')
    try {
      const { signIn } = await call(accounts.acceptInvitation, { body: { code, password: chosen.next } })
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
        <NewPassword value={chosen} onChange={setChosen} />
      </Fields>
      <Soft>Nobody else learns your password, your administrator neither: what you sign is in your name.</Soft>
    </Gate>
  )
}
