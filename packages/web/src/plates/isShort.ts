/** A difference between the sides that stands out, degrees. Expert. */
const SHORT_BY = 10

/** Whether a range stands out as short beside that of the other side. @example isShort(95, 140) // true */
export const isShort = (own: number | undefined, other: number | undefined): boolean => own !== undefined && other !== undefined && other - own >= SHORT_BY
