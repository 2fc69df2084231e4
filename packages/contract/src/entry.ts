import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { Form, OneOf, Side, Uuid } from './shapes.js'

/** States of an entry: a finding, what kept it from being taken, and what a clinician decides. */
export const STATES = ['examined', 'could-not', 'not-valid', 'not-examined', 'lifted', 'released', 'chosen', 'accepted'] as const

type Scalar = string | number | boolean
const SCALAR = { type: ['string', 'number', 'boolean'] }
const WORDS = { type: 'array', items: { type: 'string' } }
const Value = Type.Unsafe<Scalar | readonly string[]>({ anyOf: [SCALAR, WORDS] })
const Qualifiers = Type.Unsafe<Readonly<Record<string, Scalar | readonly string[]>>>({
  type: 'object',
  additionalProperties: { anyOf: [SCALAR, WORDS] },
})

/** One thing recorded at one time by one person, as it is sent, stored and written to a file. */
export const EntryForm = Form({
  id: Type.String({ format: 'uuid', description: 'UUID v7; sending the same entry twice stores it once' }),
  item: Type.String({ minLength: 1, maxLength: 120, description: 'an item of the pack; a flag or a hold where one is lifted or released' }),
  side: Side,
  state: OneOf(STATES),
  reason: Type.Optional(Type.String({ maxLength: 300, description: 'why it could not be done, or why it was decided' })),
  value: Type.Optional(Value),
  qualifiers: Type.Optional(Qualifiers),
  by: Type.String({ minLength: 1, maxLength: 120 }),
  at: Type.String({ format: 'date-time', description: 'for the same item and side the later time wins' }),
  device: Type.Optional(Type.String({ maxLength: 120, description: 'which browser recorded it' })),
  deviceAt: Type.Optional(Type.String({ format: 'date-time', description: "the time by the device's own clock, where that was off and `at` was put right" })),
  undoes: Type.Optional(Type.Array(Uuid, { maxItems: 400, description: 'entries that this one takes back, by an undo' })),
  settles: Type.Optional(Type.Array(Uuid, { maxItems: 20, description: 'entries of two devices that did not agree, between which this one decides' })),
  override: Type.Optional(
    Form(
      { hold: Type.String(), reason: Type.String({ minLength: 1, maxLength: 500 }) },
      { description: 'set when the item was on hold and the examiner went on deliberately' },
    ),
  ),
  amends: Type.Optional(Type.String({ maxLength: 500, description: 'why a signed examination was changed' })),
})
export type EntryForm = Described<typeof EntryForm>
