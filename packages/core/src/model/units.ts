declare const unit: unique symbol
type Unit<Name extends string> = number & { readonly [unit]: Name }

export type Degrees = Unit<'degrees'>
export type Millimetres = Unit<'mm'>
export type MmHg = Unit<'mmHg'>

export const deg = (n: number): Degrees => n as Degrees
export const mm = (n: number): Millimetres => n as Millimetres
export const mmHg = (n: number): MmHg => n as MmHg

/** A measure was asked for something it cannot say. `code` is stable, `message` is for a person. */
export class MeasureError extends Error {
  override readonly name = 'MeasureError'
  constructor(
    readonly code: 'no-reference' | 'no-reading' | 'out-of-range',
    message: string,
  ) {
    super(message)
  }
}

/**
 * Rounds for display only, half away from zero. Thresholds always use the unrounded value.
 * @example round(32.142, 1) // 32.1
 */
export function round(value: number, decimals = 0): number {
  const factor = 10 ** decimals
  return (Math.sign(value) * Math.round(Math.abs(value) * factor + 1e-9)) / factor || 0
}
