import { useEffect } from 'react'
import { tinykeys } from 'tinykeys'

type Action = (event: KeyboardEvent) => void

/** Keys that may be held down: they only look. */
const REPEATED = ['ArrowDown', 'ArrowUp', 'n', 'p']

/** On another layout a sign is typed with Shift or Alt: what counts is the sign. */
const typed = (key: string): string => `[Shift]+[Alt]+${key === 'digit' ? String.raw`(\d)` : key}`

/**
 * Keys of the workspace, by what they type on whatever layout. They rest while something is being typed or a dialogue is open. A key that is
 * held down records once. They are heard before any control: a letter must not pick a word in a list that happens to have the focus.
 */
export function useKeys(keys: Readonly<Record<string, Action>>, isActive: boolean): void {
  useEffect(() => {
    if (!isActive) return
    const heard = Object.entries(keys).map(([key, action]): [string, Action] => [
      typed(key),
      (event) => {
        if (isOwn(event)) return
        event.preventDefault()
        event.stopPropagation()
        if (!event.repeat || REPEATED.includes(event.key)) action(event)
      },
    ])
    return tinykeys(window, Object.fromEntries(heard), { capture: true, ignore: ({ target }) => isTyping(target) })
  }, [keys, isActive])
}

/** Arrows and digits on a plate walk and grade its landmarks, not the rows. */
const isOwn = ({ key, target }: KeyboardEvent): boolean =>
  /^(\d|Arrow\w+)$/.test(key) && target instanceof HTMLElement && target.closest('[data-own-keys]') !== null

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (['INPUT', 'TEXTAREA'].includes(target.tagName) || target.closest('[role=dialog],[role=menu],[role=listbox]') !== null)
