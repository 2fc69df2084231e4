import type { FastifyInstance } from 'fastify'
import { generate } from 'otplib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { AuditRow, Invited, OwnSession, Person } from '@kneecap-awl/contract'
import { disableDemo, firstAdministrator } from '../src/accounts/first.js'
import { buildApp } from '../src/app.js'
import { sealWith } from '../src/audit/queries.js'
import { DEMO_PASSWORD } from '../src/demo/load.js'
import { PackStore } from '../src/packs/service.js'
import { otherSite } from './otherSite.js'
import { newServer, type Server } from './server.js'

let server: Server
beforeAll(async () => {
  server = await newServer('people')
  sealWith(server.owner, server.sealer)
})
afterAll(() => server.close())

const PASSWORD = 'a herring in the harbour'
type Payload = Record<string, unknown>
const from = (app: FastifyInstance, payload: Payload, more: object = {}) => app.inject({ method: 'POST', url: '/api/session', payload, ...more })
const signIn = (payload: Payload) => from(server.app, payload)
const cookieOf = (answer: { headers: Record<string, unknown> }): string => String(answer.headers['set-cookie']).split(';')[0] ?? ''
const as = (cookie: string, method: 'GET' | 'POST' | 'DELETE', url: string, payload?: Payload) =>
  server.app.inject({ method, url, headers: { cookie }, ...(payload ? { payload } : {}) })
const typeOf = (answer: { json: () => unknown }): string => (answer.json() as { type: string }).type

/** Somebody new, with a password. @returns id, and the cookie of a session */
async function newPerson(name: string, role = 'clinician'): Promise<{ readonly id: string; readonly cookie: string; readonly signIn: string }> {
  const [signInName] = name.toLowerCase().split(' ')
  const invited = (await server.call('POST', '/api/people', { name, signIn: signInName, role }, 'fenn')).json<Invited>()
  await server.app.inject({ method: 'POST', url: '/api/invitations/accept', payload: { code: invited.code, password: PASSWORD } })
  return { id: invited.id, signIn: signInName ?? '', cookie: cookieOf(await signIn({ signIn: signInName, password: PASSWORD })) }
}
const peopleNow = async (): Promise<Person[]> => (await server.call('GET', '/api/people', undefined, 'fenn')).json<{ people: Person[] }>().people

describe('an invitation', () => {
  it('sets a password once, and no other than a good one', async () => {
    const { id, code } = (
      await server.call('POST', '/api/people', { name: 'Dr Ada Sanderling', signIn: 'sanderling', role: 'clinician' }, 'fenn')
    ).json<Invited>()
    const accept = (password: string, with_ = code) => server.app.inject({ method: 'POST', url: '/api/invitations/accept', payload: { code: with_, password } })
    for (const [password, reason] of [
      ['short', 'is too short'],
      ['passwordpassword', 'is one that many people have'],
      ['qwertyuiop123', 'is one that many people have'],
      ['sanderling at sea', 'holds the sign-in name or the name of the program'],
    ] as const)
      expect((await accept(password)).json()).toMatchObject({ status: 400, faults: [{ path: '/password', reason }] })
    expect((await accept(PASSWORD, 'abcd-abcd-abcd-abcd')).json()).toMatchObject({ status: 400, faults: [{ path: '/code' }] })
    expect((await signIn({ signIn: 'sanderling', password: 'none' })).statusCode).toBe(401)
    expect((await accept(PASSWORD)).json()).toEqual({ signIn: 'sanderling' })
    expect((await accept('another good one, this')).statusCode).toBe(400)
    expect((await signIn({ signIn: 'sanderling', password: PASSWORD })).statusCode).toBe(200)
    expect((await peopleNow()).find((one) => one.id === id)).toMatchObject({ name: 'Dr Ada Sanderling', disabledAt: null, invitedUntil: null })
  })
  it('of a reset takes the password away and gives a code for another', async () => {
    const { id, cookie, signIn: name } = await newPerson('Whimbrel Orr')
    const first = (await server.call('POST', `/api/people/${id}/reset`, {}, 'fenn')).json<Invited>()
    const second = (await server.call('POST', `/api/people/${id}/reset`, {}, 'fenn')).json<Invited>()
    expect((await as(cookie, 'GET', '/api/sessions')).statusCode).toBe(401)
    expect((await signIn({ signIn: name, password: PASSWORD })).statusCode).toBe(401)
    const accept = (code: string) =>
      server.app.inject({ method: 'POST', url: '/api/invitations/accept', payload: { code, password: 'a gannet over the pier' } })
    expect([(await accept(first.code)).statusCode, (await accept(second.code)).statusCode]).toEqual([400, 200])
  })
  it('is for a name that nobody has, and not of another site', async () => {
    expect((await server.call('POST', '/api/people', { name: 'Two', signIn: 'quill', role: 'lead' }, 'fenn')).json()).toMatchObject({
      faults: [{ path: '/signIn' }],
    })
    const other = await otherSite(server)
    expect((await server.call('POST', `/api/people/${other.account}/reset`, {}, 'fenn')).statusCode).toBe(404)
    expect((await peopleNow()).map(({ signIn: name }) => name)).not.toContain(other.clinician)
  })
})

describe('an account', () => {
  it('that is disabled, or gets another role, is signed out at once', async () => {
    const { id, cookie, signIn: name } = await newPerson('Turnstone Vale')
    await server.call('POST', `/api/people/${id}`, { role: 'learner' }, 'fenn')
    expect((await as(cookie, 'GET', '/api/sessions')).statusCode).toBe(401)
    const again = cookieOf(await signIn({ signIn: name, password: PASSWORD }))
    expect((await as(again, 'GET', '/api/desk?state=draft')).statusCode).toBe(403)
    await server.call('POST', `/api/people/${id}`, { isDisabled: true }, 'fenn')
    expect((await as(again, 'GET', '/api/sessions')).statusCode).toBe(401)
    expect((await signIn({ signIn: name, password: PASSWORD })).statusCode).toBe(401)
    await server.call('POST', `/api/people/${id}`, { isDisabled: false }, 'fenn')
    expect((await signIn({ signIn: name, password: PASSWORD })).statusCode).toBe(200)
  })
  it('of the last administrator stays one', async () => {
    const fenn = (await peopleNow()).find(({ signIn: name }) => name === 'fenn')
    for (const change of [{ role: 'learner' }, { isDisabled: true }])
      expect((await server.call('POST', `/api/people/${fenn?.id ?? ''}`, change, 'fenn')).statusCode).toBe(409)
  })
  it('changes its password with the one it has, and its other sessions end', async () => {
    const { cookie, signIn: name } = await newPerson('Knot Merrow')
    const elsewhere = cookieOf(await signIn({ signIn: name, password: PASSWORD }))
    expect((await as(cookie, 'POST', '/api/password', { password: 'wrong', next: 'three gulls and a buoy' })).json()).toMatchObject({
      faults: [{ path: '/password' }],
    })
    expect((await as(cookie, 'POST', '/api/password', { password: PASSWORD, next: 'knot' })).json()).toMatchObject({ faults: [{ path: '/next' }] })
    expect((await as(cookie, 'POST', '/api/password', { password: PASSWORD, next: 'three gulls and a buoy' })).statusCode).toBe(204)
    expect([(await as(cookie, 'GET', '/api/sessions')).statusCode, (await as(elsewhere, 'GET', '/api/sessions')).statusCode]).toEqual([200, 401])
    expect((await signIn({ signIn: name, password: 'three gulls and a buoy' })).statusCode).toBe(200)
  })
  it('lists where it is signed in, and ends one of them', async () => {
    const { cookie, signIn: name } = await newPerson('Dunlin Ash')
    const elsewhere = cookieOf(await from(server.app, { signIn: name, password: PASSWORD }, { headers: { 'user-agent': 'Ward tablet' } }))
    const { sessions } = (await as(cookie, 'GET', '/api/sessions')).json<{ sessions: OwnSession[] }>()
    expect(sessions.map(({ isThis, browser }) => [isThis, browser]).sort()).toEqual([
      [false, 'Ward tablet'],
      [true, expect.stringContaining('lightMyRequest')],
    ])
    const [tablet] = sessions.filter(({ isThis }) => !isThis)
    expect((await as(cookie, 'DELETE', `/api/sessions/${tablet?.id ?? ''}`)).statusCode).toBe(204)
    expect((await as(elsewhere, 'GET', '/api/sessions')).statusCode).toBe(401)
    // Nobody else's session is ended.
    expect((await server.call('DELETE', `/api/sessions/${sessions.find((one) => one.isThis)?.id ?? ''}`)).statusCode).toBe(404)
  })
})

describe('a second factor', () => {
  /** @returns secret and recovery codes */
  async function setUp(cookie: string, password = PASSWORD): Promise<{ readonly secret: string; readonly recoveryCodes: readonly string[] }> {
    const begun = (await as(cookie, 'POST', '/api/second-factor', { password })).json<{ secret: string; address: string; picture: string }>()
    expect(begun.address).toMatch(/^otpauth:\/\/totp\/Kneecap%20Awl:/)
    expect(begun.picture).toContain('<svg')
    const { secret } = begun
    expect((await as(cookie, 'POST', '/api/second-factor/confirm', { secret, code: '12345' })).statusCode).toBe(400)
    const set = await as(cookie, 'POST', '/api/second-factor/confirm', { secret, code: await generate({ secret }) })
    return { secret, ...set.json<{ recoveryCodes: string[] }>() }
  }
  it('is asked for after the password, and each code is good once', async () => {
    const { cookie, signIn: name } = await newPerson('Redshank Moss')
    const { secret, recoveryCodes } = await setUp(cookie)
    const enter = (more: Payload = {}) => signIn({ signIn: name, password: PASSWORD, ...more })
    expect(typeOf(await enter())).toBe('/problems/second-factor')
    expect(typeOf(await signIn({ signIn: name, password: 'wrong one entirely' }))).toBe('/problems/not-signed-in')
    const code = await generate({ secret })
    expect((await enter({ code })).statusCode).toBe(200)
    expect((await enter({ code })).statusCode).toBe(401)
    expect(recoveryCodes).toHaveLength(10)
    const [spare] = recoveryCodes
    expect([(await enter({ code: spare })).statusCode, (await enter({ code: spare })).statusCode]).toEqual([200, 401])
    const { rows } = await server.owner.query<{ kept: string }>('select second_factor as kept from account where sign_in = $1', [name])
    expect(rows[0]?.kept).not.toContain(secret)
  })
  it('is what an administrator sets up before anything else', async () => {
    const { cookie, signIn: name } = await newPerson('Curlew Stark', 'admin')
    expect(typeOf(await as(cookie, 'GET', '/api/people'))).toBe('/problems/second-factor-needed')
    expect((await as(cookie, 'GET', '/api/session')).json()).toMatchObject({ account: { needsSecondFactor: true } })
    await setUp(cookie)
    expect((await as(cookie, 'GET', '/api/people')).statusCode).toBe(200)
    expect(name).toBe('curlew')
  })
})

describe('a session', () => {
  it('is locked by hand or when nobody used it, and unlocked with the password under a new token', async () => {
    const { cookie, id } = await newPerson('Plover Tarrant')
    expect((await as(cookie, 'POST', '/api/session/lock')).statusCode).toBe(204)
    expect(typeOf(await as(cookie, 'GET', '/api/desk?state=draft'))).toBe('/problems/locked')
    expect((await as(cookie, 'GET', '/api/session')).json()).toMatchObject({ isLocked: true, deviceKey: null, account: { id } })
    expect(typeOf(await as(cookie, 'POST', '/api/session/unlock', { password: 'wrong one entirely' }))).toBe('/problems/locked')
    const unlocked = await as(cookie, 'POST', '/api/session/unlock', { password: PASSWORD })
    const fresh = cookieOf(unlocked)
    expect([unlocked.statusCode, (await as(cookie, 'GET', '/api/sessions')).statusCode]).toEqual([200, 401])
    expect((await as(fresh, 'GET', '/api/desk?state=draft')).statusCode).toBe(200)
    await server.owner.query("update session set seen_at = now() - interval '16 minutes' where account_id = $1", [id])
    expect(typeOf(await as(fresh, 'GET', '/api/desk?state=draft'))).toBe('/problems/locked')
  })
  it('is of a cookie that only TLS carries, where it is served by TLS behind a proxy that is known', async () => {
    const app = await buildApp({ pool: server.pool, packStore: new PackStore(server.pack), trustProxy: '127.0.0.1', hosts: ['awl.example'] })
    const headers = { 'x-forwarded-proto': 'https', host: 'awl.example', 'x-forwarded-for': '10.1.2.3' }
    const secure = String((await from(app, { signIn: 'quill', password: DEMO_PASSWORD }, { headers })).headers['set-cookie'])
    expect(secure).toMatch(/^__Host-awl_session=.*; Path=\/; HttpOnly; Secure; SameSite=Strict$/)
    const foreign = await from(app, { signIn: 'quill', password: DEMO_PASSWORD }, { headers: { host: 'awl.elsewhere' } })
    expect([foreign.statusCode, typeOf(foreign)]).toEqual([421, '/problems/wrong-host'])
    await app.close()
    // Nobody who is no proxy says where a request came from.
    const bare = String(
      (await from(server.app, { signIn: 'quill', password: DEMO_PASSWORD }, { headers: { 'x-forwarded-proto': 'https' } })).headers['set-cookie'],
    )
    expect(bare).not.toContain('Secure')
  })
})

describe('tries', () => {
  it('that fail are ended where they come from, and keep nobody out who signed in elsewhere before', async () => {
    const app = await buildApp({ pool: server.pool, packStore: new PackStore(server.pack), signInTries: 3, trustProxy: '127.0.0.1' })
    const at = (address: string, password: string) => from(app, { signIn: 'lark', password }, { headers: { 'x-forwarded-for': address } })
    expect((await at('10.0.0.1', DEMO_PASSWORD)).statusCode).toBe(200)
    const wrong = []
    for (let n = 0; n < 4; n++) wrong.push((await at('10.0.0.66', 'guess')).statusCode)
    expect(wrong).toEqual([401, 401, 401, 429])
    expect((await at('10.0.0.66', DEMO_PASSWORD)).statusCode).toBe(429)
    // From many addresses: the name is closed to strangers, and its owner signs in from where they did before.
    for (let n = 0; n < 30; n++) await at(`10.0.1.${n}`, 'guess')
    expect((await at('10.0.2.1', DEMO_PASSWORD)).statusCode).toBe(429)
    expect((await at('10.0.0.1', DEMO_PASSWORD)).statusCode).toBe(200)
    await app.close()
  })
  it('of every kind have a limit for each account', async () => {
    const app = await buildApp({ pool: server.pool, packStore: new PackStore(server.pack), requestsPerMinute: 5 })
    const cookie = cookieOf(await from(app, { signIn: 'quill', password: DEMO_PASSWORD }))
    const asked = async (with_ = cookie) => (await app.inject({ method: 'GET', url: '/api/sessions', headers: { cookie: with_ } })).statusCode
    const answers = []
    for (let n = 0; n < 6; n++) answers.push(await asked())
    expect(answers).toEqual([200, 200, 200, 200, 200, 429])
    // Another account, from the same address.
    const { cookie: other } = await newPerson('Avocet Pine')
    expect(await asked(other)).toBe(200)
    await app.close()
  })
})

describe('who did what', () => {
  it('is read by page, filtered and taken away as a file', async () => {
    const id = await server.begin()
    await server.call('GET', `/api/examinations/${id}`)
    const read = async (query: string) =>
      (await server.call('GET', `/api/audit?${query}`, undefined, 'fenn')).json<{ rows: AuditRow[]; actions: string[]; hasMore: boolean }>()
    const about = await read(`about=${id}`)
    expect(about.rows.map(({ action, who }) => [action, who])).toEqual([
      ['examination read', 'Dr Isolde Brannock'],
      ['examination started', 'Dr Isolde Brannock'],
    ])
    expect(about.actions).toContain('person invited')
    const fenn = (await peopleNow()).find(({ signIn: name }) => name === 'fenn')
    expect(new Set((await read(`account=${fenn?.id ?? ''}`)).rows.map(({ who }) => who))).toEqual(new Set(['Marit Fenn']))
    expect((await read('action=PERSON%20invited&from=2999-01-01T00:00:00Z')).rows).toEqual([])
    const all = await read('')
    const older = await read(`before=${all.rows.at(-1)?.seq ?? 0}`)
    expect(older.rows.every(({ seq }) => seq < (all.rows.at(-1)?.seq ?? 0))).toBe(true)
    const file = await server.call('GET', `/api/audit/export?about=${id}`, undefined, 'quill')
    expect(file.headers['content-type']).toBe('text/csv; charset=utf-8')
    expect(file.body.split('\r\n')).toHaveLength(4)
    expect(file.body).toMatch(/^seq,at,account,who,action,about,hash\r\n"\d+","20/)
  })
  it('shows nothing of another site', async () => {
    const { admin } = await otherSite(server)
    const { rows } = (await server.call('GET', '/api/audit', undefined, admin)).json<{ rows: AuditRow[] }>()
    expect(rows.map(({ action }) => action)).toEqual(['signed in'])
  })
})

// The last of this file: nobody of the demonstration signs in afterwards.
describe('a site that is no demonstration', () => {
  it('is begun by a first administrator with a code, and the demonstration signs in no more', async () => {
    expect(await disableDemo(server.owner)).toBeGreaterThan(3)
    expect(await disableDemo(server.owner)).toBe(0)
    expect((await signIn({ signIn: 'brannock', password: DEMO_PASSWORD })).statusCode).toBe(401)
    // Curlew Stark was made administrator above.
    expect(await firstAdministrator(server.owner)).toBeUndefined()
    await server.owner.query("update account set disabled_at = now() where sign_in = 'curlew'")
    const lost = await firstAdministrator(server.owner)
    // A code that was lost: starting again gives another.
    const first = await firstAdministrator(server.owner)
    const accept = (code = '') => server.app.inject({ method: 'POST', url: '/api/invitations/accept', payload: { code, password: PASSWORD } })
    expect([(await accept(lost?.code)).statusCode, (await accept(first?.code)).statusCode]).toEqual([400, 200])
    expect((await signIn({ signIn: 'administrator', password: PASSWORD })).json()).toMatchObject({ account: { needsSecondFactor: true, role: 'admin' } })
    expect(await firstAdministrator(server.owner)).toBeUndefined()
  })
})
