import { Button as AriaButton, Input as AriaInput, ToggleButton as AriaToggle, ToggleButtonGroup } from 'react-aria-components'
import styled, { css } from 'styled-components'
import { MONO } from '../theme/GlobalStyle'

const press = css`
  cursor: pointer;
  min-height: 32px;
  padding: 0 12px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  &[data-hovered] {
    border-color: ${({ theme }) => theme.soft};
  }
  &[data-pressed] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
    outline-offset: 1px;
  }
  &[data-disabled] {
    cursor: not-allowed;
  }
  &[data-disabled]:not([data-selected]) {
    opacity: 0.5;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`

export const Button = styled(AriaButton)<{ $tone?: 'plain' | 'copper' | 'quiet' }>`
  ${press}
  white-space: nowrap;
  ${({ $tone, theme }) =>
    $tone === 'copper' &&
    css`
      background: ${theme.copper};
      color: ${theme.onCopper};
      border-color: ${theme.copper};
      font-weight: 650;
      &[data-pressed] {
        background: ${theme.copper};
      }
    `}
  ${({ $tone }) =>
    $tone === 'quiet' &&
    css`
      border-color: transparent;
      background: transparent;
      padding: 0 8px;
    `}
`

/** A press that reads like a link: opens the rest of a list, goes to a row. */
export const LinkButton = styled(AriaButton)`
  padding: 0 2px;
  min-height: 24px;
  border: none;
  background: none;
  color: inherit;
  text-align: left;
  text-decoration: underline;
  text-decoration-color: ${({ theme }) => theme.soft};
  cursor: pointer;
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
    outline-offset: 1px;
  }
`

/** A choice in a row. Normal answers fill with ink, abnormal ones with copper. */
export const Toggle = styled(AriaToggle)<{ $abnormal?: boolean }>`
  ${press}
  padding: 0 9px;
  &[data-selected] {
    background: ${({ theme, $abnormal }) => ($abnormal ? theme.copper : theme.ink)};
    border-color: ${({ theme, $abnormal }) => ($abnormal ? theme.copper : theme.ink)};
    color: ${({ theme, $abnormal }) => ($abnormal ? theme.onCopper : theme.onInk)};
  }
`

export const Input = styled(AriaInput)<{ $mono?: boolean }>`
  min-height: 34px;
  width: 100%;
  padding: 0 10px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  ${({ $mono }) =>
    $mono &&
    css`
      font-family: ${MONO};
      font-variant-numeric: tabular-nums;
    `}
  &[data-focused] {
    outline: 2px solid ${({ theme }) => theme.copper};
    outline-offset: 0;
  }
  &[aria-invalid='true'] {
    border-color: ${({ theme }) => theme.copper};
  }
`

export const Card = styled.section`
  background: ${({ theme }) => theme.sheet};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
`
export const SmallTitle = styled.h2`
  font-size: 12px;
  font-weight: 650;
  color: ${({ theme }) => theme.soft};
  letter-spacing: 0.01em;
`
/** Heads one section of a sheet. */
export const SectionTitle = styled(SmallTitle)`
  margin: 20px 0 6px;
`
export const Soft = styled.span`
  color: ${({ theme }) => theme.soft};
  font-size: 12px;
`
export const Reading = styled.span`
  font-family: ${MONO};
  font-variant-numeric: tabular-nums;
`
/** Toggles side by side, of which one or several are chosen. */
export const ToggleRow = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`

/** Takes a file away: looks as a button does, and is a link. */
export const Download = styled.a`
  display: inline-flex;
  align-items: center;
  min-height: 32px;
  padding: 0 12px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
  background: ${({ theme }) => theme.sheet};
  text-decoration: none;
`
