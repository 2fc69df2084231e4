/** Something that happens to the session, told to whoever listens. */
function happening<T>(): { readonly tell: (what: T) => void; readonly listen: (listener: (what: T) => void) => () => void } {
  const listeners = new Set<(what: T) => void>()
  return {
    tell: (what) => listeners.forEach((listener) => listener(what)),
    listen: (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
}

/** The server no longer knows who is signed in, or waits for the password of who it is. */
export const signedOut = happening<'out' | 'locked'>()
/** Somebody signed in again: what waits may be sent. */
export const signedIn = happening<undefined>()
