import { lazy, Suspense, useEffect } from 'react'
import { createBrowserRouter, Navigate, Outlet, RouterProvider, useLocation } from 'react-router'
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query'
import { ThemeProvider } from 'styled-components'
import type { Role } from '@kneecap-awl/contract'
import { ApiProblem } from './api/http'
import { hearChanges } from './api/live'
import { session } from './api/queries'
import { Loaded } from './parts/Loaded'
import { setSiteZone } from './parts/times'
import { SignInAgain } from './parts/SignInAgain'
import { Desk } from './screens/desk/Desk'
import { SignIn } from './screens/sign-in/SignIn'
import { Welcome } from './screens/sign-in/Welcome'
import { GlobalStyle } from './theme/GlobalStyle'
import { ThemeToggle } from './theme/ThemeToggle'
import { useThemeChoice } from './theme/useThemeChoice'

const screens = {
  start: () => import('./screens/start/Start'),
  workspace: () => import('./screens/workspace/Workspace'),
  verdict: () => import('./screens/verdict/VerdictSheet'),
  library: () => import('./screens/library/Library'),
  patient: () => import('./screens/patient/PatientPage'),
  account: () => import('./screens/account/AccountPage'),
  people: () => import('./screens/people/PeoplePage'),
  audit: () => import('./screens/audit/AuditPage'),
}
const Start = lazy(screens.start)
const Workspace = lazy(screens.workspace)
const VerdictSheet = lazy(screens.verdict)
const Library = lazy(screens.library)
const PatientPage = lazy(screens.patient)
const AccountPage = lazy(screens.account)
const PeoplePage = lazy(screens.people)
const AuditPage = lazy(screens.audit)

const client = new QueryClient({
  defaultOptions: {
    queries: { networkMode: 'always', retry: (count, error) => count < 2 && !(error instanceof ApiProblem && error.status < 500), refetchOnWindowFocus: false },
  },
})

/** Everything but signing in wants someone signed in. */
function SignedIn() {
  const who = useQuery(session)
  const { pathname, search } = useLocation()
  const isIn = who.data !== null && who.data !== undefined
  if (who.data) setSiteZone(who.data.zone)
  // Every screen is fetched once somebody is signed in, so that a connection that drops later takes none of them away.
  useEffect(() => {
    if (isIn) for (const screen of Object.values(screens)) void screen().catch(() => undefined)
  }, [isIn])
  const readsPatients = isIn && HOMES[who.data?.role ?? 'admin'] === undefined
  useEffect(() => (readsPatients ? hearChanges(client) : undefined), [readsPatients])
  if (who.data === null) return <Navigate to="/sign-in" replace state={{ from: `${pathname}${search}` }} />
  if (who.data === undefined)
    return (
      <main>
        <Loaded query={who} what="who is signed in">
          {() => null}
        </Loaded>
      </main>
    )
  // Who sees no patient has no desk.
  const home = HOMES[who.data.role]
  if (pathname === '/' && home) return <Navigate to={home} replace />
  // An administrator sets up the second factor before anything else.
  if (who.data.needsSecondFactor && pathname !== '/account') return <Navigate to="/account" replace />
  return (
    <>
      <Suspense fallback={<Waiting />}>
        <Outlet />
      </Suspense>
      <SignInAgain account={who.data} />
    </>
  )
}

const HOMES: Partial<Record<Role, string>> = { admin: '/people', learner: '/library' }

const Waiting = () => (
  <main>
    <p role="status" style={{ padding: 20 }}>
      Reading the screen…
    </p>
  </main>
)

const router = createBrowserRouter([
  { path: '/sign-in', element: <SignIn /> },
  { path: '/welcome', element: <Welcome /> },
  {
    element: <SignedIn />,
    children: [
      { path: '/', element: <Desk /> },
      { path: '/start', element: <Start /> },
      { path: '/examinations/:id', element: <Workspace /> },
      { path: '/examinations/:id/verdict', element: <VerdictSheet /> },
      { path: '/library', element: <Library /> },
      { path: '/patients/:id', element: <PatientPage /> },
      { path: '/account', element: <AccountPage /> },
      { path: '/people', element: <PeoplePage /> },
      { path: '/audit', element: <AuditPage /> },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
])

export function App() {
  const { theme, toggle } = useThemeChoice()
  return (
    <ThemeProvider theme={theme}>
      <GlobalStyle />
      <ThemeToggle.Provider value={toggle}>
        <QueryClientProvider client={client}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </ThemeToggle.Provider>
    </ThemeProvider>
  )
}
