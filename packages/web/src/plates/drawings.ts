import { useQuery } from '@tanstack/react-query'
import { PLATE } from '@kneecap-awl/core'
import { css } from 'styled-components'

/** Each drawing is fetched when a plate that shows it opens. */
const DRAWINGS = import.meta.glob<string>('../../../../content/plates/*.svg', { query: '?raw', import: 'default' })

interface Part {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export const WHOLE: Part = { x: 0, y: 0, ...PLATE }
const viewBox = ({ x, y, width, height }: Part): string => `viewBox="${x} ${y} ${width} ${height}"`

/**
 * @param part what of it is shown, in its units
 * @returns the drawing as SVG, empty while it is on its way or where this version has none of that name
 */
export function useDrawing(name: string, part: Part): string {
  const { data = '' } = useQuery({
    queryKey: ['drawing', name],
    queryFn: () => DRAWINGS[`../../../../content/plates/${name}.svg`]?.() ?? '',
    staleTime: Infinity,
    gcTime: Infinity,
  })
  return data.replace(viewBox(WHOLE), viewBox(part))
}

/** The colours that a drawing names, by the theme. */
export const drawingColours = css`
  --plate-paper: ${({ theme }) => theme.sheet};
  --plate-bone: ${({ theme }) => theme.bone};
  --plate-ink: ${({ theme }) => theme.ink};
  --plate-skin: ${({ theme }) => theme.soft};
  --plate-mark: ${({ theme }) => theme.copper};
`
