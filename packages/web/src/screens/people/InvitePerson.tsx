import { useState } from 'react'
import { people, ROLES, type Invited, type Role } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { Soft, Toggle, ToggleRow } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { faultWords } from '../../parts/faultWords'
import { Fields, Labelled } from '../../parts/Labelled'
import { ROLE_NAMES } from '../../parts/roleNames'

const SAYS: Readonly<Record<Role, string>> = {
  clinician: 'examines, signs and refers',
  lead: 'as a clinician, and reads who did what',
  admin: 'manages people and reads who did what; sees no patient',
  learner: 'tries the judge on made-up records; sees no patient',
}

/** Who is invited, by which name they sign in, and what they may do. */
export function InvitePerson({ onClose, onInvited }: { readonly onClose: () => void; readonly onInvited: (name: string, invited: Invited) => void }) {
  const [name, setName] = useState('')
  const [signIn, setSignIn] = useState('')
  const [role, setRole] = useState<Role>('clinician')
  const [fault, setFault] = useState('')
  const invite = async (): Promise<void> => {
    setFault('')
    try {
      onInvited(name, await call(people.invite, { body: { name, signIn: signIn.trim().toLowerCase(), role } }))
    } catch (error) {
      setFault(faultWords(error))
    }
  }
  return (
    <Dialogue title="Invite somebody" isOpen onClose={onClose}>
      <Fields fault={fault} submit="Invite" onSubmit={() => void invite()}>
        <Labelled label="Name" hint="As it stands under letters and signatures" value={name} onChange={setName} autoComplete="off" autoFocus />
        <Labelled label="Sign-in name" hint="Small letters, digits, point and line" value={signIn} onChange={setSignIn} autoComplete="off" />
        <ToggleRow
          aria-label="Role"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[role]}
          onSelectionChange={(keys) => setRole([...keys][0] as Role)}
        >
          {ROLES.map((one) => (
            <Toggle key={one} id={one}>
              {ROLE_NAMES[one]}
            </Toggle>
          ))}
        </ToggleRow>
        <Soft>
          {ROLE_NAMES[role]}: {SAYS[role]}.
        </Soft>
      </Fields>
    </Dialogue>
  )
}
