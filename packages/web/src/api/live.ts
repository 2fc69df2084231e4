import type { QueryClient, QueryKey } from '@tanstack/react-query'
import { live, type Change } from '@kneecap-awl/contract'
import { holding } from '../record/holding'
import { signedIn } from './signedOut'

/** Lists are read anew no more often than that, however much is recorded at other desks. */
const LISTS_MS = 5000
/** Where the stream was refused, as by a server that is being changed over, it is asked for again after so long. */
const AGAIN_MS = 10_000
const NAME = 'kneecap-awl.live'

let isOpen = false
/** How often a list asks by itself: not at all while changes are heard. */
export const unlessHeard = (): number | false => (isOpen ? false : 60_000)

/** What the window that listens tells the others: a change, or whether it hears any. */
type Told = { readonly change: Change } | { readonly isOpen: boolean } | { readonly asks: true }

/**
 * Reads anew what the server says has changed, for as long as somebody is signed in. Of several windows one listens and tells the others: a browser
 * holds few connections to one server, and each stream takes one for good.
 * @returns how it ends
 */
export function hearChanges(client: QueryClient): () => void {
  const others = new BroadcastChannel(NAME)
  const end = new AbortController()
  let isListening = false
  let lists: ReturnType<typeof setTimeout> | undefined
  const readLists = (): void => {
    lists ??= setTimeout(() => {
      lists = undefined
      for (const queryKey of [['desk'], ['referrals']]) void client.invalidateQueries({ queryKey })
    }, LISTS_MS)
  }
  const hear = (change: Change): void => {
    for (const queryKey of changedBy(change)) void client.invalidateQueries({ queryKey })
    readLists()
  }
  const tell = (told: Told): void => others.postMessage(told)
  others.onmessage = ({ data }: MessageEvent<Told>) => {
    if ('change' in data) hear(data.change)
    else if ('isOpen' in data) isOpen = data.isOpen
    else if (isListening) tell({ isOpen })
  }
  tell({ asks: true })
  const listen = (): Promise<void> => {
    isListening = true
    return listening(
      end.signal,
      (change) => {
        hear(change)
        tell({ change })
      },
      (now) => {
        isOpen = now
        tell({ isOpen })
      },
    )
  }
  // Without TLS, and away from this machine, a browser has no such locks: then every window listens for itself.
  if ('locks' in navigator) navigator.locks.request(NAME, { signal: end.signal }, listen).catch(() => undefined)
  else void listen()
  return () => {
    end.abort()
    clearTimeout(lists)
    others.close()
    isOpen = false
  }
}

/** Hears the server until it is ended. */
function listening(end: AbortSignal, hear: (change: Change) => void, say: (isOpen: boolean) => void): Promise<void> {
  let source: EventSource | undefined
  let again: ReturnType<typeof setTimeout> | undefined
  const open = (): void => {
    clearTimeout(again)
    source?.close()
    source = new EventSource(live.liveChanges.url)
    source.onopen = () => say(true)
    source.onmessage = ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as Change)
    source.onerror = () => {
      say(false)
      // The browser tries again by itself what was cut off; what was refused it leaves.
      if (source?.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MS)
    }
  }
  return new Promise((resolve) => {
    open()
    const endSignedIn = signedIn.listen(open)
    end.addEventListener('abort', () => {
      endSignedIn()
      clearTimeout(again)
      source?.close()
      resolve()
    })
  })
}

/** What was read of it before, besides the lists. */
function changedBy({ what, id = '', entries }: Change): readonly QueryKey[] {
  if (what === 'patient') return [['patient', id]]
  if (what === 'entries') return entries !== undefined && holding.has(id, entries) ? [] : [['examination', id]]
  if (what === 'examination') return [['examination', id], ['patient']]
  if (what === 'all') return [['examination'], ['patient']]
  return what === 'referral' ? [['examination']] : []
}
