import type { ReactNode } from 'react'
import type { Letter } from '@kneecap-awl/core'
import styled from 'styled-components'

/** The letter as it will go, and what its reader wants beyond what the record holds. */
export function LetterPane({ letter, children }: { readonly letter: Letter; readonly children: ReactNode }) {
  return (
    <Pane aria-label="Letter">
      <h2>Letter to {letter.to}</h2>
      {letter.paragraphs.map((paragraph) => (
        <p key={paragraph.heading}>
          <strong>{paragraph.heading}.</strong> {paragraph.text}
        </p>
      ))}
      {letter.missing.length > 0 && <Wants>This destination also wants: {letter.missing.join(', ')}.</Wants>}
      {children}
    </Pane>
  )
}

const Pane = styled.aside`
  display: grid;
  align-content: start;
  gap: 12px;
  padding: 20px 22px;
  background: ${({ theme }) => theme.sheet};
  border-left: 1px solid ${({ theme }) => theme.rule};
  h2 {
    font-size: 18px;
  }
  @media print {
    border: none;
    padding: 0;
    break-before: page;
  }
`
const Wants = styled.p`
  padding: 8px 12px;
  border-radius: 8px;
  background: ${({ theme }) => theme.copperWash};
`
