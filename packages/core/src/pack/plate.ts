/** A place on a drawing, in its own units: 360 wide, 440 high, from the upper left. */
interface Place {
  readonly x: number
  readonly y: number
}

/** A drawing of a joint, with what is felt and what hurts where: the right side; the left is its mirror image. */
export interface Plate {
  readonly id: string
  readonly region: string
  /** Name of the drawing under `content/plates`, without `.svg`. */
  readonly drawing: string
  readonly title: string
  /** True where one drawing shows both sides: what has a side stands twice, the right as given. */
  readonly whole?: boolean
  /** The part of the drawing that is shown; all of it when left out. */
  readonly view?: Place & { readonly width: number; readonly height: number }
  /** Where an item is felt; an item may have several places. */
  readonly landmarks: readonly (Place & { readonly item: string })[]
  /** Where each word of the joint's site of pain is. */
  readonly sites?: readonly (Place & { readonly word: string })[]
}

/** Size of every drawing. */
export const PLATE = { width: 360, height: 440 } as const

/** Where the mirror image of a place is. @example mirrored(100) // 260 */
export const mirrored = (x: number): number => PLATE.width - x
