import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import { mirrored, PLATE, type Plate } from '../pack/plate.js'
import { itemsById } from '../pack/itemsById.js'
import { problem } from './lintProblem.js'

/** How wide a plate is drawn beside its other side, px; two targets, square, never overlap, px. */
const DRAWN = 300
const LEAST_APART = 24
const PLACED: ReadonlySet<string> = new Set(['feel', 'neuro', 'vascular'])

/**
 * Plates of one joint: every core item of palpation has a place, every place has an item of palpation, no two targets are too close to be told
 * apart, and none lies outside of what is shown.
 * @example lintPlates(viewOf(pack, 'knee')) // []
 */
export function lintPlates(view: RegionPack): Problem[] {
  const [region] = view.regions
  const items = itemsById(view)
  const placed = new Set(view.plates.flatMap(({ landmarks }) => landmarks.map(({ item }) => item)))
  const lost = view.items.filter(({ id, stage, derive }) => stage === 'feel' && !derive && region.core.includes(id) && !placed.has(id))
  return [
    ...lost.map(({ id }) =>
      problem(id, `is a core item of palpation of the ${region.name.toLowerCase()} without a place on a plate`, 'place it in plates.yaml'),
    ),
    ...view.plates.flatMap((plate) => [
      ...plate.landmarks
        .filter(({ item }) => !PLACED.has(items.get(item)?.stage ?? ''))
        .map(({ item }) =>
          problem(plate.id, `places ${item}, which is neither felt nor touched`, 'name an item of palpation, sensation or pulses of this joint'),
        ),
      ...tooClose(
        plate,
        spotsOf(plate, (item) => items.get(item)?.sided ?? true),
      ),
      ...tooClose(
        plate,
        (plate.sites ?? []).map(({ word, x, y }) => ({ name: word, x, y })),
      ),
    ]),
  ]
}

interface Spot {
  readonly name: string
  readonly x: number
  readonly y: number
}

const spotsOf = ({ landmarks, whole }: Plate, isSided: (item: string) => boolean): Spot[] =>
  landmarks.flatMap(({ item, x, y }) => [{ name: item, x, y }, ...(whole && isSided(item) ? [{ name: `${item} left`, x: mirrored(x), y }] : [])])

function tooClose(plate: Plate, spots: readonly Spot[]): Problem[] {
  const view = plate.view ?? { x: 0, y: 0, ...PLATE }
  const scale = DRAWN / view.width
  const outside = spots.filter(({ x, y }) => x < view.x || y < view.y || x > view.x + view.width || y > view.y + view.height)
  const close = spots.flatMap((one, at) =>
    spots.slice(at + 1).flatMap((other) => {
      const apart = Math.max(Math.abs(one.x - other.x), Math.abs(one.y - other.y)) * scale
      return apart < LEAST_APART
        ? [problem(plate.id, `has ${one.name} and ${other.name} ${Math.round(apart)} px apart`, `leave ${LEAST_APART} px between targets`)]
        : []
    }),
  )
  return [...outside.map(({ name }) => problem(plate.id, `has ${name} outside of what it shows`, 'move it, or show more')), ...close]
}
