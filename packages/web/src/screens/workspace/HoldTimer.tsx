import { useEffect, useState } from 'react'
import { Timer } from 'lucide-react'
import { Button } from '../../parts/controls'

interface Props {
  /** How long it is held before a negative result counts. */
  readonly seconds: number
  readonly isDisabled: boolean
  /** @param seconds how long it was held, whole */
  readonly onHeld: (seconds: number) => void
}

const TICK_MS = 250

/** Counts the seconds that a test is held: pressed once it begins, pressed again when it ends or hurts. */
export function HoldTimer({ seconds, isDisabled, onHeld }: Props) {
  const [since, setSince] = useState<number>()
  const [now, setNow] = useState(0)
  useEffect(() => {
    if (since === undefined) return
    const timer = setInterval(() => setNow(performance.now()), TICK_MS)
    return () => clearInterval(timer)
  }, [since])
  const held = since === undefined ? 0 : Math.max(0, Math.floor((now - since) / 1000))
  const start = (): void => {
    setSince(performance.now())
    setNow(performance.now())
  }
  const stop = (): void => {
    setSince(undefined)
    onHeld(held)
  }
  return (
    <Button isDisabled={isDisabled} onPress={since === undefined ? start : stop}>
      <Timer size={14} aria-hidden /> {since === undefined ? `Time ${seconds} s` : `Stop at ${held} of ${seconds} s`}
    </Button>
  )
}
