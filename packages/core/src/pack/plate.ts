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

/** A line of a picture: where the hand sweeps, where it presses, where the tape lies. */
export interface PictureLine {
  /** Moves, lines and curves of SVG in absolute coordinates of the drawing. @example 'M146 160L222 120' */
  readonly path: string
  readonly is: 'sweep' | 'press' | 'tape'
}

/** The limb of a drawing that turns, from where it stands at zero. */
export interface PictureArc extends Place {
  /** Where the limb points at zero degrees: degrees clockwise from straight up. */
  readonly zero: number
  readonly turn: 'clockwise' | 'anticlockwise'
  /** How far out the arc stands, in units of the drawing. */
  readonly radius: number
}

/** How an item is done or measured, drawn for the right side: lines of hand or tape, or a limb that turns by the angle that was read. */
export interface Picture {
  readonly item: string
  readonly region: string
  readonly drawing: string
  readonly view?: Plate['view']
  /** What is seen, in words: for a list "sweep the medial side upward …", for an arc from where it is seen. */
  readonly caption: string
  readonly lines?: readonly PictureLine[]
  readonly arc?: PictureArc
}

/** Size of every drawing. */
export const PLATE = { width: 360, height: 440 } as const

/** Where the mirror image of a place is. @example mirrored(100) // 260 */
export const mirrored = (x: number): number => PLATE.width - x
