import type { ReactNode } from 'react'
import styled from 'styled-components'
import { ApiProblem } from '../api/http'
import { Button, Soft } from './controls'

/** As much of a query as saying its state needs. */
export interface Asked<T> {
  readonly data: T | undefined
  readonly error: Error | null
  readonly isError: boolean
  readonly isFetching: boolean
  readonly dataUpdatedAt: number
  readonly refetch: () => Promise<unknown>
}

/**
 * What a query has: on the way, not to be had, or there. An empty list is said to be empty only once it was read; what could not be read again
 * says how old it is.
 * @param what it reads, as "the drafts"
 */
export function Loaded<T>({ query, what, children }: { readonly query: Asked<T>; readonly what: string; readonly children: (data: T) => ReactNode }) {
  if (query.data === undefined) return query.isError ? <Failed query={query} what={what} /> : <State role="status">Reading {what}…</State>
  return (
    <>
      {query.isError && (
        <Old role="status">
          <span>
            {reasonOf(query.error)} {capital(what)} as of {new Date(query.dataUpdatedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}.
          </span>
          <Again query={query} />
        </Old>
      )}
      {children(query.data)}
    </>
  )
}

function Failed<T>({ query, what }: { readonly query: Asked<T>; readonly what: string }) {
  return (
    <State role="alert">
      <strong>{capital(what)} could not be read.</strong> {reasonOf(query.error)} <Soft>Nothing that was recorded is lost.</Soft>
      <Again query={query} />
    </State>
  )
}

const Again = <T,>({ query }: { readonly query: Asked<T> }) => (
  <Button isDisabled={query.isFetching} onPress={() => void query.refetch()}>
    {query.isFetching ? 'Trying…' : 'Try again'}
  </Button>
)

/** Why, in words: a server that answers says it itself. */
function reasonOf(error: Error | null): string {
  if (!(error instanceof ApiProblem)) return 'The server cannot be reached.'
  return error.status === 401 ? 'You are signed out: sign in again.' : error.message
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

const State = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 14px;
`
const Old = styled(State)`
  justify-content: space-between;
  margin-bottom: 8px;
  border: 1px solid ${({ theme }) => theme.copper};
  border-radius: 8px;
  padding: 6px 12px;
`
