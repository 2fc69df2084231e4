import { Button as AriaButton, ListBox, ListBoxItem, Menu, MenuItem, MenuTrigger, Popover, Select, SelectValue } from 'react-aria-components'
import { Check, ChevronDown } from 'lucide-react'
import styled from 'styled-components'

interface Common {
  readonly label: string
  readonly options: readonly string[]
  readonly words?: (option: string) => string
  readonly placeholder?: string
  readonly abnormal?: boolean
  readonly isDisabled?: boolean
  /** True for a choice that is not itself a finding (a unit). */
  readonly isPlain?: boolean
}

/** One of several words. */
export function Picker({
  label,
  options,
  words = String,
  placeholder = 'other…',
  value,
  onPick,
  abnormal = false,
  isDisabled = false,
  isPlain = false,
}: Common & { readonly value: string | undefined; readonly onPick: (value: string) => void }) {
  return (
    <Select aria-label={label} placeholder={placeholder} value={value ?? null} onChange={(key) => key !== null && onPick(String(key))} isDisabled={isDisabled}>
      <Trigger $filled={value !== undefined && !isPlain} $abnormal={abnormal}>
        <SelectValue />
        <ChevronDown size={14} aria-hidden />
      </Trigger>
      <Pop>
        <ListBox>
          {options.map((option) => (
            <Choice key={option} id={option} textValue={words(option)}>
              {words(option)}
            </Choice>
          ))}
        </ListBox>
      </Pop>
    </Select>
  )
}

/** Several words at once; the empty one stands alone. */
export function MultiPicker({
  label,
  options,
  empty,
  values,
  onPick,
  placeholder = 'tick…',
  abnormal = false,
  isDisabled = false,
}: Common & { readonly empty: string | undefined; readonly values: readonly string[]; readonly onPick: (values: string[]) => void }) {
  const told = values.filter((value) => value !== empty)
  return (
    <MenuTrigger>
      <Trigger $filled={told.length > 0} $abnormal={abnormal} isDisabled={isDisabled} aria-label={`${label}: ${told.join(', ') || 'nothing ticked'}`}>
        <span>{told.length > 0 ? told.join(', ') : placeholder}</span>
        <ChevronDown size={14} aria-hidden />
      </Trigger>
      <Pop>
        <Menu
          aria-label={label}
          selectionMode="multiple"
          selectedKeys={told}
          onSelectionChange={(keys) => {
            const picked = keys === 'all' ? [...options] : options.filter((option) => keys.has(option) && option !== empty)
            onPick(picked.length > 0 ? picked : empty === undefined ? [] : [empty])
          }}
        >
          {options
            .filter((option) => option !== empty)
            .map((option) => (
              <Tick key={option} id={option} textValue={option}>
                {({ isSelected }) => (
                  <>
                    <Check size={14} aria-hidden style={{ visibility: isSelected ? 'visible' : 'hidden' }} /> {option}
                  </>
                )}
              </Tick>
            ))}
        </Menu>
      </Pop>
    </MenuTrigger>
  )
}

const Trigger = styled(AriaButton)<{ $filled: boolean; $abnormal: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  max-width: 210px;
  min-height: 32px;
  padding: 2px 9px;
  text-align: left;
  line-height: 1.2;
  cursor: pointer;
  border-radius: 8px;
  border: 1px solid ${({ theme, $filled, $abnormal }) => ($filled ? ($abnormal ? theme.copper : theme.ink) : theme.rule)};
  background: ${({ theme, $filled, $abnormal }) => ($filled ? ($abnormal ? theme.copper : theme.ink) : theme.sheet)};
  color: ${({ theme, $filled, $abnormal }) => ($filled ? ($abnormal ? theme.onCopper : theme.onInk) : theme.soft)};
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
    outline-offset: 1px;
  }
  &[data-disabled] {
    opacity: ${({ $filled }) => ($filled ? 1 : 0.5)};
    cursor: not-allowed;
  }
  svg {
    flex: none;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`
const Pop = styled(Popover)`
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
  padding: 4px;
  max-height: 340px;
  overflow: auto;
  box-shadow: 0 8px 24px rgb(0 0 0 / 18%);
`
const Choice = styled(ListBoxItem)`
  padding: 6px 10px;
  border-radius: 6px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.selection};
    outline: none;
  }
  &[data-selected] {
    font-weight: 650;
  }
`
const Tick = styled(MenuItem)`
  padding: 6px 10px;
  border-radius: 6px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.selection};
    outline: none;
  }
  svg {
    vertical-align: -2px;
  }
`
