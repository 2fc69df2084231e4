import { useEffect } from 'react'

type Action = (event: KeyboardEvent) => void

/** Keys that may be held down: they only look. */
const REPEATED = ['ArrowDown', 'ArrowUp', 'n', 'p']

/**
 * Keys of the workspace, by what they type on whatever layout. They rest while something is being typed or a dialogue is open. A key that is
 * held down records once. They are heard before any control: a letter must not pick a word in a list that happens to have the focus.
 */
export function useKeys(keys: Readonly<Record<string, Action>>, isActive: boolean): void {
  useEffect(() => {
    if (!isActive) return
    const listen = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || isTyping(event.target)) return
      const action = keys[event.key] ?? (/^[0-9]$/.test(event.key) ? keys.digit : undefined)
      if (!action) return
      event.preventDefault()
      event.stopPropagation()
      if (!event.repeat || REPEATED.includes(event.key)) action(event)
    }
    window.addEventListener('keydown', listen, true)
    return () => window.removeEventListener('keydown', listen, true)
  }, [keys, isActive])
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (['INPUT', 'TEXTAREA'].includes(target.tagName) || target.closest('[role=dialog],[role=menu],[role=listbox]') !== null)
