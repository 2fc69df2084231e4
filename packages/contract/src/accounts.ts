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
})
export type Account = Described<typeof AccountForm>

const Session = Form({ account: Nullable(AccountForm) })

export const signIn = route({
  method: 'POST',
  url: '/api/session',
  summary: 'Signs in; the session is a cookie',
  may: 'anyone',
  body: Form({ signIn: Words(40), password: Words(200) }),
  answer: Form({ account: AccountForm }),
})
export const readSession = route({ method: 'GET', url: '/api/session', summary: 'Who is signed in', may: 'anyone', answer: Session })
export const signOut = route({ method: 'DELETE', url: '/api/session', summary: 'Signs out', may: 'anyone', status: 204, answer: Type.Null() })
