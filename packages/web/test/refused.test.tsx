// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { RefusedDialogue } from '../src/screens/workspace/RefusedDialogue'
import { entriesFor } from '../../core/test/support.js'
import { show, view } from './show.js'

afterEach(cleanup)

describe('what the server did not take', () => {
  const [calf] = entriesFor({ 'knee.feel.calf right': '1' })
  if (!calf) throw new Error('no entry')
  const acts = { onClose: vi.fn(), onTryAgain: vi.fn(), onSetAside: vi.fn(), onCorrect: vi.fn() }
  const shown = (item: string): void =>
    void show(<RefusedDialogue pack={view('knee')} refused={[{ entry: { ...calf, item }, reason: '"9" is not a value' }]} isOpen {...acts} />)

  it('is shown with its reason, and is corrected on its row, tried again or set aside, each by itself', () => {
    shown(calf.item)
    expect(screen.getByText('"9" is not a value')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Correct' }))
    expect([acts.onCorrect.mock.calls, acts.onSetAside.mock.calls]).toEqual([[[calf.item]], []])
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
    fireEvent.click(screen.getByRole('button', { name: 'Set aside' }))
    expect([acts.onTryAgain.mock.calls, acts.onSetAside.mock.calls]).toEqual([[[[calf.id]]], [[[calf.id]]]])
  })
  it('has no row to be corrected on where the pack knows no such item', () => {
    shown('unreadable')
    expect(screen.queryByRole('button', { name: 'Correct' })).toBeNull()
  })
})
