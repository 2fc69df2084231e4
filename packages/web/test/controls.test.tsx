// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/react'
import { ThemeProvider } from 'styled-components'
import type { ReactNode } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { cleanup } from '@testing-library/react'
import { PunchedStrip, rangeWords } from '../src/parts/PunchedStrip'
import { NumberBox } from '../src/screens/workspace/NumberBox'
import { LIGHT } from '../src/theme/tokens'

const show = (what: ReactNode) => render(<ThemeProvider theme={LIGHT}>{what}</ThemeProvider>)
afterEach(cleanup)

describe('the punched strip', () => {
  it('says its range in words, so that priority is never colour alone', () => {
    show(<PunchedStrip floor="days" ceiling="now" />)
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe('Priority: Not settled: Days to Now')
    expect([rangeWords('here', 'here'), rangeWords('here', 'now')]).toEqual(['Here', 'Not settled: Here to Now'])
  })
})

describe('a reading', () => {
  const box = (onSet: (value: number) => void) =>
    show(<NumberBox label="Bend, right" unit="°" min={0} max={170} value={undefined} isDisabled={false} onSet={onSet} />)
  const enter = (text: string): void => {
    const input = screen.getByLabelText('Bend, right')
    fireEvent.change(input, { target: { value: text } })
    fireEvent.blur(input)
  }
  it('takes a number with a decimal comma', () => {
    const onSet = vi.fn()
    box(onSet)
    enter('95,5')
    expect(onSet).toHaveBeenCalledWith(95.5)
  })
  it.each(['400', '-3', 'much'])('refuses %s, says what is wanted and stores nothing', (text) => {
    const onSet = vi.fn()
    box(onSet)
    enter(text)
    expect(onSet).not.toHaveBeenCalled()
    expect(screen.getByRole('alert').textContent).toBe('wanted: 0 to 170°')
  })
  it('stores nothing when it is left empty', () => {
    const onSet = vi.fn()
    box(onSet)
    enter('')
    expect(onSet).not.toHaveBeenCalled()
    expect(screen.queryByRole('alert')).toBeNull()
  })
})
