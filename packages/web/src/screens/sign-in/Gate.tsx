import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Card } from '../../parts/controls'

/** The frame of what is seen before anybody is signed in. */
export function Gate({ children }: { readonly children: ReactNode }) {
  return (
    <Page>
      <Box as="main">
        <Mark>
          <img src="/awl.svg" alt="" width={30} height={30} />
          <h1>Kneecap Awl</h1>
        </Mark>
        {children}
      </Box>
    </Page>
  )
}

const Page = styled.div`
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 20px;
`
const Box = styled(Card)`
  width: min(400px, 100%);
  padding: 28px;
  display: grid;
  gap: 18px;
`
const Mark = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  h1 {
    font-size: 24px;
  }
`
