type Listener = () => void

/** Something that happens to the session, told to whoever listens. */
function happening(): { readonly tell: () => void; readonly listen: (listener: Listener) => () => void } {
  const listeners = new Set<Listener>()
  return {
    tell: () => listeners.forEach((listener) => listener()),
    listen: (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
}

/** The server no longer knows who is signed in. */
export const signedOut = happening()
/** Somebody signed in again: what waits may be sent. */
export const signedIn = happening()
