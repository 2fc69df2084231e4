import type { ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Moon, Sun } from 'lucide-react'
import styled, { useTheme } from 'styled-components'
import { leave } from '../api/leaving'
import { session } from '../api/queries'
import { useThemeToggle } from '../theme/ThemeToggle'
import { Button } from './controls'

/** The frame of every screen: the bar on top, the screen's own heading and buttons in it. */
export function Shell({ heading, actions, children }: { readonly heading: ReactNode; readonly actions?: ReactNode; readonly children: ReactNode }) {
  const { data: account } = useQuery(session)
  const navigate = useNavigate()
  const client = useQueryClient()
  const { name } = useTheme()
  const toggle = useThemeToggle()
  const signOut = async (): Promise<void> => {
    await leave()
    client.clear()
    void navigate('/sign-in')
  }
  return (
    <Frame>
      <Bar data-screen-only>
        <Home to="/" aria-label="Kneecap Awl, to the desk">
          <img src="/awl.svg" alt="" width={20} height={20} /> Kneecap Awl
        </Home>
        <Heading>{heading}</Heading>
        <Actions>
          {actions}
          {account && account.role === 'admin' && <Look to="/people">People</Look>}
          {account && (account.role === 'admin' || account.role === 'lead') && <Look to="/audit">Audit</Look>}
          {account && <Look to="/library">Library</Look>}
          {account && <Look to="/account">{account.name}</Look>}
          <Button $tone="quiet" aria-label={name === 'light' ? 'Dark theme' : 'Light theme'} onPress={toggle}>
            {name === 'light' ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
          </Button>
          {account && (
            <Button $tone="quiet" onPress={() => void signOut()}>
              Sign out
            </Button>
          )}
        </Actions>
      </Bar>
      <Main>{children}</Main>
    </Frame>
  )
}

const Frame = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
  @media (max-width: 1024px) {
    height: auto;
    min-height: 100vh;
  }
  @media print {
    display: block;
    height: auto;
  }
`
const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 4px 20px;
  min-height: 56px;
  padding: 0 20px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  min-width: 0;
  @media (max-width: 1024px) {
    flex-wrap: wrap;
    padding: 6px 12px;
  }
`
const Home = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: 10px;
  font-weight: 700;
  text-decoration: none;
  white-space: nowrap;
  img {
    filter: ${({ theme }) => (theme.name === 'dark' ? 'invert(0.85)' : 'none')};
  }
`
const Look = styled(Link)`
  padding: 0 8px;
  color: inherit;
  text-decoration: none;
  &:hover {
    text-decoration: underline;
  }
`
const Heading = styled.div`
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`
const Actions = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  @media (max-width: 1024px) {
    flex-wrap: wrap;
  }
`
const Main = styled.main`
  min-height: 0;
  overflow: auto;
  @media print {
    overflow: visible;
  }
`
