import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROLES, ROUTES, type Role, type Route } from '@kneecap-awl/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fingerprint } from '@kneecap-awl/core'
import { contentHash, readContent } from '../src/packs/service.js'
import { DEMO_PASSWORD } from '../src/demo/load.js'
import { otherSite, type OtherSite } from './otherSite.js'
import { newServer, type Detail, type Server } from './server.js'

const SIGN_INS: Readonly<Record<Role, string>> = { clinician: 'brannock', lead: 'quill', admin: 'fenn', learner: 'lark' }

/** Who may call each route, written down a second time: by whom it is called in the building, not by what it asks for. */
const EVERYBODY = [...ROLES]
const DOCTORS: readonly Role[] = ['clinician', 'lead']
const CALLED_BY: Readonly<Record<string, readonly Role[]>> = {
  'GET /api/patients': DOCTORS,
  'GET /api/patients/like': DOCTORS,
  'POST /api/patients': DOCTORS,
  'GET /api/patients/:id': DOCTORS,
  'POST /api/patients/:id/corrections': DOCTORS,
  'POST /api/patients/:id/merge': ['lead'],
  'POST /api/patients/:id/separate': ['lead'],
  'GET /api/patients/:id/file': ['lead'],
  'POST /api/examinations': DOCTORS,
  'POST /api/examinations/:id/also': DOCTORS,
  'GET /api/desk': DOCTORS,
  'GET /api/examinations/:id': DOCTORS,
  'POST /api/examinations/:id/entries': DOCTORS,
  'POST /api/examinations/:id/sign': DOCTORS,
  'POST /api/examinations/:id/discard': DOCTORS,
  'POST /api/examinations/:id/sides': DOCTORS,
  'GET /api/examinations/:id/file': DOCTORS,
  'POST /api/examinations/read-back': DOCTORS,
  'GET /api/referrals': DOCTORS,
  'GET /api/examinations/:id/referrals': DOCTORS,
  'POST /api/examinations/:id/referrals': DOCTORS,
  'POST /api/referrals/:id/events': DOCTORS,
  'GET /api/people': ['admin'],
  'POST /api/people': ['admin'],
  'POST /api/people/:id': ['admin'],
  'POST /api/people/:id/reset': ['admin'],
  'GET /api/audit': ['lead', 'admin'],
  'GET /api/audit/export': ['lead', 'admin'],
  'GET /api/sessions': EVERYBODY,
  'DELETE /api/sessions/:id': EVERYBODY,
  'POST /api/password': EVERYBODY,
  'POST /api/second-factor': EVERYBODY,
  'POST /api/second-factor/confirm': EVERYBODY,
  'POST /api/session/lock': EVERYBODY,
  'GET /api/live': DOCTORS,
  'POST /api/judge': EVERYBODY,
  'GET /api/packs/current': EVERYBODY,
  'GET /api/packs/:hash/:region': EVERYBODY,
  'GET /api/library': EVERYBODY,
  'GET /api/openapi.json': EVERYBODY,
}
const OPEN = ['POST /api/session', 'GET /api/session', 'DELETE /api/session', 'POST /api/session/unlock', 'POST /api/invitations/accept', 'GET /api/health']

const NOBODY = '01920000-0000-7000-8000-000000000000'
const nameOf = ({ method, url }: Route): string => `${method} ${url}`
/** A request that its forms let through, about things that do not exist. */
const BODIES: Readonly<Record<string, object>> = {
  'POST /api/patients': { name: 'Hester Dabchick', birthDate: '1971-01-02' },
  'POST /api/patients/:id/corrections': { contact: 'the lighthouse', reason: 'moved house' },
  'POST /api/patients/:id/merge': { patient: NOBODY, reason: 'the same person' },
  'POST /api/patients/:id/separate': { patient: NOBODY, reason: 'not the same person' },
  'POST /api/examinations': { patientId: NOBODY, region: 'knee', sides: ['right'], setting: 'emergency' },
  'POST /api/examinations/:id/also': { region: 'hip', sides: ['right'], sameEvent: false },
  'POST /api/examinations/:id/entries': {
    entries: [{ id: NOBODY, item: 'knee.feel.calf', side: 'right', state: 'examined', value: '1', by: 'test', at: '2026-01-01T00:00:00Z' }],
  },
  'POST /api/people': { name: 'Hester Dabchick', signIn: 'dabchick', role: 'learner' },
  'POST /api/people/:id': { name: 'Hester Dabchick' },
  'POST /api/password': { password: 'not mine', next: 'a herring in the harbour' },
  'POST /api/second-factor': { password: 'not mine' },
  'POST /api/second-factor/confirm': { secret: 'A'.repeat(32), code: '000000' },
  'POST /api/examinations/:id/sign': { record: '0'.repeat(64), floor: 'here', ceiling: 'here', priority: 'here', flags: [] },
  'POST /api/examinations/:id/discard': { reason: 'begun by mistake' },
  'POST /api/examinations/:id/sides': { sides: ['left'], reason: 'begun on the wrong side' },
  'POST /api/referrals/:id/events': { kind: 'closed' },
}
/** A stream is answered to whoever takes one; what is asked here is who may. */
const NO_STREAM = { accept: 'application/json' }
const addressOf = ({ url }: Route): string =>
  url.replace(':id', NOBODY).replace(':hash', '0'.repeat(16)).replace(':region', 'knee') + (url.endsWith('/like') ? '?name=Hester&birthDate=1971-01-02' : '')

let server: Server
beforeAll(async () => {
  server = await newServer('contract')
  await server.app.ready()
})
afterAll(() => server.close())
const ask = (route: Route, signIn: string) =>
  server.call(route.method, addressOf(route), route.method === 'POST' ? (BODIES[nameOf(route)] ?? {}) : undefined, signIn, NO_STREAM)

describe('the contract', () => {
  it('names every route that the server has, and no other', () => {
    const documented = Object.entries((server.app.swagger() as { paths: Record<string, object> }).paths)
    const served = documented.flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replaceAll(/\{(\w+)\}/g, ':$1')}`),
    )
    expect(served.filter((name) => name.includes('/api/')).sort()).toEqual(ROUTES.map(nameOf).sort())
  })
  it('is published as OpenAPI, as it is served to whoever is signed in', async () => {
    const published: unknown = JSON.parse(readFileSync(join(import.meta.dirname, '../../../docs/formats/openapi.json'), 'utf8'))
    expect((await server.call('GET', '/api/openapi.json')).json()).toEqual(published)
  })
  it('says for every route who calls it', () => expect([...Object.keys(CALLED_BY), ...OPEN].sort()).toEqual(ROUTES.map(nameOf).sort()))
  it('knows its content by the same hash as the core does', () => {
    const files = readContent()
    expect(contentHash(files)).toBe(fingerprint(files))
  })
  it('judges with no stored pack that is damaged, and says so', async () => {
    const hash = 'f'.repeat(64)
    await server.owner.query("insert into pack (hash, id, version, compiled) values ($1, 'kneecap-awl', '0.0.1', $2)", [
      hash,
      JSON.stringify({ hash, items: [] }),
    ])
    const answer = await server.call('GET', `/api/packs/${hash}/knee`)
    expect([answer.statusCode, answer.json<{ type: string }>().type]).toEqual([500, '/problems/fault'])
  })
  it('answers a fault in the form of a problem', async () => {
    const answer = await server.call('POST', '/api/patients', { name: 'A' })
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([400, expect.stringContaining('application/problem+json')])
    expect(answer.json()).toMatchObject({
      type: '/problems/bad-input',
      status: 400,
      faults: [{ path: '/birthDate', reason: 'is missing' }],
    })
  })
})

const guarded = ROUTES.filter((route) => !OPEN.includes(nameOf(route)))
describe.each(guarded.map((route) => [nameOf(route), route] as const))('%s', (name, route) => {
  it('wants somebody signed in', async () => expect((await ask(route, '')).statusCode).toBe(401))
  it.each(ROLES)('%s', async (role) => {
    const { statusCode } = await ask(route, SIGN_INS[role])
    if (name === 'POST /api/session/lock') await server.call('POST', '/api/session/unlock', { password: DEMO_PASSWORD }, SIGN_INS[role])
    if (CALLED_BY[name]?.includes(role)) expect([401, 403, 500]).not.toContain(statusCode)
    else expect(statusCode).toBe(403)
  })
})

describe('every route, asked by another site', () => {
  let other: OtherSite
  /** What there is at this site, by the part of the address that names it. */
  const here: Record<string, string> = {}
  beforeAll(async () => {
    other = await otherSite(server)
    const examination = await server.begin()
    here.examinations = examination
    here.patients = (await server.call('GET', `/api/examinations/${examination}`)).json<Detail>().patientId
    const open = (await server.call('GET', '/api/referrals')).json<{ referrals: { id: string }[] }>().referrals
    here.referrals = open[0]?.id ?? ''
    const people = (await server.call('GET', '/api/people', undefined, 'fenn')).json<{ people: { id: string; signIn: string }[] }>().people
    here.people = people.find(({ signIn }) => signIn === 'lark')?.id ?? ''
    here.sessions = (await server.call('GET', '/api/sessions')).json<{ sessions: { id: string }[] }>().sessions[0]?.id ?? ''
  })
  const named = guarded.filter(({ url }) => url.includes(':id'))
  const ASKERS: Partial<Record<Route['may'], keyof OtherSite>> = { 'manage-people': 'admin', 'read-audit': 'admin', 'keep-records': 'lead' }
  const asker = ({ may }: Route): string => other[ASKERS[may] ?? 'clinician']
  it.each(named.map((route) => [nameOf(route), route] as const))('%s finds nothing', async (_name, route) => {
    const id = here[route.url.split('/')[2] ?? ''] ?? ''
    expect(id).not.toBe('')
    const { statusCode } = await server.call(
      route.method,
      route.url.replace(':id', id),
      route.method === 'POST' ? (BODIES[nameOf(route)] ?? {}) : undefined,
      asker(route),
    )
    if (route.method === 'GET' && route.url.endsWith('/referrals')) expect(statusCode).toBe(200)
    else expect(statusCode).toBe(404)
  })
  // The audit names what they themselves were refused: see `people.test.ts`; of changes see `severalServers.test.ts`.
  const lists = guarded.filter(({ method, url }) => method === 'GET' && !url.includes(':') && !url.startsWith('/api/audit') && url !== '/api/live')
  it.each(lists.map((route) => [nameOf(route), route] as const))('%s shows nothing of here', async (_name, route) => {
    const { statusCode, body } = await server.call('GET', addressOf(route), undefined, asker(route))
    expect(statusCode).toBe(200)
    for (const id of Object.values(here)) expect(body).not.toContain(id)
  })
  it('an examination for a patient of here is not begun', async () => {
    const answer = await server.call('POST', '/api/examinations', { ...BODIES['POST /api/examinations'], patientId: here.patients }, other.clinician)
    expect(answer.statusCode).toBe(404)
  })
})
