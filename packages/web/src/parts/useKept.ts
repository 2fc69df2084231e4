import { useState } from 'react'

/** A choice of whoever works at this device: what was chosen last stays there; undefined is the usual and is not kept. */
export function useKept(key: string): readonly [kept: string | undefined, keep: (value: string | undefined) => void] {
  const [kept, setKept] = useState(() => localStorage.getItem(key) ?? undefined)
  const keep = (value: string | undefined): void => {
    if (value === undefined) localStorage.removeItem(key)
    else localStorage.setItem(key, value)
    setKept(value)
  }
  return [kept, keep]
}
