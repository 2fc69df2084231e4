import { SIDES } from '@kneecap-awl/contract'

export { SIDES }

/** `none` is the side of everything that has no side: facts about the person, general look. */
export type Side = (typeof SIDES)[number]

/** Sides as the inner loops number them. */
export type SideIndex = 0 | 1 | 2
export const SIDE_COUNT = 3
export const SIDE_INDEX: Readonly<Record<Side, SideIndex>> = { right: 0, left: 1, none: 2 }

export const SIDE_INDEXES: readonly SideIndex[] = [0, 1, 2]

export const otherSide = (side: SideIndex): SideIndex => (side === 0 ? 1 : side === 1 ? 0 : 2)
