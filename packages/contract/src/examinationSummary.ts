import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { Day, Instant, Nullable, OneOf, Setting, Sides, Tier, Uuid, Form } from './shapes.js'

/** An examination in a list: whose, of what, how far it got, and its range. */
export const ExaminationSummary = Form({
  id: Uuid,
  visit: Type.String({ format: 'uuid', description: 'the joint of this visit that was examined first' }),
  patientId: Uuid,
  patientName: Type.String(),
  birthDate: Day,
  region: Type.String(),
  sides: Sides,
  setting: Setting,
  startedAt: Instant,
  startedBy: Type.String(),
  packHash: Type.String(),
  signedAt: Nullable(Instant),
  signedBy: Nullable(Type.String()),
  discardedAt: Nullable(Instant),
  discardReason: Type.String(),
  floor: Nullable(Tier),
  ceiling: Nullable(Tier),
  priority: Nullable(Type.Unsafe<Tier>({ ...Tier, description: 'what counts: the floor, or what a clinician set in its place' })),
  verdictKind: Nullable(OneOf(['signed', 'amended'])),
  reviewOn: Nullable(Type.Unsafe<string>({ ...Instant, description: 'when the patient is to be seen again, as a clinician set it' })),
})
export type ExaminationSummary = Described<typeof ExaminationSummary>
type Tier = Described<typeof Tier>
