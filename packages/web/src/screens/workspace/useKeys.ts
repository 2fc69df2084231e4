import { useEffect } from 'react'

/** Keys of the workspace. They rest while something is being typed or a dialogue is open. */
export function useKeys(keys: Readonly<Record<string, (event: KeyboardEvent) => void>>, isActive: boolean): void {
  useEffect(() => {
    if (!isActive) return
    const listen = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      const action = keys[event.key] ?? (/^[0-9]$/.test(event.key) ? keys.digit : undefined)
      if (!action) return
      event.preventDefault()
      action(event)
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [keys, isActive])
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (['INPUT', 'TEXTAREA'].includes(target.tagName) || target.closest('[role=dialog],[role=menu],[role=listbox]') !== null)
