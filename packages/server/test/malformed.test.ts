import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ROUTES, type Route } from '@kneecap-awl/contract'
import { v7 as uuid7 } from 'uuid'
import { entry, newServer, type Detail, type Server } from './server.js'

let server: Server
/** What there is to ask for, by the kind of thing: so that a request goes as deep as it can before it is refused. */
const there: string[] = []
beforeAll(async () => {
  server = await newServer('malformed')
  const id = await server.begin()
  const desk = (await server.call('GET', '/api/desk?state=signed')).json<{ examinations: { id: string }[] }>()
  const referrals = (await server.call('GET', '/api/referrals')).json<{ referrals: { id: string }[] }>()
  const { patientId } = (await server.call('GET', `/api/examinations/${id}`)).json<Detail>()
  there.push(id, patientId, ...desk.examinations.slice(0, 2).map((one) => one.id), ...referrals.referrals.slice(0, 2).map((one) => one.id))
})
afterAll(() => server.close())

/** How many requests: more at night. */
const COUNT = Number(process.env.AWL_FUZZ ?? 1500)
const SEED = Number(process.env.AWL_FUZZ_SEED ?? 20261130)

/** A small generator of numbers that is the same every time (mulberry32). */
function randomFrom(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}
const random = randomFrom(SEED)
const oneOf = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
const isLucky = (share: number): boolean => random() < share

const NASTY: readonly unknown[] = [
  null,
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x\udfff',
  '\u202e',
  'x'.repeat(5000),
  '9'.repeat(400),
  -1,
  0,
  0.1,
  1e308,
  -2147483649,
  9007199254740993,
  true,
  [],
  [[]],
  {},
  { toString: 1 },
  JSON.parse('{"__proto__": {"a": 1}}'),
  'constructor',
  '0000-01-01',
  '0000-01-01T00:00:00Z',
  '2026-02-30',
  '2026-11-30T23:59:60Z',
  '2026-11-30T10:00:00+23:59',
  '99999-01-01T00:00:00Z',
  '-000001-01-01T00:00:00Z',
  'urn:uuid:019a0000-0000-7000-8000-000000000000',
  '{019a0000-0000-7000-8000-000000000000}',
  '019a00000000700080000000000000',
  "'; drop table entry; --",
  '%00',
  '../../etc/passwd',
]
const WORDS = [
  'right',
  'left',
  'none',
  'knee',
  'hip',
  'hand',
  'Wren',
  'present',
  '2',
  'examined',
  'lifted',
  'chosen',
  'signed',
  'draft',
  'primary-care',
  'female',
  'told',
]

interface Schema {
  readonly type?: string | readonly string[]
  readonly enum?: readonly unknown[]
  readonly const?: unknown
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly items?: Schema
  readonly format?: string
}

/** A value that a form takes, or almost: each part may be a nasty one instead. */
function madeFor(schema: Schema | undefined, nasty: number): unknown {
  if (isLucky(nasty)) return oneOf(NASTY)
  if (!schema) return oneOf(WORDS)
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return oneOf(schema.enum)
  const choices = schema.anyOf ?? schema.oneOf
  if (choices) return madeFor(oneOf(choices), nasty)
  if (schema.properties) {
    const { required = [] } = schema
    const made = Object.entries(schema.properties).flatMap(([key, inner]) =>
      (required.includes(key) ? isLucky(0.95) : isLucky(0.4)) ? [[key, madeFor(inner, nasty)]] : [],
    )
    return Object.fromEntries(isLucky(0.03) ? [...made, ['unheard-of', 1]] : made) as unknown
  }
  switch (typeof schema.type === 'string' ? schema.type : oneOf(schema.type ?? ['string'])) {
    case 'array':
      return Array.from({ length: Math.floor(random() * 3) }, () => madeFor(schema.items, nasty))
    case 'integer':
    case 'number':
      return Math.floor(random() * 200) - 50
    case 'boolean':
      return isLucky(0.5)
    case 'object':
      return {}
    default:
      return schema.format === 'uuid'
        ? oneOf([...there, uuid7()])
        : schema.format === 'date-time'
          ? new Date().toISOString()
          : schema.format === 'date'
            ? '1980-05-05'
            : oneOf([...WORDS, oneOf(server.pack.items).id, oneOf(server.pack.flags).id])
  }
}

/** A value as it stands in an address. */
const written = (value: unknown): string => {
  const text = typeof value === 'string' ? value : JSON.stringify(value)
  return isLucky(0.9) && !/\p{Surrogate}/u.test(text) ? encodeURIComponent(text) : oneOf(['%00', '%ff', '%', '..%2f', '%ED%A0%80'])
}

interface Asked {
  readonly method: 'GET' | 'POST' | 'DELETE'
  readonly url: string
  /** Text is sent as it is, and called JSON. */
  readonly payload?: object | string
}

function asked({ method, url, params, query, body }: Route): Asked {
  const nasty = oneOf([0, 0.03, 0.2])
  const formOf = (form: unknown): Readonly<Record<string, Schema>> => (form as Schema | undefined)?.properties ?? {}
  const path = url.replace(/:(\w+)/g, (_all, name: string) => written(madeFor(formOf(params)[name], nasty)))
  const words = Object.entries(formOf(query)).flatMap(([key, schema]) => (isLucky(0.7) ? [`${key}=${written(madeFor(schema, nasty))}`] : []))
  const made = body || isLucky(0.05) ? madeFor(body, nasty) : undefined
  const isPlain = typeof made === 'object' && made !== null && !isLucky(nasty / 4)
  const payload = isPlain ? made : oneOf([JSON.stringify(made), '{', '[1,', '\u0000', 'nul', '{"a":1}{'])
  return { method, url: `${path}${words.length > 0 ? `?${words.join('&')}` : ''}`, ...(made === undefined ? {} : { payload }) }
}

/** What is stored, to be compared: nothing but what was answered with a success may have been added. */
const entryCount = async (): Promise<string> => (await server.owner.query<{ count: string }>('select count(*) from entry')).rows[0]?.count ?? ''

/** Signing in and out, and locking, would end the session that asks: nobody asks for them. */
const ENDING = ['/api/session', '/api/session/lock', '/api/session/unlock']
const ASKERS: Partial<Record<Route['may'], string>> = { 'manage-people': 'fenn', 'read-audit': 'fenn', 'keep-records': 'quill' }
/** Whoever may call a route. */
const askerOf = ({ url, may }: Route): string => (ENDING.includes(url) ? '' : (ASKERS[may] ?? 'brannock'))
/** A stream has no end to wait for: it is refused to whoever takes none. */
const NO_STREAM = { accept: 'application/json' }

describe(`${COUNT} malformed requests over every route`, () => {
  it('are refused with field, reason and what is expected, or taken: no failure of the server, and nothing half stored', async () => {
    const failures: unknown[] = []
    const seen = new Map<number, number>()
    for (let at = 0; at < COUNT; at++) {
      const route = oneOf(ROUTES)
      const request = asked(route)
      const before = await entryCount()
      const { statusCode, body, headers } = await server.call(request.method, request.url, request.payload, askerOf(route), {
        ...NO_STREAM,
        ...(typeof request.payload === 'string' ? { 'content-type': 'application/json' } : {}),
      })
      seen.set(statusCode, (seen.get(statusCode) ?? 0) + 1)
      const told = { ...request, url: request.url.slice(0, 200), statusCode, body: body.slice(0, 300) }
      if (statusCode >= 500) failures.push(told)
      if (statusCode < 400) continue
      if ((await entryCount()) !== before) failures.push({ half: 'stored', ...told })
      if (!String(headers['content-type']).startsWith('application/problem+json')) failures.push({ no: 'problem', ...told })
      else {
        const { title, faults = [] } = JSON.parse(body) as { title?: string; faults?: { path?: string; reason?: string; expected?: string }[] }
        if (!title || faults.some((fault) => !fault.path || !fault.reason || !fault.expected)) failures.push({ says: 'too little', ...told })
      }
    }
    expect(failures.slice(0, 5)).toEqual([])
    // Some go all the way, or the fuzzer would test the gate alone.
    expect([...seen.keys()].filter((status) => status < 300).length).toBeGreaterThan(0)
    expect(seen.get(400)).toBeGreaterThan(COUNT / 10)
  }, 600_000)
})

describe('what is too much, or too deep', () => {
  it('of faults is told in part, and counted', async () => {
    const id = await server.begin()
    const wrong = Array.from({ length: 400 }, () => entry('knee.no-such-item', '1'))
    const answer = await server.record(id, ...wrong)
    const { faults } = answer.json<{ faults: { path: string; reason: string }[] }>()
    expect([answer.statusCode, faults.length, faults.at(-1)?.reason]).toEqual([400, 21, 'has 380 more faults'])
  })
  it('in a file of thousands of wrong entries is told as well', async () => {
    const file = {
      format: 'kneecap-awl-examination',
      version: 2,
      complaint: { region: 'knee', sides: ['right'] },
      asOf: '2026-01-01T00:00:00Z',
      entries: Array.from({ length: 5000 }, () => ({ state: 'unheard-of' })),
    }
    const { faults } = (await server.call('POST', '/api/judge', file)).json<{ faults: { path: string; reason: string }[] }>()
    expect([faults.length, faults[0]?.path, faults.at(-1)?.reason]).toEqual([21, '/entries/0/state', 'has 4,980 more faults'])
  })
  it('in levels is refused', async () => {
    let nested: object = {}
    for (let at = 0; at < 3000; at++) nested = { nested }
    const answer = await server.call('POST', '/api/judge', { format: nested })
    expect(answer.json<{ faults: unknown }>().faults).toEqual([
      { path: '/format/nested/nested', reason: 'is nested too deep', expected: 'no more than 40 levels' },
    ])
  })
  it('is not even read of somebody who may not', async () => {
    const answer = await server.call('POST', '/api/judge', { format: 'x'.repeat(10_000) }, '')
    expect(answer.statusCode).toBe(401)
  })
  it('of a wait for a locked table ends: it is busy, and can be asked again', async () => {
    const lock = await server.owner.connect()
    try {
      await lock.query('begin')
      await lock.query('lock table examination in access exclusive mode')
      const answer = await server.call('GET', '/api/desk')
      expect([answer.statusCode, answer.headers['retry-after']]).toEqual([503, '2'])
    } finally {
      await lock.query('rollback')
      lock.release()
    }
    expect((await server.call('GET', '/api/desk')).statusCode).toBe(200)
  }, 20_000)
})
