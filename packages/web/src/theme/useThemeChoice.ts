import { useCallback, useState } from 'react'
import { DARK, LIGHT, type Tokens } from './tokens'

const KEY = 'awl-theme'
const starting = (): Tokens => {
  const kept = localStorage.getItem(KEY)
  if (kept === 'dark' || kept === 'light') return kept === 'dark' ? DARK : LIGHT
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? DARK : LIGHT
}

/** Light by day, dark for night shifts; what was chosen last on this device stays. */
export function useThemeChoice(): { readonly theme: Tokens; readonly toggle: () => void } {
  const [theme, setTheme] = useState(starting)
  const toggle = useCallback(() => {
    setTheme((now) => {
      const next = now.name === 'light' ? DARK : LIGHT
      localStorage.setItem(KEY, next.name)
      return next
    })
  }, [])
  return { theme, toggle }
}
