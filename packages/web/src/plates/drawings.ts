import { useQuery } from '@tanstack/react-query'

/** Each drawing is fetched when a plate that shows it opens. */
const DRAWINGS = import.meta.glob<string>('../../../../content/plates/*.svg', { query: '?raw', import: 'default' })

/** @returns the drawing as SVG, undefined while it is on its way or where this version has none of that name */
export function useDrawing(name: string): string | undefined {
  const { data } = useQuery({
    queryKey: ['drawing', name],
    queryFn: () => DRAWINGS[`../../../../content/plates/${name}.svg`]?.() ?? '',
    staleTime: Infinity,
    gcTime: Infinity,
  })
  return data
}
