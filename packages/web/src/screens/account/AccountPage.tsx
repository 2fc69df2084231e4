import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { session } from '../../api/queries'
import { Soft } from '../../parts/controls'
import { Loaded } from '../../parts/Loaded'
import { ROLE_NAMES } from '../../parts/roleNames'
import { Shell } from '../../parts/Shell'
import { Box } from './Box'
import { OwnPassword } from './OwnPassword'
import { OwnSessions } from './OwnSessions'
import { SecondFactor } from './SecondFactor'

/** One's own account: password, second factor, where one is signed in. */
export default function AccountPage() {
  const query = useQuery(session)
  return (
    <Shell heading={<h1 style={{ fontSize: 18 }}>Your account</h1>}>
      <Page>
        <Loaded query={query} what="your account">
          {(account) =>
            account && (
              <>
                {account.needsSecondFactor && <Notice role="alert">An administrator signs in with a second factor. Set it up to go on.</Notice>}
                <Box aria-label="Who you are">
                  <h2>{account.name}</h2>
                  <p>
                    {ROLE_NAMES[account.role]}, {account.site}
                  </p>
                  <Soft>Sign-in name {account.signIn}. Your administrator changes name and role.</Soft>
                </Box>
                <SecondFactor account={account} />
                <OwnPassword />
                <OwnSessions />
              </>
            )
          }
        </Loaded>
      </Page>
    </Shell>
  )
}

const Page = styled.div`
  max-width: 760px;
  margin: 0 auto;
  padding: 20px;
  display: grid;
  gap: 16px;
`
const Notice = styled.p`
  padding: 12px 20px;
  border-left: 4px solid ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.sheet};
  font-weight: 650;
`
