import { memo, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import { ComboBox, Input as AriaInput, ListBox, ListBoxItem, Popover } from 'react-aria-components'
import { leadsTo, libraryIndex, type Item, type LibraryEntry, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import { findEntries, searchIndex } from '../../parts/librarySearch'

const MOST_SHOWN = 12
const NO_FILTER = { kind: '', region: '', stage: '', position: '', tier: '' }
const SOUGHT: readonly LibraryEntry['kind'][] = ['test', 'item', 'flag', 'condition']
const KIND_WORDS: Partial<Record<LibraryEntry['kind'], string>> = { flag: 'flag', condition: 'condition' }

interface Props {
  readonly pack: RegionPack
  /** What can be examined here. */
  readonly items: readonly Item[]
  readonly onPick: (item: string) => void
}

/**
 * The library's search over this joint: a test, an item, a flag or a condition, misspelt, by its abbreviation or under another name. What is
 * picked slides into its stop; a flag or a condition leads to the first item that is examined for it. Enter takes the first, Escape goes back.
 */
export const FindItem = memo(function FindItem({ pack, items, onPick }: Props) {
  // A new round after each pick: the list closes and the field is empty again.
  const [round, setRound] = useState(0)
  const [text, setText] = useState('')
  const before = useRef<Element | null>(null)
  const entries = useMemo(() => soughtOf(pack, items), [pack, items])
  const index = useMemo(() => searchIndex(entries), [entries])
  const found = useMemo(
    () => (text.trim() === '' ? [] : findEntries(entries, index, { ...NO_FILTER, search: text }).slice(0, MOST_SHOWN)),
    [entries, index, text],
  )
  const close = (): void => {
    setText('')
    setRound(round + 1)
  }
  const pick = (key: string): void => {
    const entry = entries.find((one) => keyOf(one) === key)
    const [first] = entry ? leadsTo(pack, entry) : []
    close()
    if (first !== undefined) onPick(first)
  }
  const onKey = (event: KeyboardEvent<HTMLInputElement>): void => {
    const [first] = found
    if (event.key === 'Enter' && first && !event.currentTarget.hasAttribute('aria-activedescendant')) pick(keyOf(first))
    if (event.key !== 'Escape') return
    close()
    // The field is made anew; where the focus came from it goes back to, else to the sheet. Who has gone on meanwhile is not taken back.
    const back =
      before.current instanceof HTMLElement && before.current !== document.body ? before.current : document.querySelector<HTMLElement>('[aria-label="Sheet"]')
    requestAnimationFrame(() => document.activeElement === document.body && back?.focus())
  }
  return (
    <ComboBox
      key={round}
      aria-label="Find a test, item, flag or condition"
      menuTrigger="input"
      inputValue={text}
      onInputChange={setText}
      defaultFilter={() => true}
      allowsEmptyCollection
      value={null}
      onChange={(key) => key !== null && pick(String(key))}
    >
      <Field
        id="find-item"
        placeholder="Find a test or item…"
        onKeyDown={onKey}
        onFocus={(event) => {
          before.current = event.relatedTarget ?? before.current
        }}
      />
      <Pop>
        <ListBox
          items={found.map((entry) => ({ ...entry, id: keyOf(entry) }))}
          renderEmptyState={() => <Nothing>{text.trim() === '' ? 'By its name, an abbreviation, also misspelt.' : 'Nothing of that name here.'}</Nothing>}
        >
          {(entry) => (
            <Choice id={entry.id} textValue={entry.label}>
              {entry.label} <small>{[KIND_WORDS[entry.kind], entry.stage, namedBy(entry, text)].filter(Boolean).join(' · ')}</small>
            </Choice>
          )}
        </ListBox>
      </Pop>
    </ComboBox>
  )
})

const keyOf = ({ kind, id }: LibraryEntry): string => `${kind} ${id}`

/** What can be recorded here, and the flags and conditions that lead to some of it. */
function soughtOf(pack: RegionPack, items: readonly Item[]): readonly LibraryEntry[] {
  const here = new Set(items.map((item) => item.id))
  return libraryIndex(pack).filter(
    (entry) => SOUGHT.includes(entry.kind) && (entry.kind === 'test' || entry.kind === 'item' ? here.has(entry.id) : leadsTo(pack, entry).length > 0),
  )
}

const MOST_LETTERS = 40
/** The other names, as far as they show why it was found. */
function namedBy({ also = '', label }: LibraryEntry, text: string): string {
  const isPlain = label.toLowerCase().includes(text.trim().toLowerCase())
  return isPlain || also === '' ? '' : also.length > MOST_LETTERS ? `${also.slice(0, MOST_LETTERS)}…` : also
}

const Field = styled(AriaInput)`
  width: 176px;
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
  width: 340px;
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
