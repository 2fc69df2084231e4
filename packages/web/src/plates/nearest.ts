export type Direction = 'up' | 'down' | 'left' | 'right'

interface Place {
  readonly x: number
  readonly y: number
}

const STEPS: Readonly<Record<Direction, Place>> = { up: { x: 0, y: -1 }, down: { x: 0, y: 1 }, left: { x: -1, y: 0 }, right: { x: 1, y: 0 } }
/** What lies aside of the way counts double. */
const ASIDE = 2

/**
 * The place that an arrow key goes to from another: the nearest straight ahead in that direction, else the nearest ahead at all.
 * @returns its index, undefined where nothing lies ahead
 * @example nearest([{ x: 0, y: 0 }, { x: 10, y: 2 }, { x: 40, y: 0 }], 0, 'right') // 1
 */
export function nearest(places: readonly Place[], at: number, direction: Direction): number | undefined {
  const from = places[at]
  if (!from) return undefined
  const step = STEPS[direction]
  const ahead = places.flatMap(({ x, y }, index) => {
    const along = (x - from.x) * step.x + (y - from.y) * step.y
    const aside = Math.abs((x - from.x) * step.y) + Math.abs((y - from.y) * step.x)
    return along > 0 ? [{ index, far: along + ASIDE * aside, isStraight: aside <= along }] : []
  })
  return ahead.sort((a, b) => Number(b.isStraight) - Number(a.isStraight) || a.far - b.far)[0]?.index
}
