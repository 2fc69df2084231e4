import type { Side } from '@kneecap-awl/core'
import type { PackSummary } from '../../api/queries'

export type View = 'front' | 'back'

/** A joint as it stands beside the body. */
export interface Joint {
  readonly key: string
  readonly region: string
  readonly name: string
  readonly side: Side
  /** Where it is on the drawing, percent of its width and height. */
  readonly x: number
  readonly y: number
  /** On which side of the body its name stands. */
  readonly column: 'left' | 'right' | 'middle'
  /** How far down its name stands in a column, percent of the figure. */
  readonly top: number
  /** How far across its name stands above the body, percent. */
  readonly at: number
}

/** Names stand from here to there, percent of the figure. */
const FROM = 9
const TO = 97
const MIDDLE = { from: 36, to: 64 }

/** Joints of a view with the place of each name: those of a column from above to below, so that no two lines cross and no two names meet. */
export function placesOf(regions: PackSummary['regions'], view: View): readonly Joint[] {
  const found = regions.flatMap((region) =>
    region.figure
      .filter((point) => point.view === view)
      .flatMap(({ x, y }) =>
        (region.side ? (['right', 'left'] as const) : (['none'] as const)).map((side) => ({
          key: `${region.id} ${side}`,
          region: region.id,
          name: region.name,
          side,
          x: side === 'left' ? 100 - x : x,
          y,
        })),
      ),
  )
  const columnOf = ({ side, x }: (typeof found)[number]): Joint['column'] => (side === 'none' ? 'middle' : x < 50 ? 'left' : 'right')
  return (['left', 'right', 'middle'] as const).flatMap((column) => {
    const inColumn = found.filter((joint) => columnOf(joint) === column).sort((a, b) => a.y - b.y)
    const share = (at: number): number => (inColumn.length > 1 ? at / (inColumn.length - 1) : 0.5)
    return inColumn.map((joint, at) => ({
      ...joint,
      column,
      top: FROM + share(at) * (TO - FROM),
      at: MIDDLE.from + share(at) * (MIDDLE.to - MIDDLE.from),
    }))
  })
}
