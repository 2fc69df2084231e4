import { useState } from 'react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { people, ROLES, type Invited, type Person, type Role } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { allPeople } from '../../api/queries'
import { Button, Card, Reading, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { faultWords } from '../../parts/faultWords'
import { Loaded } from '../../parts/Loaded'
import { ROLE_NAMES } from '../../parts/roleNames'
import { Shell } from '../../parts/Shell'
import { Select, Table } from '../../parts/Table'
import { dayAndTime } from '../../parts/times'
import { InvitePerson } from './InvitePerson'

/** The accounts of the site: invited, given a role, reset, disabled. */
export default function PeoplePage() {
  const query = useQuery(allPeople)
  const client = useQueryClient()
  const [isInviting, setInviting] = useState(false)
  const [given, setGiven] = useState<{ readonly name: string; readonly invited: Invited }>()
  const [fault, setFault] = useState('')
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    setFault('')
    try {
      await work()
    } catch (error) {
      setFault(faultWords(error))
    }
    await client.invalidateQueries({ queryKey: allPeople.queryKey })
  }
  const change = (id: string, body: { role?: Role; isDisabled?: boolean }): void => void act(() => call(people.changePerson, { params: { id }, body }))
  const reset = ({ id, name }: Person): void => void act(async () => setGiven({ name, invited: await call(people.resetPerson, { params: { id } }) }))
  return (
    <Shell
      heading={<h1 style={{ fontSize: 18 }}>People</h1>}
      actions={
        <Button $tone="copper" onPress={() => setInviting(true)}>
          Invite somebody
        </Button>
      }
    >
      <Page>
        {fault && <p role="alert">{fault}</p>}
        <Card>
          <Loaded query={query} what="the accounts">
            {(all) => (
              <Off>
                <thead>
                  <tr>
                    <th>Name</th>
                    <th>Role</th>
                    <th>Signs in</th>
                    <th aria-label="What can be done" />
                  </tr>
                </thead>
                <tbody>
                  {all.map((one) => (
                    <tr key={one.id} data-off={one.disabledAt !== null || undefined}>
                      <td>
                        {one.name}
                        <Soft as="div">
                          <Reading>{one.signIn}</Reading>
                          {one.isDemo ? ' · demonstration' : ''}
                        </Soft>
                      </td>
                      <td>
                        <Select aria-label={`Role of ${one.name}`} value={one.role} onChange={({ target }) => change(one.id, { role: target.value as Role })}>
                          {ROLES.map((role) => (
                            <option key={role} value={role}>
                              {ROLE_NAMES[role]}
                            </option>
                          ))}
                        </Select>
                      </td>
                      <td>{stateOf(one)}</td>
                      <td>
                        <Actions>
                          {!one.isDemo && <Button onPress={() => reset(one)}>Reset…</Button>}
                          <Button onPress={() => change(one.id, { isDisabled: one.disabledAt === null })}>
                            {one.disabledAt === null ? 'Disable' : 'Enable'}
                          </Button>
                        </Actions>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Off>
            )}
          </Loaded>
        </Card>
        <Soft>
          A change of role, a reset and disabling end every session of that account at once. Nothing that it recorded or signed is changed; an account is never
          deleted.
        </Soft>
      </Page>
      {isInviting && (
        <InvitePerson
          onClose={() => setInviting(false)}
          onInvited={(name, invited) => {
            setInviting(false)
            setGiven({ name, invited })
            void client.invalidateQueries({ queryKey: allPeople.queryKey })
          }}
        />
      )}
      <Dialogue title={`Code for ${given?.name ?? ''}`} isOpen={given !== undefined} onClose={() => setGiven(undefined)}>
        <Code>{given?.invited.code}</Code>
        <p>
          Give it to {given?.name} yourself. With it they set their password at <Reading>{`${window.location.origin}/welcome`}</Reading>. It is shown only now
          and can be used once, until {given && dayAndTime(given.invited.expiresAt)}.
        </p>
        <Button $tone="copper" onPress={() => setGiven(undefined)}>
          Done
        </Button>
      </Dialogue>
    </Shell>
  )
}

function stateOf({ disabledAt, invitedUntil, hasSecondFactor, isDemo }: Person): string {
  if (disabledAt) return `disabled ${dayAndTime(disabledAt)}`
  if (invitedUntil) return `code open until ${dayAndTime(invitedUntil)}`
  if (isDemo) return 'with the password of the demonstration'
  return hasSecondFactor ? 'with password and one-time code' : 'with password alone'
}

const Page = styled.div`
  max-width: 980px;
  margin: 0 auto;
  padding: 20px;
  display: grid;
  gap: 12px;
`
const Off = styled(Table)`
  tr[data-off] td {
    color: ${({ theme }) => theme.soft};
  }
`
const Actions = styled.div`
  display: flex;
  gap: 8px;
  justify-content: flex-end;
`
const Code = styled(Reading)`
  font-size: 24px;
  letter-spacing: 0.04em;
  user-select: all;
`
