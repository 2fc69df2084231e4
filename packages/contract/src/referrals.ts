import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { route } from './route.js'
import { Form, Instant, Nullable, OneOf, Tier, Uuid, Words } from './shapes.js'

export const EVENTS = ['told', 'accepted', 'refused', 'closed', 'reopened'] as const

export const ReferralForm = Form({
  id: Uuid,
  examinationId: Uuid,
  patientId: Uuid,
  patientName: Type.String(),
  destination: Type.String(),
  tier: Tier,
  added: Nullable(Type.String({ description: 'what the sender added to the letter that holds' })),
  flaggedAt: Instant,
  dueAt: Nullable(Instant),
  lastEvent: Type.String(),
  lastEventAt: Instant,
  lastNote: Type.String(),
})
export type Referral = Described<typeof ReferralForm>

const params = Form({ id: Uuid })
const Referrals = Form({ referrals: Type.Array(ReferralForm) })

export const openReferrals = route({
  method: 'GET',
  url: '/api/referrals',
  summary: 'Referrals that nobody has accepted or closed, the one due first on top',
  may: 'read-patients',
  answer: Referrals,
})
export const referralsOf = route({
  method: 'GET',
  url: '/api/examinations/:id/referrals',
  summary: 'Referrals of an examination',
  may: 'read-patients',
  params,
  answer: Referrals,
})
export const refer = route({
  method: 'POST',
  url: '/api/examinations/:id/referrals',
  summary: 'Refers by a signed examination',
  may: 'refer',
  status: 201,
  params,
  body: Form({ added: Type.Optional(Words(2000)) }),
  answer: Form({ id: Uuid }),
})
export const addReferralEvent = route({
  method: 'POST',
  url: '/api/referrals/:id/events',
  summary: 'What became of a referral: told, accepted, refused, closed, on the desk again',
  may: 'refer',
  status: 201,
  params,
  body: Form({ kind: OneOf(EVENTS), note: Type.Optional(Words(1000)) }),
  answer: Form({ kind: OneOf(EVENTS) }),
})
