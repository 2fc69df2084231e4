import type { Described } from './frozen.js'
import { Type, type TProperties, type TSchema } from 'typebox'

/** Identifiers are UUID v7. */
export const Uuid = Type.String({ format: 'uuid', pattern: '^[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}$' })
/** A moment, ISO 8601 with zone: no leap second, no zone that there is not, no year 0, for neither the server nor the database knows them. */
export const Instant = Type.String({
  format: 'date-time',
  pattern: '^(?!0000)[0-9]{4}-[0-9]{2}-[0-9]{2}T([01][0-9]|2[0-3]):[0-5][0-9]:[0-5][0-9]([.][0-9]{1,9})?(Z|[+-](0[0-9]|1[0-4]):[0-5][0-9])$',
})
/** A day of the calendar, YYYY-MM-DD. */
export const Day = Type.String({ format: 'date', pattern: '^(?!0000)' })

/** One word of several. @example OneOf(['right', 'left']) */
export const OneOf = <const W extends readonly string[]>(words: W) => Type.Unsafe<W[number]>({ type: 'string', enum: [...words] })

/** A value or null, where null says that there is none. */
export const Nullable = <S extends TSchema>(schema: S) => Type.Unsafe<Described<S> | null>({ ...schema, nullable: true })

/** An object that takes no other keys than these. */
export const Form = <P extends TProperties>(properties: P, about: object = {}) => Type.Object(properties, { additionalProperties: false, ...about })

/** What is described elsewhere and passed through whole: a compiled pack, a letter, a verdict for programs. */
export const Whole = <T>(description: string) => Type.Unsafe<T>({ type: 'object', additionalProperties: true, description })

export const SIDES = ['right', 'left', 'none'] as const
/** Urgency of a referral, most urgent first. */
export const TIERS = ['now', 'today', 'days', 'weeks', 'routine', 'here'] as const
const SETTINGS = ['primary-care', 'emergency'] as const
/** Sex at birth as it was told; null stands for nobody asked. */
export const SEXES = ['female', 'male', 'other or unknown'] as const
export type Sex = (typeof SEXES)[number]

export const Side = OneOf(SIDES)
export const Tier = OneOf(TIERS)
export const Setting = OneOf(SETTINGS)
export const Sides = Type.Array(Side, { minItems: 1, maxItems: 2, uniqueItems: true })
/** Words of somebody, up to so many characters. */
export const Words = (most: number) => Type.String({ maxLength: most })
