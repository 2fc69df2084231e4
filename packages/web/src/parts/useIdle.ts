import { useEffect } from 'react'

const SIGNS = ['pointerdown', 'pointermove', 'keydown', 'wheel', 'touchstart'] as const
const LOOK_MS = 10_000

/** Calls once nobody has touched key, pointer or screen for so long. */
export function useIdle(minutes: number, onIdle: () => void): void {
  useEffect(() => {
    let last = Date.now()
    const seen = (): void => {
      last = Date.now()
    }
    for (const sign of SIGNS) window.addEventListener(sign, seen, { passive: true, capture: true })
    const watch = setInterval(() => {
      if (Date.now() - last < minutes * 60_000) return
      seen()
      onIdle()
    }, LOOK_MS)
    return () => {
      clearInterval(watch)
      for (const sign of SIGNS) window.removeEventListener(sign, seen, { capture: true })
    }
  }, [minutes, onIdle])
}
