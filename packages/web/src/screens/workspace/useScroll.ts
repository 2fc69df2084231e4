import { useCallback } from 'react'

const keyOf = (place: string): string => `awl-scroll ${place}`

/** Keeps how far a place is scrolled, over reloads, back and forward. @returns what the scrolling element is given as its ref */
export function useScroll(place: string): (element: HTMLElement | null) => (() => void) | undefined {
  return useCallback(
    (element) => {
      if (!element) return undefined
      element.scrollTop = Number(sessionStorage.getItem(keyOf(place)) ?? 0)
      const keep = (): void => sessionStorage.setItem(keyOf(place), String(Math.round(element.scrollTop)))
      element.addEventListener('scroll', keep, { passive: true })
      return () => element.removeEventListener('scroll', keep)
    },
    [place],
  )
}
