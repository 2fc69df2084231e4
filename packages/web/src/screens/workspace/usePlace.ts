import { useCallback, useEffect, useState } from 'react'
import { useLocation, useSearchParams } from 'react-router'

export interface Place {
  readonly stop: string
  readonly row: string
}

const FIRST = 'story'
/** The address follows the row in hand once it has come to rest: it is changed for reloads, not for every key. */
const REST_MS = 250

/** Which stop and row are in hand. Both stand in the address, so that a reload, back and forward come to the same place. */
export function usePlace(): { readonly place: Place; readonly goStop: (stop: string) => void; readonly goRow: (row: string, stop?: string) => void } {
  const [params, setParams] = useSearchParams()
  const { state } = useLocation() as { state: unknown }
  const told = { stop: params.get('stop') ?? FIRST, row: params.get('row') ?? '' }
  const [place, setPlace] = useState<Place>(told)
  const [seen, setSeen] = useState(params)
  // Back and forward change the address first; everything else changes the place first.
  if (seen !== params) {
    setSeen(params)
    if (told.stop !== place.stop) setPlace(told)
  }
  // Written past the router: nothing on the screen depends on it, and a reload, back and forward read it from the address.
  useEffect(() => {
    const timer = setTimeout(() => {
      const url = new URL(window.location.href)
      if (place.row === '' || url.searchParams.get('stop') !== place.stop || url.searchParams.get('row') === place.row) return
      url.searchParams.set('row', place.row)
      window.history.replaceState(window.history.state, '', url)
    }, REST_MS)
    return () => clearTimeout(timer)
  }, [place])
  const goStop = useCallback(
    (stop: string) => {
      setPlace({ stop, row: '' })
      setParams(asParams({ stop, row: '' }), { state })
    },
    [setParams, state],
  )
  const goRow = useCallback(
    (row: string, stop?: string) => {
      setPlace((now) => (now.row === row && (stop === undefined || stop === now.stop) ? now : { stop: stop ?? now.stop, row }))
      if (stop !== undefined && stop !== place.stop) setParams(asParams({ stop, row }), { state })
    },
    [place.stop, setParams, state],
  )
  return { place, goStop, goRow }
}

const asParams = ({ stop, row }: Place): Record<string, string> => ({ stop, ...(row === '' ? {} : { row }) })
