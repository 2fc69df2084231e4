import { lazy, Suspense, useEffect } from 'react'
import { createBrowserRouter, Navigate, Outlet, RouterProvider } from 'react-router'
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query'
import { ThemeProvider } from 'styled-components'
import { ApiProblem } from './api/http'
import { session } from './api/queries'
import { Desk } from './screens/desk/Desk'
import { SignIn } from './screens/sign-in/SignIn'
import { GlobalStyle } from './theme/GlobalStyle'
import { ThemeToggle } from './theme/ThemeToggle'
import { useThemeChoice } from './theme/useThemeChoice'

const screens = {
  start: () => import('./screens/start/Start'),
  workspace: () => import('./screens/workspace/Workspace'),
  verdict: () => import('./screens/verdict/VerdictSheet'),
  library: () => import('./screens/library/Library'),
  patient: () => import('./screens/patient/PatientPage'),
}
const Start = lazy(screens.start)
const Workspace = lazy(screens.workspace)
const VerdictSheet = lazy(screens.verdict)
const Library = lazy(screens.library)
const PatientPage = lazy(screens.patient)

const client = new QueryClient({
  defaultOptions: { queries: { retry: (count, error) => count < 2 && !(error instanceof ApiProblem && error.status < 500), refetchOnWindowFocus: false } },
})

/** Everything but signing in wants someone signed in. */
function SignedIn() {
  const { isPending, data: account } = useQuery(session)
  const isIn = account !== null && account !== undefined
  // Every screen is fetched once somebody is signed in, so that a connection that drops later takes none of them away.
  useEffect(() => {
    if (isIn) for (const screen of Object.values(screens)) void screen().catch(() => undefined)
  }, [isIn])
  if (isPending) return null
  return !account ? (
    <Navigate to="/sign-in" replace />
  ) : (
    <Suspense fallback={null}>
      <Outlet />
    </Suspense>
  )
}

const router = createBrowserRouter([
  { path: '/sign-in', element: <SignIn /> },
  {
    element: <SignedIn />,
    children: [
      { path: '/', element: <Desk /> },
      { path: '/start', element: <Start /> },
      { path: '/examinations/:id', element: <Workspace /> },
      { path: '/examinations/:id/verdict', element: <VerdictSheet /> },
      { path: '/library', element: <Library /> },
      { path: '/patients/:id', element: <PatientPage /> },
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
