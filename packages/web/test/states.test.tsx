// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { ApiProblem } from '../src/api/http'
import { Loaded, type Asked } from '../src/parts/Loaded'
import { pageRule } from '../src/parts/PrintPage'
import { show } from './show.js'

afterEach(cleanup)

describe('what a screen knows', () => {
  const query = (more: Partial<Asked<readonly string[]>>): Asked<readonly string[]> => ({
    data: undefined,
    error: null,
    isError: false,
    isFetching: false,
    dataUpdatedAt: Date.parse('2026-03-10T09:30:00'),
    refetch: () => Promise.resolve(),
    ...more,
  })
  const drafts = (asked: Asked<readonly string[]>) =>
    show(
      <Loaded query={asked} what="the drafts">
        {(list) => <p>{list.length === 0 ? 'No draft is open.' : list.join()}</p>}
      </Loaded>,
    )
  it('says that it is reading, and not that there is nothing', () => {
    drafts(query({}))
    expect(screen.getByRole('status').textContent).toBe('Reading the drafts…')
    expect(screen.queryByText('No draft is open.')).toBeNull()
  })
  it('says that there is nothing only once it was read', () => {
    drafts(query({ data: [] }))
    expect(screen.getByText('No draft is open.')).toBeTruthy()
  })
  it.each<[string, Error, RegExp]>([
    ['the server is not there', new TypeError('failed'), /could not be read\. The server cannot be reached/],
    ['the database is lost', new ApiProblem(503, 'The database cannot be reached just now.'), /could not be read\. The database cannot be reached/],
    ['the session has ended', new ApiProblem(401, 'Sign in first.'), /You are signed out: sign in again/],
  ])('says what failed when %s, and offers to try again', (_what, error, words) => {
    const refetch = vi.fn(() => Promise.resolve())
    drafts(query({ isError: true, error, refetch }))
    expect(screen.getByRole('alert').textContent).toMatch(words)
    fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
    expect(refetch).toHaveBeenCalled()
  })
  it('shows what it had with its age when it cannot be read again', () => {
    drafts(query({ data: ['Odile Marsh'], isError: true, error: new TypeError('failed') }))
    expect(screen.getByText('Odile Marsh')).toBeTruthy()
    expect(screen.getByRole('status').textContent).toMatch(/The drafts as of 09:30/)
  })
})

describe('a printed page', () => {
  it('bears who, state and which page of how many, and no name ends its style', () => {
    const rule = pageRule({ about: 'Odd "} </style> \\ name, born 1 Jan 1980', state: 'DRAFT, not signed', foot: 'Saltgate House' })
    expect(rule).toContain('counter(page) " of " counter(pages)')
    expect(rule).toContain('"DRAFT, not signed"')
    expect(rule).toContain('"Odd \\22 \\7d  \\3c /style\\3e  \\5c  name, born 1 Jan 1980"')
  })
})
