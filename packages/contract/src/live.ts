import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { route } from './route.js'
import { Form, OneOf, Uuid } from './shapes.js'

/** What changed at a site, by its id alone: whoever hears it reads it anew. `all` after a gap in which something may have been missed. */
export const ChangeForm = Form({
  what: OneOf(['entries', 'examination', 'range', 'patient', 'referral', 'all']),
  id: Type.Optional(Uuid),
  entries: Type.Optional(Type.Integer({ description: 'of `entries`: how many the examination has now' })),
})
export type Change = Described<typeof ChangeForm>

export const liveChanges = route({
  method: 'GET',
  url: '/api/live',
  summary: 'What changes at this site, as server-sent events; each event is a JSON object of `what` and `id`. It ends with the session',
  may: 'read-patients',
  answer: Type.String(),
})
