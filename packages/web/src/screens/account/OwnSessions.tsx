import { useQuery, useQueryClient } from '@tanstack/react-query'
import styled from 'styled-components'
import { accounts, type OwnSession } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import { ownSessions } from '../../api/queries'
import { Button, Reading, Soft } from '../../parts/controls'
import { Loaded } from '../../parts/Loaded'
import { fromNow } from '../../parts/times'
import { Box } from './Box'

/** Where one is signed in, with a way to end what should not be. */
export function OwnSessions() {
  const query = useQuery(ownSessions)
  const client = useQueryClient()
  const end = async (id: string): Promise<void> => {
    await call(accounts.endSession, { params: { id } }).catch(() => undefined)
    await client.invalidateQueries({ queryKey: ownSessions.queryKey })
  }
  return (
    <Box aria-label="Sessions">
      <h2>Where you are signed in</h2>
      <Loaded query={query} what="your sessions">
        {(sessions) => (
          <List>
            {sessions.map((one) => (
              <li key={one.id}>
                <div>
                  {browserName(one)} <Soft as="span">{one.isThis ? 'this device' : `used ${fromNow(one.seenAt)}`}</Soft>
                  <Soft as="div">
                    from <Reading>{one.address}</Reading>, signed in {fromNow(one.createdAt)}
                  </Soft>
                </div>
                {!one.isThis && <Button onPress={() => void end(one.id)}>End</Button>}
              </li>
            ))}
          </List>
        )}
      </Loaded>
      <Soft>A session ends after twelve hours, and is locked after fifteen minutes without use.</Soft>
    </Box>
  )
}

/** What a browser calls itself is long; what tells two apart is its name and machine. */
function browserName({ browser }: OwnSession): string {
  const name = /(Firefox|Edg|OPR|Chrome|Safari)\/(\d+)/.exec(browser)
  const machine = /(Windows|Macintosh|Linux|Android|iPhone|iPad)/.exec(browser)
  return name ? `${name[1] ?? ''} ${name[2] ?? ''}${machine ? ` on ${machine[1] ?? ''}` : ''}` : browser || 'unknown browser'
}

const List = styled.ul`
  width: 100%;
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 8px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
`
