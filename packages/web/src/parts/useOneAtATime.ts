import { useRef } from 'react'

/** Runs one thing at a time: a second press while the first is on its way does nothing, so it makes no second referral or joint. */
export function useOneAtATime(): (work: () => Promise<void>) => Promise<void> {
  const isBusy = useRef(false)
  return async (work) => {
    if (isBusy.current) return
    isBusy.current = true
    try {
      await work()
    } finally {
      isBusy.current = false
    }
  }
}
