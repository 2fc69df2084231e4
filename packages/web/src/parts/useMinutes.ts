import { useEffect, useReducer } from 'react'

/** Shows a screen anew every minute: what it says of the time left would else stand still. */
export function useMinutes(): void {
  const [, tick] = useReducer((count: number) => count + 1, 0)
  useEffect(() => {
    const timer = setInterval(tick, 60_000)
    return () => clearInterval(timer)
  }, [])
}
