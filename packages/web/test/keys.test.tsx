// @vitest-environment jsdom
import { cleanup, fireEvent, renderHook, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Picker } from '../src/parts/Picker'
import { useKeys } from '../src/screens/workspace/useKeys'
import { show } from './show.js'

afterEach(cleanup)

describe('keys of the workspace', () => {
  it.each([
    ['a full stop', { key: '.', code: 'Period' }],
    ['a full stop where it is typed with Shift', { key: '.', shiftKey: true, code: 'Comma' }],
    ['"greater than" on a key of its own', { key: '>', code: 'IntlBackslash', shiftKey: true }],
    ['a digit typed with Shift', { key: '2', shiftKey: true, code: 'Digit2' }],
  ])('hear %s by what is typed', (_what, event) => {
    const heard = vi.fn()
    renderHook(() => useKeys({ '.': heard, '>': heard, digit: heard }, true))
    fireEvent.keyDown(window, event)
    expect(heard).toHaveBeenCalledTimes(1)
  })
  it('record once however long they are held', () => {
    const [normal, down] = [vi.fn(), vi.fn()]
    renderHook(() => useKeys({ '.': normal, ArrowDown: down }, true))
    for (const key of ['.', 'ArrowDown']) {
      fireEvent.keyDown(window, { key, code: key })
      for (let at = 0; at < 5; at++) fireEvent.keyDown(window, { key, code: key, repeat: true })
    }
    expect([normal.mock.calls.length, down.mock.calls.length]).toEqual([1, 6])
  })
  it('never pick a word in a list that happens to have the focus', () => {
    const [next, onPick] = [vi.fn(), vi.fn()]
    renderHook(() => useKeys({ n: next }, true))
    show(<Picker label="Pulse" options={['normal', 'reduced']} value={undefined} onPick={onPick} />)
    const trigger = screen.getByRole('button', { name: /Pulse/ })
    trigger.focus()
    fireEvent.keyDown(trigger, { key: 'n', code: 'KeyN' })
    expect([next.mock.calls.length, onPick.mock.calls.length]).toEqual([1, 0])
  })
})
