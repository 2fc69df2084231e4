import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { examinedNormal, viewOf, type Decision, type Entry, type FindingEntry } from '@kneecap-awl/core'
import { v7 as uuid7 } from 'uuid'
import { DEMO_PASSWORD, loadDemo } from '../src/demo/load.js'
import { decision, entry, newServer, type Server } from './server.js'

let server: Server
const call: Server['call'] = (...args) => server.call(...args)
const start = (): Promise<string> => server.begin()
const shownFor: Server['shownFor'] = (id) => server.shownFor(id)

beforeAll(async () => {
  server = await newServer('api')
})
afterAll(() => server.close())

describe('signing in', () => {
  it('refuses a wrong password and an unknown name alike', async () => {
    const wrong = await server.app.inject({ method: 'POST', url: '/api/session', payload: { signIn: 'brannock', password: 'guess' } })
    const nobody = await server.app.inject({ method: 'POST', url: '/api/session', payload: { signIn: 'nobody', password: 'guess' } })
    expect([wrong.statusCode, nobody.statusCode]).toEqual([401, 401])
    expect(wrong.json()).toEqual(nobody.json())
  })
  it('gives a cookie that scripts cannot read and other sites cannot send', async () => {
    const answer = await server.app.inject({ method: 'POST', url: '/api/session', payload: { signIn: 'quill', password: DEMO_PASSWORD } })
    expect(String(answer.headers['set-cookie'])).toMatch(/HttpOnly.*SameSite=Strict/)
  })
  it('ends a session for good', async () => {
    const answer = await server.app.inject({ method: 'POST', url: '/api/session', payload: { signIn: 'lark', password: DEMO_PASSWORD } })
    const cookie = String(answer.headers['set-cookie']).split(';')[0] ?? ''
    await server.app.inject({ method: 'DELETE', url: '/api/session', headers: { cookie } })
    const after = await server.app.inject({ method: 'GET', url: '/api/session', headers: { cookie } })
    expect(after.json()).toEqual({ account: null, isLocked: false, deviceKey: null })
  })
  it('refuses a write that another page sent', async () => {
    const answer = await call('POST', '/api/judge', {}, 'brannock', { origin: 'http://elsewhere.example', host: '127.0.0.1' })
    expect(answer.statusCode).toBe(403)
    expect(answer.json()).toMatchObject({ type: '/problems/wrong-origin' })
  })
  it.each(['null', '', 'no address', 'file://'])('refuses a write whose Origin is "%s"', async (origin) => {
    const answer = await call('POST', '/api/judge', {}, 'brannock', { origin, host: '127.0.0.1' })
    expect([answer.statusCode, answer.json<{ type: string }>().type]).toEqual([403, '/problems/wrong-origin'])
  })
  it('refuses a write from the same host by another scheme, and takes one by its own', async () => {
    const status = async (origin: string) => (await call('POST', '/api/judge', {}, 'brannock', { origin, host: '127.0.0.1' })).statusCode
    expect([await status('https://127.0.0.1'), await status('http://127.0.0.1')]).toEqual([403, 400])
  })
  it('lets nothing of patients be kept in a cache, only the content pack, and asks for no device', async () => {
    const { pack } = (await call('GET', '/api/health')).json<{ pack: string }>()
    const kept = async (url: string) => (await call('GET', url)).headers['cache-control']
    expect([await kept('/api/desk'), await kept('/api/patients?search=pell'), await kept('/api/no-such')]).toEqual(['no-store', 'no-store', 'no-store'])
    expect(await kept(`/api/packs/${pack}/knee`)).toContain('immutable')
    expect((await call('GET', '/api/desk')).headers['permissions-policy']).toContain('camera=()')
  })
  it('wants someone signed in for everything', async () => {
    for (const url of ['/api/desk', '/api/referrals', '/api/patients', '/api/packs/current'])
      expect((await call('GET', url, undefined, '')).statusCode).toBe(401)
  })
})

describe('several joints of one visit', () => {
  interface Shown {
    readonly entries: FindingEntry[]
    readonly visit: string
    readonly visitWith: { readonly id: string; readonly region: string; readonly floor: string }[]
  }
  const shownOf = async (id: string): Promise<Shown> => (await call('GET', `/api/examinations/${id}`)).json<Shown>()
  const also = (id: string, joint: object) => call('POST', `/api/examinations/${id}/also`, { sides: ['right'], sameEvent: false, ...joint })
  const found = async (id: string, item: string) => (await shownOf(id)).entries.filter((one) => one.item === item).map((one) => one.value)

  it('carries what need not be asked again, and tells each of the other', async () => {
    const knee = await start()
    await call('POST', `/api/examinations/${knee}/entries`, {
      entries: [entry('vitals.temperature', 38.6), entry('story.trauma', 'present'), entry('knee.screen.wound', 'none', { side: 'right' })],
    })
    const hip = (await also(knee, { region: 'hip' })).json<{ id: string }>().id
    expect(await found(hip, 'vitals.temperature')).toEqual([38.6])
    expect(await found(hip, 'story.trauma')).toEqual([])
    expect((await shownOf(knee)).visitWith).toMatchObject([{ id: hip, region: 'hip', floor: 'here' }])
    expect((await shownOf(hip)).visitWith).toMatchObject([{ id: knee, region: 'knee' }])
    expect((await shownOf(hip)).visit).toBe((await shownOf(knee)).visit)
  })
  it('shares what is recorded later, once, and not with a joint that is signed', async () => {
    const knee = await start()
    const hip = (await also(knee, { region: 'hip', sameEvent: true })).json<{ id: string }>().id
    const rate = entry('vitals.heart-rate', 118)
    await call('POST', `/api/examinations/${hip}/entries`, { entries: [rate] })
    await call('POST', `/api/examinations/${hip}/entries`, { entries: [rate] })
    expect(await found(knee, 'vitals.heart-rate')).toEqual([118])
    await server.sign(knee)
    await call('POST', `/api/examinations/${hip}/entries`, { entries: [entry('vitals.resp-rate', 24)] })
    expect(await found(knee, 'vitals.resp-rate')).toEqual([])
  })
  it('takes entries for both joints at once and signs meanwhile, without a failure', async () => {
    const knee = await start()
    const hip = (await also(knee, { region: 'hip', sameEvent: true })).json<{ id: string }>().id
    await server.record(knee, decision({ state: 'accepted', ceiling: 'now', reason: 'two at once', plan: 'again tomorrow', by: 'Dr Isolde Brannock' }))
    const sign = await shownFor(knee)
    const answers = await Promise.all([
      ...Array.from({ length: 6 }, (_, at) =>
        call('POST', `/api/examinations/${at % 2 ? knee : hip}/entries`, {
          entries: [entry(at % 2 ? 'vitals.diastolic' : 'vitals.spo2', at % 2 ? 70 + at : 95)],
        }),
      ),
      call('POST', `/api/examinations/${knee}/sign`, sign),
    ])
    for (const answer of answers) expect([200, 409]).toContain(answer.statusCode)
  })
  it.each([
    ['a joint that is not in the pack', { region: 'tail' }, '/region'],
    ['a side that the joint has not', { region: 'back' }, '/sides'],
    ['the same side of the same joint', { region: 'knee' }, '/region'],
  ])('refuses %s', async (_what, joint, path) => {
    const answer = await also(await start(), joint)
    expect(answer.statusCode).toBe(400)
    expect(answer.json()).toMatchObject({ faults: [{ path }] })
  })
  it('takes the other side of the same joint, and is refused to a learner who may not examine', async () => {
    const knee = await start()
    expect((await also(knee, { region: 'knee', sides: ['left'] })).statusCode).toBe(201)
    expect((await call('POST', `/api/examinations/${knee}/also`, { region: 'hip', sides: ['right'], sameEvent: true }, 'fenn')).statusCode).toBe(403)
  })
})

describe('recording', () => {
  it('takes the age from the patient, so that it is not asked again', async () => {
    const id = await start()
    const { entries } = (await call('GET', `/api/examinations/${id}`)).json<{ entries: FindingEntry[] }>()
    expect(entries.find((one) => one.item === 'patient.age-years')?.value).toBeGreaterThan(38)
  })
  it('stores the same entry once, however often it is sent', async () => {
    const id = await start()
    const entries = [entry('story.trauma', 'present'), entry('knee.feel.calf', '1', { side: 'right' })]
    expect((await call('POST', `/api/examinations/${id}/entries`, { entries })).json()).toMatchObject({ outcomes: [{ state: 'stored' }, { state: 'stored' }] })
    expect((await call('POST', `/api/examinations/${id}/entries`, { entries })).json()).toMatchObject({
      outcomes: [{ state: 'already' }, { state: 'already' }],
    })
    expect((await call('GET', `/api/examinations/${id}`)).json<{ entries: FindingEntry[] }>().entries).toHaveLength(3)
  })
  it.each([
    ['an item that does not exist', { item: 'knee.feel.aura' }, '/entries/0/item'],
    ['a side where there is none', { item: 'story.trauma', side: 'left' as const, value: 'present' }, '/entries/0/side'],
    ['a word that is no option', { item: 'story.trauma', value: 'perhaps' }, '/entries/0/value'],
    ['an angle beyond the joint', { item: 'move.hip-internal-rotation', side: 'right' as const, value: 400 }, '/entries/0/value'],
    ['a reason left out', { item: 'knee.test.mcmurray', side: 'right' as const, state: 'could-not' as const }, '/entries/0/reason'],
  ])('refuses %s, says where and what was expected, and stores nothing', async (_what, wrong, path) => {
    const id = await start()
    const bad = { ...entry('story.trauma', undefined), ...wrong }
    const answer = await call('POST', `/api/examinations/${id}/entries`, { entries: [bad] })
    expect(answer.statusCode).toBe(400)
    expect(answer.headers['content-type']).toContain('application/problem+json')
    expect(answer.json<{ faults: { path: string; expected: string }[] }>().faults[0]).toMatchObject({ path, expected: expect.stringMatching(/.+/) as string })
    expect((await call('GET', `/api/examinations/${id}`)).json<{ entries: FindingEntry[] }>().entries).toHaveLength(1)
  })
  it('never changes or deletes what was recorded', async () => {
    for (const table of ['entry', 'verdict', 'audit', 'referral_event']) {
      await expect(server.pool.query(`update ${table} set at = now()`)).rejects.toThrow(/permission denied/)
      await expect(server.owner.query(`delete from ${table}`)).rejects.toThrow(/append-only/)
    }
  })
  it('shows no row of another site', async () => {
    const db = await server.pool.connect()
    await db.query('begin')
    await db.query("select set_config('awl.site', $1, true)", [uuid7()])
    for (const table of ['patient', 'examination', 'entry', 'verdict', 'referral', 'referral_event'])
      expect((await db.query(`select 1 from ${table}`)).rowCount).toBe(0)
    await db.query('rollback')
    db.release()
  })
})

describe('signing, amending, referring', () => {
  const soft = (): FindingEntry[] => [
    ...examinedNormal(viewOf(server.pack, 'knee'), ['card', 'core'], { by: 'test', at: new Date(Date.now() - 60_000).toISOString(), newId: uuid7 }),
    entry('story.onset-at', new Date(Date.now() - 30 * 86_400_000).toISOString(), { qualifiers: { precision: 'day' } }),
    entry('knee.test.lachman', 8, { side: 'right', qualifiers: { 'end-point': 'soft' } }),
    entry('knee.test.lachman', 2, { side: 'left', qualifiers: { 'end-point': 'firm' } }),
  ]
  it('judges again on the server, seals, and then takes only amendments', async () => {
    const id = await start()
    await call('POST', `/api/examinations/${id}/entries`, { entries: soft() })
    const signed = await server.sign(id)
    expect(signed.statusCode).toBe(200)
    expect(signed.json()).toMatchObject({ verdict: { floor: 'weeks', kind: 'signed', recordHash: expect.stringMatching(/^[0-9a-f]{64}$/) as string } })
    expect((await server.sign(id)).statusCode).toBe(409)
    expect((await call('POST', `/api/examinations/${id}/entries`, { entries: [entry('story.fever', 'present')] })).statusCode).toBe(409)
    const amended = await call('POST', `/api/examinations/${id}/entries`, {
      entries: [entry('story.fever', 'present', { amends: 'told on the phone afterwards' })],
    })
    expect(amended.statusCode).toBe(200)
    expect(
      (await server.owner.query<{ kind: string }>('select kind from verdict where examination_id = $1 order by at', [id])).rows.map((row) => row.kind),
    ).toEqual(['signed', 'amended'])
  })
  it('refuses a signature under another verdict than its own', async () => {
    const id = await start()
    await call('POST', `/api/examinations/${id}/entries`, { entries: soft() })
    const answer = await call('POST', `/api/examinations/${id}/sign`, { ...(await shownFor(id)), floor: 'here', ceiling: 'here', priority: 'here', flags: [] })
    expect(answer.statusCode).toBe(409)
    expect(answer.json()).toMatchObject({ type: '/problems/verdict-differs', floor: 'weeks' })
  })
  it('starts the clock of a referral when it is made', async () => {
    const id = await start()
    expect((await call('POST', `/api/examinations/${id}/referrals`, {})).statusCode).toBe(409)
    await call('POST', `/api/examinations/${id}/entries`, { entries: soft() })
    await server.sign(id)
    expect((await call('POST', `/api/examinations/${id}/referrals`, {})).statusCode).toBe(201)
    const [referral] = (await call('GET', `/api/examinations/${id}/referrals`)).json<{
      referrals: { flaggedAt: string; dueAt: string; tier: string; destination: string }[]
    }>().referrals
    expect(referral).toMatchObject({ tier: 'weeks', destination: 'dest.soft-tissue-knee' })
    expect(Date.parse(referral?.dueAt ?? '') - Date.parse(referral?.flaggedAt ?? '')).toBe(1008 * 3_600_000)
  })
  it('gives the record as a file and reads it back to the same verdict', async () => {
    const id = await start()
    await call('POST', `/api/examinations/${id}/entries`, { entries: soft() })
    const file = (await call('GET', `/api/examinations/${id}/file`)).json<Record<string, unknown>>()
    const back = await call('POST', '/api/examinations/read-back', file)
    expect(back.statusCode).toBe(201)
    const copy = (await call('GET', `/api/examinations/${back.json<{ id: string }>().id}/file`)).json<Record<string, unknown>>()
    const verdict = async (document: Record<string, unknown>) =>
      (await call('POST', '/api/judge', document)).json<{ floor: string; ceiling: string; flags: { id: string }[] }>()
    const [one, two] = [await verdict(file), await verdict(copy)]
    expect([two.floor, two.ceiling, two.flags.map((f) => f.id)]).toEqual([one.floor, one.ceiling, one.flags.map((f) => f.id)])
  })
  it('takes over from a file what was found, and no decision that its reader did not make', async () => {
    const id = await start()
    await call('POST', `/api/examinations/${id}/entries`, { entries: soft() })
    const file = (await call('GET', `/api/examinations/${id}/file`)).json<{ entries: FindingEntry[]; patient: object }>()
    const by = 'Dr Somebody Else'
    const decided = decision({ state: 'chosen', tier: 'routine', from: 'weeks', reason: 'seen by a colleague', by })
    const back = await call('POST', '/api/examinations/read-back', { ...file, entries: [...file.entries, decided] })
    expect([back.statusCode, back.json<{ notTaken: object[] }>().notTaken]).toEqual([
      201,
      [{ about: 'priority', state: 'chosen', by, reason: 'seen by a colleague' }],
    ])
    const copy = (await call('GET', `/api/examinations/${back.json<{ id: string }>().id}`)).json<{ entries: FindingEntry[] }>()
    expect(copy.entries.map(({ item, value }) => [item, value]).sort()).toEqual(file.entries.map(({ item, value }) => [item, value]).sort())
  })
  it('says every fault of a file that it cannot read', async () => {
    const answer = await call('POST', '/api/judge', {
      format: 'kneecap-awl-examination',
      version: 1,
      complaint: { region: 'wing', sides: ['right'] },
      asOf: '2026-01-01T00:00:00Z',
      entries: [],
    })
    expect(answer.statusCode).toBe(400)
    expect(answer.json<{ faults: { path: string }[] }>().faults[0]).toMatchObject({ path: '/complaint/region' })
  })
})

const NAME_SIGNED_IN = 'Dr Isolde Brannock'

describe('who recorded an entry', () => {
  it('is whoever was signed in; what the entry says itself is kept as said', async () => {
    const id = await server.begin()
    const [claimed, own] = [
      entry('knee.feel.calf', '1', { side: 'right', by: 'Dr Somebody Else' }),
      entry('knee.feel.fibular-head', '1', { side: 'right', by: NAME_SIGNED_IN }),
    ]
    expect((await server.record(id, claimed, own)).statusCode).toBe(200)
    const { entries } = (await call('GET', `/api/examinations/${id}`)).json<{ entries: FindingEntry[] }>()
    const of = (one: FindingEntry) => entries.find((found) => found.id === one.id)
    expect([of(claimed)?.by, of(claimed)?.saidBy]).toEqual([NAME_SIGNED_IN, 'Dr Somebody Else'])
    expect([of(own)?.by, of(own)?.saidBy]).toEqual([NAME_SIGNED_IN, undefined])
    // Sent again it is the same entry.
    expect((await server.record(id, claimed)).json()).toMatchObject({ outcomes: [{ state: 'already' }] })
    const { rows } = await server.owner.query<{ who: string }>('select a.name as who from entry x join account a on a.id = x.account_id where x.id = $1', [
      claimed.id,
    ])
    expect(rows).toEqual([{ who: NAME_SIGNED_IN }])
  })
  it('is not somebody who sends it under the same id in another name', async () => {
    const id = await server.begin()
    const one = entry('knee.feel.calf', '1', { side: 'right', by: NAME_SIGNED_IN })
    await server.record(id, one)
    const again = await call('POST', `/api/examinations/${id}/entries`, { entries: [one] }, 'quill')
    expect(again.json()).toMatchObject({ outcomes: [{ state: 'refused' }] })
  })
})

describe('a Now that a later check found otherwise', () => {
  const ARTERY = 'any.flag.arterial-hard'
  const NAME = 'Dr Isolde Brannock'
  const minutesAgo = (count: number): string => new Date(Date.now() - count * 60_000).toISOString()
  const foot = (pulse: string, colour: string, ago: number): FindingEntry[] => [
    entry('vascular.pulse-dorsalis-pedis', pulse, { side: 'right', at: minutesAgo(ago) }),
    entry('vascular.colour-foot', colour, { side: 'right', at: minutesAgo(ago) }),
  ]
  const held = async (): Promise<string> => {
    const id = await start()
    await server.record(id, entry('story.trauma', 'present', { at: minutesAgo(41) }), ...foot('absent', 'pale', 40), ...foot('normal', 'normal', 10))
    return id
  }
  const lift = (flag: string, more: object = {}): Decision => decision({ state: 'lifted', flag, side: 'right', reason: 'both feet alike', by: NAME, ...more })
  const shownFlags = async (id: string): Promise<string[]> => (await shownFor(id)).flags.filter((flag) => flag.endsWith('|now'))
  const liftsFor = async (id: string, more: object = {}): Promise<Decision[]> => (await shownFlags(id)).map((flag) => lift(flag.split('|')[0] ?? '', more))

  it('stays on the desk as Now until it is lifted, and is sealed as lifted', async () => {
    const id = await held()
    const onDesk = async (): Promise<string | undefined> =>
      (await call('GET', '/api/desk?limit=100')).json<{ examinations: { id: string; floor: string }[] }>().examinations.find((one) => one.id === id)?.floor
    expect(await shownFlags(id)).toContain(`${ARTERY}|right|now`)
    expect(await onDesk()).toBe('now')
    expect((await server.record(id, ...(await liftsFor(id)))).statusCode).toBe(200)
    expect([await shownFlags(id), await onDesk()]).toEqual([[], 'here'])
    expect((await server.sign(id)).statusCode).toBe(200)
    const { rows } = await server.owner.query<{ body: { earlier: object[] } }>('select body from verdict where examination_id = $1', [id])
    expect(rows[0]?.body.earlier).toContainEqual(
      expect.objectContaining({ id: ARTERY, lifted: expect.objectContaining({ by: NAME, reason: 'both feet alike' }) as unknown }),
    )
  })
  it('is lifted in nobody else’s name, and not without a reason', async () => {
    const id = await held()
    const refused = await server.record(id, lift(ARTERY, { by: 'Dr Tobias Quill' }), lift(ARTERY, { reason: '' }))
    expect(refused.statusCode).toBe(400)
    expect(refused.json<{ faults: { path: string }[] }>().faults.map(({ path }) => path)).toEqual(['/entries/1/reason', '/entries/0/by'])
    expect(await shownFlags(id)).toContain(`${ARTERY}|right|now`)
  })
  it('is lifted after signing by an amendment, and the verdict is reached again', async () => {
    const id = await held()
    await server.sign(id)
    const lifts = await liftsFor(id)
    expect((await server.record(id, ...lifts)).statusCode).toBe(409)
    expect((await server.record(id, ...lifts.map((one) => ({ ...one, amends: 'seen again with the surgeon' })))).statusCode).toBe(200)
    const { rows } = await server.owner.query<{ kind: string; floor: string }>('select kind, floor from verdict where examination_id = $1 order by at', [id])
    expect(rows).toEqual([
      { kind: 'signed', floor: 'now' },
      { kind: 'amended', floor: 'here' },
    ])
  })
  it('is lifted for one joint of a visit only: the other was not looked at', async () => {
    const id = await held()
    const ankle = (await call('POST', `/api/examinations/${id}/also`, { region: 'ankle', sides: ['right'], sameEvent: true })).json<{ id: string }>().id
    await server.record(id, ...(await liftsFor(id)))
    const { entries } = (await call('GET', `/api/examinations/${ankle}`)).json<{ entries: Entry[] }>()
    expect(entries.filter((one) => one.state === 'lifted')).toEqual([])
  })
})

describe('a priority that a clinician sets', () => {
  const chosen = (tier: string, from: string, more: object = {}): Decision => decision({ state: 'chosen', tier, from, by: 'Dr Isolde Brannock', ...more })
  const rowOf = async (id: string, state: 'draft' | 'signed') =>
    (await call('GET', `/api/desk?limit=100&state=${state}`))
      .json<{ examinations: { id: string; floor: string; priority: string }[] }>()
      .examinations.find((one) => one.id === id)

  it('counts on the desk, in the seal and for the clock of the referral; what was computed stays', async () => {
    const id = await start()
    expect((await server.record(id, chosen('today', 'here'))).statusCode).toBe(200)
    expect(await rowOf(id, 'draft')).toMatchObject({ floor: 'here', priority: 'today' })
    expect((await server.sign(id)).statusCode).toBe(200)
    expect(await rowOf(id, 'signed')).toMatchObject({ floor: 'here', priority: 'today' })
    expect((await call('POST', `/api/examinations/${id}/referrals`, {})).statusCode).toBe(201)
    const [referral] = (await call('GET', `/api/examinations/${id}/referrals`)).json<{
      referrals: { tier: string; destination: string; dueAt: string; flaggedAt: string }[]
    }>().referrals
    expect(referral).toMatchObject({ tier: 'today', destination: 'dest.ortho-oncall', lastEvent: 'made', lastEventAt: expect.stringMatching(/Z$/) as string })
    expect(Date.parse(referral?.dueAt ?? '') - Date.parse(referral?.flaggedAt ?? '')).toBe(24 * 3_600_000)
  })
  it('is refused in another name, without a reason to lower it, and at signing when it is not the one shown', async () => {
    const id = await start()
    const paths = async (one: Decision): Promise<string[]> =>
      (await server.record(id, one)).json<{ faults: { path: string }[] }>().faults.map(({ path }) => path)
    expect(await paths(chosen('today', 'here', { by: 'Dr Tobias Quill' }))).toEqual(['/entries/0/by'])
    expect(await paths(chosen('routine', 'weeks'))).toEqual(['/entries/0/reason'])
    expect(await paths(chosen('soon', 'weeks'))).toEqual(['/entries/0/tier'])
    expect(await paths(chosen('now', 'never'))).toEqual(['/entries/0/from'])
    expect(await paths(chosen('now', 'weeks', { side: 'left' }))).toEqual(['/entries/0/side'])
    const shown = await shownFor(id)
    await server.record(id, chosen('today', 'here'))
    const { record } = await shownFor(id)
    const answer = await call('POST', `/api/examinations/${id}/sign`, { ...shown, record })
    expect([answer.statusCode, answer.json<{ priority: string }>().priority]).toEqual([409, 'today'])
  })
})

describe('a range that is still open', () => {
  const accepted = (ceiling: string, plan: object = { plan: 'again at noon' }): Decision =>
    decision({ state: 'accepted', ceiling, reason: 'would not lie down', by: 'Dr Isolde Brannock', ...plan })
  const signs = async (id: string) => call('POST', `/api/examinations/${id}/sign`, await shownFor(id))

  it('is not signed without a reason and a plan, and both are sealed', async () => {
    const id = await start()
    const refused = await signs(id)
    expect([refused.statusCode, refused.json<object>()]).toEqual([409, expect.objectContaining({ type: '/problems/range-open', ceiling: 'now' })])
    expect((await server.record(id, accepted('now', {}))).statusCode).toBe(400)
    expect((await server.record(id, accepted('now'))).statusCode).toBe(200)
    expect((await signs(id)).statusCode).toBe(200)
  })
  it('is not accepted for more than was known: open up to Today does not cover Now', async () => {
    const id = await start()
    await server.record(id, accepted('today'))
    expect((await signs(id)).statusCode).toBe(409)
  })
})

describe('the demonstration and the audit', () => {
  it('has patients and examinations in every state', async () => {
    const { rows } = await server.owner.query<{ patients: number; examinations: number; drafts: number; tiers: number; amended: number; referrals: number }>(
      `select (select count(*)::int from patient where local_number < 'H4120') as patients, (select count(*)::int from examination) as examinations, (select count(*)::int from examination where signed_at is null) as drafts, (select count(distinct floor)::int from verdict) as tiers, (select count(*)::int from verdict where kind = 'amended') as amended, (select count(*)::int from referral) as referrals`,
    )
    const [count] = rows
    expect(count?.patients).toBeGreaterThanOrEqual(12)
    expect(count?.examinations).toBeGreaterThanOrEqual(20)
    expect(count?.drafts).toBeGreaterThan(0)
    expect(count?.tiers).toBe(6)
    expect(count?.amended).toBeGreaterThan(0)
    expect(count?.referrals).toBeGreaterThan(0)
  })
  it('has a visit for every joint', async () => {
    const { rows } = await server.owner.query<{ region: string }>(
      "select distinct e.region from examination e join patient p on p.id = e.patient_id where p.local_number < 'H4130'",
    )
    expect(rows.map(({ region }) => region).sort()).toEqual(server.pack.regions.map(({ id }) => id).sort())
  })
  it('loads once only', async () => expect(await loadDemo(server.ownerUrl, server.pack, server.sealer)).toBe('already there'))
})
