import { useState } from 'react'
import styled from 'styled-components'
import { LinkButton } from './controls'

const FEW = 8

/** Names in a row; the rest of a long list comes by a press, and stands on paper anyway. */
export function NameList({ names }: { readonly names: readonly string[] }) {
  const [isOpen, setOpen] = useState(false)
  const rest = names.slice(FEW)
  return (
    <>
      {names.slice(0, FEW).join('; ')}
      {rest.length > 0 && <Rest $isOpen={isOpen}>; {rest.join('; ')}</Rest>}
      {rest.length > 0 && ' '}
      {rest.length > 0 && (
        <LinkButton aria-expanded={isOpen} onPress={() => setOpen(!isOpen)}>
          {isOpen ? 'fewer' : `and ${rest.length} more`}
        </LinkButton>
      )}
    </>
  )
}

const Rest = styled.span<{ $isOpen: boolean }>`
  display: ${({ $isOpen }) => ($isOpen ? 'inline' : 'none')};
  @media print {
    display: inline;
  }
`
