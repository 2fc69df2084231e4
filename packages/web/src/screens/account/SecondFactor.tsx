import { useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { accounts, type Account } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { session } from '../../api/queries'
import { Button, Reading, Soft } from '../../parts/controls'
import { faultWords } from '../../parts/faultWords'
import { Fields, Labelled } from '../../parts/Labelled'
import { Box } from './Box'

interface Begun {
  readonly secret: string
  readonly picture: string
}

/** A one-time code besides the password: set up with an authenticator, kept safe by recovery codes that are shown once. */
export function SecondFactor({ account }: { readonly account: Account }) {
  const [begun, setBegun] = useState<Begun>()
  const [codes, setCodes] = useState<readonly string[]>()
  const client = useQueryClient()
  const confirm = (recoveryCodes: readonly string[]): void => {
    setBegun(undefined)
    setCodes(recoveryCodes)
    void client.invalidateQueries({ queryKey: session.queryKey })
  }
  return (
    <Box aria-label="Second factor">
      <h2>Second factor</h2>
      {codes ? (
        <RecoveryCodes codes={codes} onDone={() => setCodes(undefined)} />
      ) : account.hasSecondFactor ? (
        <p>Set up: you sign in with your password and a one-time code. A lost authenticator is reset by your administrator.</p>
      ) : begun ? (
        <Confirm begun={begun} onConfirmed={confirm} />
      ) : (
        <Begin onBegun={setBegun} />
      )}
    </Box>
  )
}

function Begin({ onBegun }: { readonly onBegun: (begun: Begun) => void }) {
  const [password, setPassword] = useState('')
  const [fault, setFault] = useState('')
  const begin = async (): Promise<void> => {
    setFault('')
    try {
      onBegun(await call(accounts.beginSecondFactor, { body: { password } }))
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return (
    <>
      <p>Not set up. With it a stolen password alone opens nothing. You need an authenticator: a program on your telephone that shows six digits.</p>
      <Fields fault={fault} submit="Set up" onSubmit={() => void begin()}>
        <Labelled label="Your password" type="password" value={password} onChange={setPassword} autoComplete="current-password" />
      </Fields>
    </>
  )
}

function Confirm({ begun: { secret, picture }, onConfirmed }: { readonly begun: Begun; readonly onConfirmed: (codes: readonly string[]) => void }) {
  const [code, setCode] = useState('')
  const [fault, setFault] = useState('')
  const confirm = async (): Promise<void> => {
    setFault('')
    try {
      onConfirmed((await call(accounts.confirmSecondFactor, { body: { secret, code } })).recoveryCodes)
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return (
    <>
      <p>Read this picture with your authenticator, then enter the six digits that it shows.</p>
      <Picture src={`data:image/svg+xml;utf8,${encodeURIComponent(picture)}`} alt="QR code of the secret" width={176} height={176} />
      <Soft>
        Or type the secret: <Reading>{secret.replaceAll(/(.{4})(?=.)/g, '$1 ')}</Reading>
      </Soft>
      <Fields fault={fault} submit="Confirm" onSubmit={() => void confirm()}>
        <Labelled label="Six digits" value={code} onChange={setCode} inputMode="numeric" autoComplete="one-time-code" autoFocus />
      </Fields>
    </>
  )
}

function RecoveryCodes({ codes, onDone }: { readonly codes: readonly string[]; readonly onDone: () => void }) {
  return (
    <>
      <p role="status">
        Set up. Should your authenticator be lost, each of these codes signs you in once. They are shown only now: print them or write them down.
      </p>
      <Codes>
        {codes.map((one) => (
          <li key={one}>
            <Reading>{one}</Reading>
          </li>
        ))}
      </Codes>
      <Button onPress={onDone}>I have kept them</Button>
    </>
  )
}

const Picture = styled.img`
  background: white;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
`
const Codes = styled.ol`
  columns: 2;
  column-gap: 40px;
  font-size: 16px;
  line-height: 1.7;
`
