import { Type } from 'typebox'
import { ROLES } from './accounts.js'
import type { Described } from './frozen.js'
import { route } from './route.js'
import { Form, Instant, Nullable, OneOf, Uuid, Words } from './shapes.js'

const Id = Form({ id: Uuid })
const SignIn = Type.String({ pattern: '^[a-z0-9._-]{2,40}$', description: 'small letters, digits, point, line' })

const PersonForm = Form({
  id: Uuid,
  name: Type.String(),
  signIn: Type.String(),
  role: OneOf(ROLES),
  isDemo: Type.Boolean(),
  hasSecondFactor: Type.Boolean(),
  disabledAt: Nullable(Type.String()),
  /** Until when the code that was given out can be used; null when there is none. */
  invitedUntil: Nullable(Type.String()),
})
export type Person = Described<typeof PersonForm>
/** A code is shown once, to whoever made it, who gives it to the person by a way they trust. */
const Invited = Form({ id: Uuid, code: Type.String(), expiresAt: Type.String() })
export type Invited = Described<typeof Invited>

export const readPeople = route({
  method: 'GET',
  url: '/api/people',
  summary: 'The accounts of the site',
  may: 'manage-people',
  answer: Form({ people: Type.Array(PersonForm) }),
})
export const invite = route({
  method: 'POST',
  url: '/api/people',
  summary: 'A new account, with a code with which its person sets the password',
  may: 'manage-people',
  status: 201,
  body: Form({ name: Words(120), signIn: SignIn, role: OneOf(ROLES) }),
  answer: Invited,
})
export const changePerson = route({
  method: 'POST',
  url: '/api/people/:id',
  summary: 'Name, role, or whether the account may sign in. Its sessions end when the role changes or it is disabled',
  may: 'manage-people',
  status: 204,
  params: Id,
  body: Form({ name: Type.Optional(Words(120)), role: Type.Optional(OneOf(ROLES)), isDisabled: Type.Optional(Type.Boolean()) }),
  answer: Type.Null(),
})
export const resetPerson = route({
  method: 'POST',
  url: '/api/people/:id/reset',
  summary: 'Ends the sessions of an account, takes its password and second factor away, and gives a code for another',
  may: 'manage-people',
  params: Id,
  answer: Invited,
})

const AuditRow = Form({
  seq: Type.Integer(),
  at: Type.String(),
  account: Nullable(Uuid),
  who: Type.String({ description: 'name of the account; empty for none' }),
  action: Type.String(),
  about: Type.String({ description: 'ids, never patient data' }),
  hash: Type.String(),
})
export type AuditRow = Described<typeof AuditRow>
const AUDIT_FILTER = {
  account: Type.Optional(Uuid),
  action: Type.Optional(Type.String({ maxLength: 60, description: 'part of it' })),
  about: Type.Optional(Type.String({ maxLength: 80, description: 'part of it: an id' })),
  from: Type.Optional(Instant),
  until: Type.Optional(Instant),
}
export const readAudit = route({
  method: 'GET',
  url: '/api/audit',
  summary: 'Who did and read what at this site, the newest first',
  may: 'read-audit',
  query: Form({ ...AUDIT_FILTER, before: Type.Optional(Type.String({ pattern: '^[0-9]{1,15}$', description: 'rows with a smaller number' })) }),
  answer: Form({ rows: Type.Array(AuditRow), actions: Type.Array(Type.String()), hasMore: Type.Boolean() }),
})
export const exportAudit = route({
  method: 'GET',
  url: '/api/audit/export',
  summary: 'The same as a file of comma-separated values (RFC 4180), oldest first',
  may: 'read-audit',
  query: Form(AUDIT_FILTER),
  answer: Type.String(),
})
