import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { Form } from './shapes.js'

/** One thing that is wrong with what was sent: where, why, and what is expected. */
export const FaultForm = Form({ path: Type.String(), reason: Type.String(), expected: Type.String() })
export type FaultForm = Described<typeof FaultForm>

/** Every error is answered in this form (RFC 9457, application/problem+json). Nothing was stored. */
export const ProblemForm = Type.Object(
  {
    type: Type.String({ description: '/problems/ and a code' }),
    title: Type.String({ description: 'a sentence for a person' }),
    status: Type.Integer(),
    faults: Type.Optional(Type.Array(FaultForm)),
  },
  { additionalProperties: true },
)
export type ProblemForm = Described<typeof ProblemForm>
