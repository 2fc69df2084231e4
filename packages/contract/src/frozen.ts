import type { Static, TSchema } from 'typebox'

/** A type whose parts are not written to: what was answered or described is data. */
export type Frozen<T> = T extends readonly (infer U)[] ? readonly Frozen<U>[] : T extends object ? { readonly [K in keyof T]: Frozen<T[K]> } : T

/** The type that a form describes. */
export type Described<S extends TSchema> = Frozen<Static<S>>
