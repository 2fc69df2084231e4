import { useState } from 'react'
import { ComboBox, Input as AriaInput, ListBox, ListBoxItem, Popover } from 'react-aria-components'
import type { Item } from '@kneecap-awl/core'
import styled from 'styled-components'

/** On-demand items are a search away: what is picked slides into its stop. */
export function FindItem({ items, onPick }: { readonly items: readonly Item[]; readonly onPick: (item: string) => void }) {
  // A new round after each pick: the list closes and the field is empty again.
  const [round, setRound] = useState(0)
  const pick = (key: string): void => {
    onPick(key)
    setRound(round + 1)
  }
  return (
    <ComboBox key={round} aria-label="Find another test or item" menuTrigger="input" value={null} onChange={(key) => key !== null && pick(String(key))}>
      <Field placeholder="Find another test…" />
      <Pop>
        <ListBox items={items}>
          {(item) => (
            <Choice id={item.id} textValue={[item.label, ...item.also, item.structure].filter(Boolean).join(' ')}>
              {item.label} <small>{item.stage}</small>
            </Choice>
          )}
        </ListBox>
      </Pop>
    </ComboBox>
  )
}

const Field = styled(AriaInput)`
  width: 190px;
  min-height: 32px;
  padding: 0 10px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  &::placeholder {
    color: ${({ theme }) => theme.soft};
    opacity: 1;
  }
`
const Pop = styled(Popover)`
  width: 300px;
  max-height: 320px;
  overflow: auto;
  padding: 4px;
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
`
const Choice = styled(ListBoxItem)`
  padding: 6px 10px;
  border-radius: 6px;
  cursor: pointer;
  small {
    color: ${({ theme }) => theme.soft};
  }
  &[data-focused] {
    background: ${({ theme }) => theme.selection};
    outline: none;
  }
`
