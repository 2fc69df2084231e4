import { useMemo, useState, type KeyboardEvent } from 'react'
import { ComboBox, Input as AriaInput, ListBox, ListBoxItem, Popover } from 'react-aria-components'
import type { Item, LibraryEntry } from '@kneecap-awl/core'
import styled from 'styled-components'
import { findEntries, searchIndex } from '../../parts/librarySearch'

const MOST_SHOWN = 12
const NO_FILTER = { kind: '', region: '', stage: '', position: '', tier: '' }

/** On-demand items are a search away, misspelt or under another name: what is picked slides into its stop. Enter takes the first. */
export function FindItem({ items, onPick }: { readonly items: readonly Item[]; readonly onPick: (item: string) => void }) {
  // A new round after each pick: the list closes and the field is empty again.
  const [round, setRound] = useState(0)
  const [text, setText] = useState('')
  const entries = useMemo(() => items.map(asEntry), [items])
  const index = useMemo(() => searchIndex(entries), [entries])
  const found = useMemo(
    () => (text.trim() === '' ? [] : findEntries(entries, index, { ...NO_FILTER, search: text }).slice(0, MOST_SHOWN)),
    [entries, index, text],
  )
  const pick = (key: string): void => {
    onPick(key)
    setText('')
    setRound(round + 1)
  }
  const onEnter = (event: KeyboardEvent<HTMLInputElement>): void => {
    const [first] = found
    if (event.key === 'Enter' && first && !event.currentTarget.hasAttribute('aria-activedescendant')) pick(first.id)
  }
  return (
    <ComboBox
      key={round}
      aria-label="Find another test or item"
      menuTrigger="input"
      inputValue={text}
      onInputChange={setText}
      defaultFilter={() => true}
      allowsEmptyCollection
      value={null}
      onChange={(key) => key !== null && pick(String(key))}
    >
      <Field placeholder="Find another test…" onKeyDown={onEnter} />
      <Pop>
        <ListBox
          items={found}
          renderEmptyState={() => <Nothing>{text.trim() === '' ? 'By its name, also misspelt.' : 'No test or item of that name here.'}</Nothing>}
        >
          {(entry) => (
            <Choice id={entry.id} textValue={entry.label}>
              {entry.label} <small>{[entry.also, entry.stage].filter(Boolean).join(' · ')}</small>
            </Choice>
          )}
        </ListBox>
      </Pop>
    </ComboBox>
  )
}

const asEntry = ({ id, label, also, structure, hint, stage, technique }: Item): LibraryEntry => ({
  kind: technique.length > 0 ? 'test' : 'item',
  id,
  label,
  regions: [],
  stage,
  also: also.join(', '),
  words: [structure, hint, stage].filter(Boolean).join(' '),
})

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
const Nothing = styled.p`
  padding: 6px 10px;
  color: ${({ theme }) => theme.soft};
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
