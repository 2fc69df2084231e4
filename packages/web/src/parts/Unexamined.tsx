import { useState } from 'react'
import type { UnexaminedStop } from '@kneecap-awl/core'
import styled from 'styled-components'
import { LinkButton, SmallTitle } from './controls'

/** Every core item that nobody examined, stop by stop; opened by a press, and always whole on paper, where nothing can be pressed. */
export function Unexamined({ unexamined, onGo }: { readonly unexamined: readonly UnexaminedStop[]; readonly onGo?: (item: string) => void }) {
  const [isOpen, setOpen] = useState(false)
  const count = unexamined.reduce((sum, stop) => sum + stop.items.length, 0)
  if (count === 0) return null
  return (
    <section aria-label="Core not examined">
      <LinkButton aria-expanded={isOpen} onPress={() => setOpen(!isOpen)} data-screen-only>
        {isOpen ? 'Close: ' : ''}
        {count} of the core not examined
      </LinkButton>
      <List $isOpen={isOpen}>
        {unexamined.map((stop) => (
          <div key={stop.stop}>
            <SmallTitle as="dt">{stop.title}</SmallTitle>
            <dd>
              {stop.items.map((item, at) => {
                const words = `${item.label}${item.sides.length === 1 && item.sides[0] !== 'none' ? `, ${item.sides[0] ?? ''}` : ''}`
                return (
                  <span key={item.id}>
                    {at > 0 && '; '}
                    {onGo && isOpen ? <LinkButton onPress={() => onGo(item.id)}>{words}</LinkButton> : words}
                  </span>
                )
              })}
            </dd>
          </div>
        ))}
      </List>
    </section>
  )
}

const List = styled.dl<{ $isOpen: boolean }>`
  display: ${({ $isOpen }) => ($isOpen ? 'grid' : 'none')};
  gap: 6px;
  dd {
    margin: 0;
  }
  @media print {
    display: grid;
  }
`
