import type { QueryClient, QueryKey } from '@tanstack/react-query'
import { live, type Change } from '@kneecap-awl/contract'
import { holding } from '../record/holding'
import { signedIn } from './signedOut'

/** Lists are read anew no more often than that, however much is recorded at other desks. */
const LISTS_MS = 5000
/** Where the stream was refused, as by a server that is being changed over, it is asked for again after so long. */
const AGAIN_MS = 10_000

let isOpen = false
/** How often a list asks by itself: not at all while changes are heard. */
export const unlessHeard = (): number | false => (isOpen ? false : 60_000)

/** Reads anew what the server says has changed, for as long as somebody is signed in. @returns how it ends */
export function hearChanges(client: QueryClient): () => void {
  let source: EventSource | undefined
  let again: ReturnType<typeof setTimeout> | undefined
  let lists: ReturnType<typeof setTimeout> | undefined
  const readLists = (): void => {
    lists ??= setTimeout(() => {
      lists = undefined
      for (const queryKey of [['desk'], ['referrals']]) void client.invalidateQueries({ queryKey })
    }, LISTS_MS)
  }
  const hear = ({ data }: MessageEvent<string>): void => {
    const change = JSON.parse(data) as Change
    for (const queryKey of changedBy(change)) void client.invalidateQueries({ queryKey })
    readLists()
  }
  const open = (): void => {
    clearTimeout(again)
    source?.close()
    source = new EventSource(live.liveChanges.url)
    source.onmessage = hear
    source.onopen = () => {
      isOpen = true
    }
    source.onerror = () => {
      isOpen = false
      // The browser tries again by itself what was cut off; what was refused it leaves.
      if (source?.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MS)
    }
  }
  open()
  const endSignedIn = signedIn.listen(open)
  return () => {
    endSignedIn()
    clearTimeout(again)
    clearTimeout(lists)
    source?.close()
    isOpen = false
  }
}

/** What was read of it before, besides the lists. */
function changedBy({ what, id = '', entries }: Change): readonly QueryKey[] {
  if (what === 'patient') return [['patient', id]]
  if (what === 'entries') return entries !== undefined && holding.has(id, entries) ? [] : [['examination', id]]
  if (what === 'examination') return [['examination', id], ['patient']]
  if (what === 'all') return [['examination'], ['patient']]
  return what === 'referral' ? [['examination']] : []
}
