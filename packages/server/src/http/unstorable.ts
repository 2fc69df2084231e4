import type { Fault } from '@kneecap-awl/core'
import type { FastifyInstance } from 'fastify'
import { badInput } from './problem.js'

const DEEPEST = 40

/**
 * What no database holds: text with a NUL or with half of a character, and what is nested deeper than anything that is sent here.
 * @example unstorable({ patient: { name: 'A\u0000' } })?.path // '/patient/name'
 */
function unstorable(sent: unknown): Fault | undefined {
  const left: { readonly value: unknown; readonly path: readonly string[] }[] = [{ value: sent, path: [] }]
  for (let next = left.pop(); next; next = left.pop()) {
    const { value, path } = next
    if (typeof value === 'string' && (value.includes('\0') || /\p{Surrogate}/u.test(value)))
      return { path: `/${path.join('/')}`, reason: 'holds a character that cannot be stored', expected: 'text without NUL and without halves of characters' }
    if (typeof value !== 'object' || value === null) continue
    if (path.length >= DEEPEST) return { path: `/${path.slice(0, 3).join('/')}`, reason: 'is nested too deep', expected: `no more than ${DEEPEST} levels` }
    for (const [key, inner] of Object.entries(value)) {
      if (key.includes('\0') || /\p{Surrogate}/u.test(key))
        return { path: `/${path.join('/')}`, reason: 'has a name that cannot be stored', expected: 'a name of its form' }
      left.push({ value: inner, path: [...path, key] })
    }
  }
  return undefined
}

/** Refuses such text wherever it stands in a request, before anything is done with it. */
export function refuseUnstorable(app: FastifyInstance): void {
  app.addHook('preValidation', async ({ params, query, body }) => {
    const fault = unstorable(params) ?? unstorable(query) ?? unstorable(body)
    if (fault) throw badInput([fault])
  })
}
