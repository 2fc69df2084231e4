import { useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { accounts } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { ownSessions } from '../../api/queries'
import { faultWords } from '../../parts/faultWords'
import { Fields, Labelled } from '../../parts/Labelled'
import { isSameTwice, NewPassword, NO_PASSWORD } from '../../parts/NewPassword'
import { Box } from './Box'

/** Another password; whoever is signed in elsewhere is signed out. */
export function OwnPassword() {
  const [password, setPassword] = useState('')
  const [chosen, setChosen] = useState(NO_PASSWORD)
  const [fault, setFault] = useState('')
  const [isDone, setDone] = useState(false)
  const client = useQueryClient()
  const change = async (): Promise<void> => {
    setFault('')
    setDone(false)
    if (!isSameTwice(chosen)) return setFault('The two new passwords are not the same.')
    try {
      await call(accounts.changePassword, { body: { password, next: chosen.next } })
      setPassword('')
      setChosen(NO_PASSWORD)
      setDone(true)
      void client.invalidateQueries({ queryKey: ownSessions.queryKey })
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return (
    <Box aria-label="Password">
      <h2>Password</h2>
      <Fields fault={fault} submit="Change password" onSubmit={() => void change()}>
        <Labelled label="Password now" type="password" value={password} onChange={setPassword} autoComplete="current-password" />
        <NewPassword value={chosen} onChange={setChosen} />
      </Fields>
      {isDone && <p role="status">Changed. Every other session of yours has ended.</p>}
    </Box>
  )
}
