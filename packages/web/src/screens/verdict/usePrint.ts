import { useEffect, useState } from 'react'

export type Printed = 'all' | 'note' | 'letter'

/** Prints the whole sheet, or the note or the letter by itself: the page is laid out for it first, and back afterwards. */
export function usePrint(): { readonly printed: Printed; readonly print: (what: Printed) => void } {
  const [asked, setAsked] = useState<{ readonly what: Printed }>()
  useEffect(() => {
    if (!asked) return
    const end = (): void => setAsked(undefined)
    window.addEventListener('afterprint', end)
    window.print()
    return () => window.removeEventListener('afterprint', end)
  }, [asked])
  return { printed: asked?.what ?? 'all', print: (what) => setAsked({ what }) }
}
