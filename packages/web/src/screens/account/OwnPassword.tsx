import { useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { accounts } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { ownSessions } from '../../api/queries'
import { faultWords } from '../../parts/faultWords'
import { Fields, Labelled } from '../../parts/Labelled'
import { Box } from './Box'

/** Another password; whoever is signed in elsewhere is signed out. */
export function OwnPassword() {
  const [password, setPassword] = useState('')
  const [next, setNext] = useState('')
  const [again, setAgain] = useState('')
  const [fault, setFault] = useState('')
  const [isDone, setDone] = useState(false)
  const client = useQueryClient()
  const change = async (): Promise<void> => {
    setFault('')
    setDone(false)
    if (next !== again) return setFault('The two new passwords are not the same.')
    try {
      await call(accounts.changePassword, { body: { password, next } })
      for (const clear of [setPassword, setNext, setAgain]) clear('')
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
        <Labelled
          label="New password"
          hint="12 characters or more, and none that many people have"
          type="password"
          value={next}
          onChange={setNext}
          autoComplete="new-password"
        />
        <Labelled label="The same again" type="password" value={again} onChange={setAgain} autoComplete="new-password" />
      </Fields>
      {isDone && <p role="status">Changed. Every other session of yours has ended.</p>}
    </Box>
  )
}
