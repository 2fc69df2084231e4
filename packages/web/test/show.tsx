import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { ThemeProvider } from 'styled-components'
import { vi } from 'vitest'
import { viewOf, type Item, type RegionPack } from '@kneecap-awl/core'
import { thePack } from '../../core/test/support.js'
import { currentPack } from '../src/api/queries'
import { LIGHT } from '../src/theme/tokens'

/** Shows a part of a screen as the application would: themed, routed, with the pack at hand. */
export function show(what: ReactNode) {
  // The browser has it; the stand-in for one does not, and another file may have taken it away.
  vi.stubGlobal('CSS', { escape: (text: string) => text.replace(/[^\w-]/g, (sign) => `\\${sign}`) })
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  client.setQueryData(currentPack.queryKey, thePack())
  const router = createMemoryRouter([{ path: '*', element: what }])
  render(
    <QueryClientProvider client={client}>
      <ThemeProvider theme={LIGHT}>
        <RouterProvider router={router} />
      </ThemeProvider>
    </QueryClientProvider>,
  )
  return router
}

export const itemOf = (region: string, id: string): Item => {
  const item = viewOf(thePack(), region).items.find((one) => one.id === id)
  if (!item) throw new Error(`${region} has no ${id}`)
  return item
}
export const view = (region: string): RegionPack => viewOf(thePack(), region)
