import { createContext, useContext } from 'react'

/** The way to change between day and night, given once at the top. */
export const ThemeToggle = createContext<() => void>(() => undefined)
export const useThemeToggle = (): (() => void) => useContext(ThemeToggle)
