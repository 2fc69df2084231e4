import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { route } from './route.js'
import { Form, Nullable, OneOf, Uuid, Words } from './shapes.js'

export const ROLES = ['clinician', 'lead', 'admin', 'learner'] as const
export type Role = (typeof ROLES)[number]

export const AccountForm = Form({
  id: Uuid,
  name: Type.String(),
  role: OneOf(ROLES),
  signIn: Type.String(),
  site: Type.String({ description: 'name of the site' }),
  zone: Type.String({ description: 'time zone in which the site writes: an IANA name' }),
  hasSecondFactor: Type.Boolean({ description: 'signs in with a one-time code besides the password' }),
  needsSecondFactor: Type.Boolean({ description: 'may do nothing else before a second factor is set up' }),
})
export type Account = Described<typeof AccountForm>

/** With it the device encrypts what it keeps until it is sent; it is forgotten at sign-out, and given again to the same account. */
const DeviceKey = Type.String({ description: 'base64 of 32 bytes' })
/** A sentence is easier to keep in mind than signs; what is common or short is refused by the server, which says why. */
const Password = Words(200)
const Code = Type.String({ maxLength: 40, description: 'six digits of the authenticator, or one of the recovery codes' })

export const signIn = route({
  method: 'POST',
  url: '/api/session',
  summary: 'Signs in; the session is a cookie. 401 second-factor asks for the same again with a code',
  may: 'anyone',
  body: Form({ signIn: Words(40), password: Password, code: Type.Optional(Code) }),
  answer: Form({ account: AccountForm, deviceKey: DeviceKey }),
})
export const readSession = route({
  method: 'GET',
  url: '/api/session',
  summary: 'Who is signed in, and whether the session is locked',
  may: 'anyone',
  answer: Form({ account: Nullable(AccountForm), isLocked: Type.Boolean(), deviceKey: Nullable(DeviceKey) }),
})
export const signOut = route({ method: 'DELETE', url: '/api/session', summary: 'Signs out', may: 'anyone', status: 204, answer: Type.Null() })
export const lockSession = route({ method: 'POST', url: '/api/session/lock', summary: 'Locks the session', may: 'signed-in', status: 204, answer: Type.Null() })
export const unlockSession = route({
  method: 'POST',
  url: '/api/session/unlock',
  summary: 'Unlocks the session with the password',
  may: 'anyone',
  body: Form({ password: Password }),
  answer: Form({ account: AccountForm, deviceKey: DeviceKey }),
})

const SessionForm = Form({
  id: Uuid,
  createdAt: Type.String(),
  seenAt: Type.String({ description: 'when it was last used, to the minute' }),
  address: Type.String(),
  browser: Type.String(),
  isThis: Type.Boolean({ description: 'the session that asks' }),
})
export type OwnSession = Described<typeof SessionForm>
export const readSessions = route({
  method: 'GET',
  url: '/api/sessions',
  summary: 'Where one is signed in',
  may: 'signed-in',
  answer: Form({ sessions: Type.Array(SessionForm) }),
})
export const endSession = route({
  method: 'DELETE',
  url: '/api/sessions/:id',
  summary: "Ends one of one's sessions",
  may: 'signed-in',
  status: 204,
  params: Form({ id: Uuid }),
  answer: Type.Null(),
})
export const changePassword = route({
  method: 'POST',
  url: '/api/password',
  summary: "Changes one's own password; every other session ends",
  may: 'signed-in',
  status: 204,
  body: Form({ password: Password, next: Password }),
  answer: Type.Null(),
})
export const beginSecondFactor = route({
  method: 'POST',
  url: '/api/second-factor',
  summary: 'A secret for an authenticator; it counts once a code of it was sent',
  may: 'signed-in',
  body: Form({ password: Password }),
  answer: Form({
    secret: Type.String({ description: 'base32' }),
    address: Type.String({ description: 'otpauth address' }),
    picture: Type.String({ description: 'QR code, SVG' }),
  }),
})
export const confirmSecondFactor = route({
  method: 'POST',
  url: '/api/second-factor/confirm',
  summary: 'Sets the second factor up with a first code',
  may: 'signed-in',
  body: Form({ secret: Words(80), code: Code }),
  answer: Form({ recoveryCodes: Type.Array(Type.String({ description: 'each signs in once, should the authenticator be lost' })) }),
})
export const acceptInvitation = route({
  method: 'POST',
  url: '/api/invitations/accept',
  summary: 'Sets the first password of an account, or another after a reset, with a code that is used once',
  may: 'anyone',
  body: Form({ code: Words(60), password: Password }),
  answer: Form({ signIn: Type.String() }),
})
