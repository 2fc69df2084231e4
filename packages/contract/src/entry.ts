import { Type, type TProperties, type TSchema } from 'typebox'
import type { Described } from './frozen.js'
import { Form, Instant, OneOf, Side, Tier, Uuid } from './shapes.js'

type Scalar = string | number | boolean
const SCALAR = { type: ['string', 'number', 'boolean'] }
const WORDS = { type: 'array', items: { type: 'string' } }
const Value = Type.Unsafe<Scalar | readonly string[]>({ anyOf: [SCALAR, WORDS] })
const Qualifiers = Type.Unsafe<Readonly<Record<string, Scalar | readonly string[]>>>({
  type: 'object',
  additionalProperties: { anyOf: [SCALAR, WORDS] },
})

/** What every entry bears: who said it, when and where, and which entries it takes the place of. */
const STAMP = {
  id: { ...Uuid, description: 'UUID v7; sending the same entry twice stores it once' },
  by: Type.String({ minLength: 1, maxLength: 120, description: 'who sent it: whoever was signed in, set by the server' }),
  saidBy: Type.Optional(Type.String({ minLength: 1, maxLength: 120, description: 'who recorded it, as a file or another device says: not known here' })),
  at: { ...Instant, description: 'of what is said of the same thing the later time stands' },
  device: Type.Optional(Type.String({ maxLength: 120, description: 'which browser recorded it' })),
  deviceAt: Type.Optional({ ...Instant, description: "the time by the device's own clock, where that was off and `at` was put right" }),
  undoes: Type.Optional(Type.Array(Uuid, { maxItems: 400, description: 'entries that this one takes back, by an undo' })),
  settles: Type.Optional(Type.Array(Uuid, { maxItems: 20, description: 'entries of two devices that did not agree, between which this one decides' })),
  amends: Type.Optional(Type.String({ maxLength: 500, description: 'why a signed examination was changed' })),
}
const Id = (description: string) => Type.String({ minLength: 1, maxLength: 120, description })
const Reason = (description: string) => Type.String({ maxLength: 300, description })
const Override = Form(
  { hold: Type.String(), reason: Type.String({ minLength: 1, maxLength: 500 }) },
  { description: 'set when the item was on hold and the examiner went on deliberately' },
)

/** One kind of entry: its state says which, and what else it says. */
const Kind = <const S extends string, P extends TProperties>(state: S, description: string, says: P) =>
  Form({ ...STAMP, state: Type.Literal(state), ...says }, { title: state, description })

const FOUND = {
  item: Id('an item of the pack'),
  side: Side,
  value: Type.Optional(Value),
  qualifiers: Type.Optional(Qualifiers),
  override: Type.Optional(Override),
}

const Examined = Kind('examined', 'a finding', { ...FOUND, reason: Type.Optional(Reason('a remark')) })
const CouldNot = Kind('could-not', 'it could not be examined', { ...FOUND, reason: Reason('why it could not be done') })
const NotValid = Kind('not-valid', 'it was examined, and its result does not count', { ...FOUND, reason: Type.Optional(Reason('why it does not count')) })
const NotExamined = Kind('not-examined', 'takes back what was recorded: it counts as unknown again', { ...FOUND, reason: Type.Optional(Reason('why')) })

const Lift = Kind('lifted', 'lifts a flag that a later check no longer meets', {
  flag: Id('the flag that is lifted'),
  side: Side,
  reason: Reason('why it no longer holds'),
})
const Release = Kind('released', 'lets the tests of a hold be done', {
  hold: Id('the hold that is released'),
  side: Side,
  reason: Reason('why its tests may be done'),
})
const Choice = Kind('chosen', 'sets the priority', {
  tier: Tier,
  from: Type.Unsafe<Described<typeof Tier>>({ ...Tier, description: 'what the findings gave when it was set' }),
  reason: Type.Optional(Reason('why; not left out where it is lowered')),
  senior: Type.Optional(Type.String({ maxLength: 120, description: 'who agreed; not left out where Now or Today is lowered' })),
  seniorAt: Type.Optional(Instant),
})
const Acceptance = Kind('accepted', 'leaves the range of priority open', {
  ceiling: Type.Unsafe<Described<typeof Tier>>({ ...Tier, description: 'how urgent it could still be' }),
  reason: Reason('why it stays open'),
  plan: Type.String({ maxLength: 300, description: 'what is planned' }),
})

/** States of a decision: each is made in the name of whoever makes it. */
export const DECIDED = ['lifted', 'released', 'chosen', 'accepted'] as const
const Withdrawal = Kind('withdrawn', 'takes a decision back', {
  decision: OneOf(DECIDED),
  of: Type.Optional(Id('the flag that was lifted or the hold that was released')),
  side: Type.Optional(Side),
})

const FINDINGS = [Examined, CouldNot, NotValid, NotExamined] as const
const DECISIONS = [Lift, Release, Choice, Acceptance, Withdrawal] as const

/** One of several forms; `state` says which, so that an error names what is wrong with that one alone. */
const ByState = <const F extends readonly TSchema[]>(forms: F) =>
  Type.Unsafe<Described<F[number]>>({ type: 'object', required: ['state'], discriminator: { propertyName: 'state' }, oneOf: [...forms] })

/** One thing recorded at one time by one person, as it is sent, stored and written to a file: a finding, or what a clinician decides. */
export const EntryForm = ByState([...FINDINGS, ...DECISIONS])
export type EntryForm = Described<typeof EntryForm>
export type FindingForm = Described<(typeof FINDINGS)[number]>
export type DecisionForm = Described<(typeof DECISIONS)[number]>
