import fp from 'fastify-plugin'
import { HttpProblem } from './problem.js'

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]']

/**
 * Answers only to the names that it was given, besides those of this machine itself: a page elsewhere whose name was made to lead here gets nothing.
 * @param names of hosts, without a port
 */
export const onlyHosts = (names: readonly string[]) => {
  const known = new Set([...LOOPBACK, ...names.map((name) => name.toLowerCase())])
  return fp(async (app) => {
    app.addHook('onRequest', async ({ headers: { host = '' } }) => {
      const name = host.toLowerCase().replace(/:\d+$/, '')
      if (!known.has(name)) throw new HttpProblem(421, 'wrong-host', 'This server does not answer to that name.')
    })
  })
}
