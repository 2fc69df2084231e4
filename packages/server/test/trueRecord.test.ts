import { otherSite } from './otherSite.js'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type FindingEntry } from '@kneecap-awl/core'
import { entry, newServer, type Detail, type Server } from './server.js'

let server: Server
beforeAll(async () => {
  server = await newServer('true-record')
})
afterAll(() => server.close())

const call: Server['call'] = (...args) => server.call(...args)
const start = (about?: object): Promise<string> => server.begin(about)
const ago = (minutes: number): string => new Date(Date.now() - minutes * 60_000).toISOString()
const send = (id: string, entries: readonly object[], sentAt?: string) =>
  call('POST', `/api/examinations/${id}/entries`, { entries, ...(sentAt ? { sentAt } : {}) })
const detailOf = async (id: string): Promise<Detail> => (await call('GET', `/api/examinations/${id}`)).json<Detail>()
const standingOf = async (id: string, item: string): Promise<FindingEntry[]> => (await detailOf(id)).entries.filter((one) => one.item === item)
const pulse = (value: string, more: Partial<FindingEntry> = {}): FindingEntry => entry('vascular.pulse-dorsalis-pedis', value, { side: 'right', ...more })

describe('what is acknowledged was stored', () => {
  const outcomes = async (id: string, entries: readonly FindingEntry[]) =>
    (await send(id, entries)).json<{ outcomes: { id: string; state: string; reason?: string }[] }>().outcomes

  it('tells stored, already there, and refused with a reason, one by one', async () => {
    const [mine, other] = [await start(), await start()]
    const [first, second] = [entry('story.trauma', 'present'), entry('story.fever', 'absent')]
    expect(await outcomes(mine, [first])).toMatchObject([{ id: first.id, state: 'stored' }])
    expect(await outcomes(mine, [first, second])).toMatchObject([{ state: 'already' }, { state: 'stored' }])
    expect(await outcomes(mine, [{ ...first, value: 'absent' }])).toMatchObject([
      { state: 'refused', reason: expect.stringContaining('something else') as string },
    ])
    expect(await outcomes(other, [first])).toMatchObject([{ state: 'refused', reason: expect.stringContaining('another examination') as string }])
    expect(await standingOf(other, 'story.trauma')).toEqual([])
  })
  it('refuses an id that another site uses, and keeps both as they are', async () => {
    const taken = entry('story.trauma', 'present')
    const { site, examination: elsewhere } = await otherSite(server)
    await server.owner.query(`insert into entry (id, examination_id, site_id, about, side, body, at) values ($1, $2, $3, 'story.trauma', 'none', $4, now())`, [
      taken.id,
      elsewhere,
      site,
      JSON.stringify(taken),
    ])
    expect(await outcomes(await start(), [taken])).toMatchObject([{ state: 'refused' }])
  })
})

describe('whose clock', () => {
  it('puts a slow device right, so that an absent pulse after a normal one is not taken for the earlier', async () => {
    const id = await start()
    await send(id, [entry('story.trauma', 'present'), pulse('normal', { at: ago(1), device: 'one' })], new Date().toISOString())
    const slow = ago(3)
    await send(id, [pulse('absent', { at: slow, device: 'two' })], slow)
    const found = await standingOf(id, 'vascular.pulse-dorsalis-pedis')
    const absent = found.find((one) => one.value === 'absent')
    expect(absent?.deviceAt).toBe(slow)
    expect(Math.abs(Date.parse(absent?.at ?? '') - Date.now())).toBeLessThan(5000)
    expect((await server.shownFor(id)).floor).toBe('now')
    // Sent again by the same slow clock it is the same entry.
    const again = await send(id, [pulse('absent', { id: absent?.id ?? '', at: slow, device: 'two' })], slow)
    expect(again.json()).toMatchObject({ outcomes: [{ state: 'already' }] })
  })
  it.each([
    ['the year 1', '0001-01-01T00:00:00.000Z'],
    ['the year 9999', '9999-12-31T00:00:00.000Z'],
    ['two days before the visit', ago(2 * 1440)],
    ['five minutes from now', ago(-5)],
  ])('refuses a finding of %s', async (_when, at) => {
    const answer = await send(await start(), [pulse('absent', { at })])
    expect([answer.statusCode, answer.json<{ faults: { path: string }[] }>().faults[0]?.path]).toEqual([400, '/entries/0/at'])
  })
  it('lets what was received later stand where two bear the same time', async () => {
    const id = await start()
    const at = ago(1)
    const [first, second] = [pulse('normal', { at, device: 'one' }), pulse('absent', { at, device: 'one' })].sort((a, b) => (a.id < b.id ? 1 : -1))
    await send(id, [first as FindingEntry])
    await send(id, [second as FindingEntry])
    const times = (await standingOf(id, 'vascular.pulse-dorsalis-pedis')).map((one) => [one.id, Date.parse(one.at)] as const)
    expect(Math.max(...times.map(([, time]) => time))).toBe(times.find(([one]) => one === second?.id)?.[1])
  })
})

describe('signing', () => {
  it('binds the record that was shown, not only its verdict', async () => {
    const id = await start()
    const shown = await server.shownFor(id)
    await send(id, [entry('knee.look.skin', ['scar'], { side: 'left' })])
    const answer = await call('POST', `/api/examinations/${id}/sign`, shown)
    expect([answer.statusCode, answer.json<{ type: string }>().type]).toEqual([409, '/problems/record-differs'])
  })
})

describe('after an amendment', () => {
  const referralOf = async (id: string) =>
    (await call('GET', `/api/examinations/${id}/referrals`)).json<{
      referrals: { id: string; tier: string; dueAt: string; lastEvent: string; lastNote: string; added: string | null }[]
    }>().referrals[0]

  it('an open referral follows: tier, clock and who has to be told, also when it was accepted', async () => {
    const id = await start()
    await send(id, [entry('story.trauma', 'present')])
    await server.sign(id)
    await call('POST', `/api/examinations/${id}/referrals`, { added: 'Takes warfarin, INR 2.4 this morning.' })
    const before = await referralOf(id)
    await call('POST', `/api/referrals/${before?.id ?? ''}/events`, { kind: 'accepted', note: 'Dr Vane, registrar' })
    await send(id, [
      pulse('absent', { amends: 'felt again at the door' }),
      entry('vascular.colour-foot', 'pale', { side: 'right', amends: 'seen at the door' }),
    ])
    const after = await referralOf(id)
    expect(after).toMatchObject({ tier: 'now', lastEvent: 'changed', added: 'Takes warfarin, INR 2.4 this morning.' })
    expect(after?.lastNote).toMatch(/became Now by an amendment; tell /)
    expect(after?.dueAt).not.toBe(before?.dueAt)
    const waiting = (await call('GET', '/api/referrals')).json<{ referrals: { id: string }[] }>().referrals
    expect(waiting.map((one) => one.id)).toContain(before?.id)
    const { rows } = await server.owner.query<{ reason: string }>("select reason from verdict where examination_id = $1 and kind = 'amended'", [id])
    expect(rows).toEqual([{ reason: 'felt again at the door; seen at the door' }])
  })
  it.each([
    ['spaces', '    '],
    ['signs without a letter', '… – …'],
  ])('a reason of %s is none', async (_what, amends) => {
    const id = await start()
    await server.sign(id)
    expect((await send(id, [entry('story.fever', 'present', { amends })])).json<{ faults: { path: string }[] }>().faults).toMatchObject([
      { path: '/entries/0/amends' },
    ])
  })
  it('nobody accepts a referral without saying who', async () => {
    const id = await start()
    await server.sign(id)
    await call('POST', `/api/examinations/${id}/referrals`, {})
    const referral = await referralOf(id)
    expect((await call('POST', `/api/referrals/${referral?.id ?? ''}/events`, { kind: 'accepted' })).statusCode).toBe(400)
    expect((await call('POST', `/api/referrals/${referral?.id ?? ''}/events`, { kind: 'accepted', note: 'Dr Vane' })).statusCode).toBe(201)
    expect((await call('POST', `/api/referrals/${referral?.id ?? ''}/events`, { kind: 'reopened' })).statusCode).toBe(201)
    expect((await call('GET', '/api/referrals')).json<{ referrals: { id: string }[] }>().referrals.map((one) => one.id)).toContain(referral?.id)
  })
})

describe('a draft', () => {
  const onDesk = async (search: string) => (await call('GET', `/api/desk?search=${search}`)).json<{ total: number; examinations: { id: string }[] }>()

  it('is discarded with a reason, stands with the patient, and takes nothing more', async () => {
    const id = await start({ patient: { name: 'Discarda Reed', birthDate: '1990-01-01' } })
    expect((await call('POST', `/api/examinations/${id}/discard`, { reason: '--' })).statusCode).toBe(400)
    expect((await call('POST', `/api/examinations/${id}/discard`, { reason: 'wrong patient opened' })).statusCode).toBe(200)
    expect((await onDesk('Discarda')).total).toBe(0)
    expect((await send(id, [entry('story.fever', 'present')])).json()).toMatchObject({ type: '/problems/discarded' })
    expect((await server.sign(id)).statusCode).toBe(409)
    const { patientId } = await detailOf(id)
    const { examinations } = (await call('GET', `/api/patients/${patientId}`)).json<{ examinations: { discardReason: string }[] }>()
    expect(examinations).toMatchObject([{ discardReason: 'wrong patient opened' }])
    const { rows } = await server.owner.query("select 1 from audit where action = 'draft discarded' and about = $1", [id])
    expect(rows).toHaveLength(1)
  })
  it('has its side corrected before it is signed, with a trace, and not after', async () => {
    const id = await start()
    const correct = (sides: string[]) => call('POST', `/api/examinations/${id}/sides`, { sides, reason: 'the left one hurts' })
    await send(id, [entry('knee.feel.calf', '2', { side: 'left' })])
    expect((await correct(['right'])).statusCode).toBe(400)
    expect((await correct(['none'])).statusCode).toBe(400)
    expect((await correct(['left'])).statusCode).toBe(200)
    expect((await detailOf(id)).sides).toEqual(['left'])
    const { patientId } = await detailOf(id)
    const { corrections } = (await call('GET', `/api/patients/${patientId}`)).json<{ corrections: object[] }>()
    expect(corrections).toMatchObject([{ field: 'side', was: 'right', becomes: 'left', reason: 'the left one hurts' }])
    await server.sign(id)
    expect((await correct(['right'])).statusCode).toBe(409)
  })
  it('is listed by pages with a count, found by name, and the oldest unsigned is named', async () => {
    for (let at = 0; at < 5; at++) await start({ patient: { name: `Pagewise ${'abcde'.charAt(at)}`, birthDate: '1970-01-01', isNew: true } })
    const page = (await call('GET', '/api/desk?search=Pagewise&limit=2&offset=2')).json<{
      total: number
      oldest: { patientName: string }
      examinations: { patientName: string }[]
    }>()
    expect([page.total, page.oldest.patientName, page.examinations.map((one) => one.patientName)]).toEqual([5, 'Pagewise a', ['Pagewise c', 'Pagewise b']])
    expect((await call('GET', '/api/desk?search=Pagewise&region=hip')).json()).toMatchObject({ total: 0, oldest: null })
  })
})

describe('who the patient is', () => {
  const person = { name: 'Lavender Thrush', birthDate: '1984-04-04' }
  const add = (body: object) => call('POST', '/api/patients', body)

  it('does not say of a sex that nobody asked that it is other or unknown', async () => {
    const id = await start({ patient: { name: 'Unasked Plover', birthDate: '1984-04-04', isNew: true } })
    expect(await standingOf(id, 'patient.sex')).toEqual([])
    const { patientId } = await detailOf(id)
    expect((await call('GET', `/api/patients/${patientId}`)).json()).toMatchObject({ patient: { sex: null } })
  })
  it('shows a possible duplicate before anybody is made twice', async () => {
    expect((await add(person)).statusCode).toBe(201)
    const answer = await add({ ...person, name: '  lavender  THRUSH ' })
    expect([answer.statusCode, answer.json<{ type: string }>().type]).toEqual([409, '/problems/possible-duplicate'])
    expect(answer.json()).toMatchObject({ patients: [{ name: 'Lavender Thrush', birthDate: '1984-04-04' }] })
    expect((await call('GET', '/api/patients/like?name=Lavendar%20Thrush&birthDate=1984-04-04')).json()).toMatchObject({
      patients: [{ name: 'Lavender Thrush' }],
    })
    expect((await add({ ...person, isNew: true })).statusCode).toBe(201)
  })
  it('gives each a number of their own when several are made at once, and makes nobody twice', async () => {
    const names = ['Ada Dunlin', 'Bel Curlew', 'Cy Sanderling', 'Dot Fulmar', 'Eve Garganey', 'Flo Merganser']
    const made = await Promise.all(names.map((name, at) => add({ name, birthDate: `195${at}-02-03` })))
    expect(made.map((answer) => answer.statusCode)).toEqual(names.map(() => 201))
    const numbers = made.map((answer) => answer.json<{ localNumber: string }>().localNumber)
    expect(new Set(numbers).size).toBe(names.length)
    const counted = numbers.map((number) => Number(number.slice(1))).sort((a, b) => a - b)
    expect(counted.at(-1)).toBe((counted[0] ?? 0) + names.length - 1)
    const twice = await Promise.all([1, 2, 3].map(() => add({ name: 'Gus Pochard', birthDate: '1961-05-06' })))
    expect(twice.map((answer) => answer.statusCode).sort()).toEqual([201, 409, 409])
  })
  it.each([
    ['without visible letters', '\u200b \u2060'],
    ['of digits', '12345'],
  ])('refuses a name %s', async (_what, name) => {
    expect((await add({ name, birthDate: '1984-04-04' })).json<{ faults: { path: string }[] }>().faults).toMatchObject([{ path: '/name' }])
  })
  it('keeps a name without marks that turn what stands beside it', async () => {
    expect((await add({ name: 'Odd \u202ename', birthDate: '1960-01-01' })).json()).toMatchObject({ name: 'Odd name' })
  })
  it('is corrected with a trace, and every unsigned examination learns the new age', async () => {
    const id = await start({ patient: { name: 'Correctine Wade', birthDate: '1950-01-01' } })
    const { patientId } = await detailOf(id)
    const correct = (body: object) => call('POST', `/api/patients/${patientId}/corrections`, body)
    expect((await correct({ birthDate: '2015-01-01', reason: '' })).statusCode).toBe(400)
    expect((await correct({ reason: 'nothing else' })).statusCode).toBe(400)
    expect((await correct({ birthDate: '2015-01-01', sex: 'female', reason: 'read from the passport' })).statusCode).toBe(200)
    const ages = (await standingOf(id, 'patient.age-years')).map((one) => Number(one.value))
    expect([ages.length, Math.min(...ages) < 18]).toEqual([2, true])
    const { corrections } = (await call('GET', `/api/patients/${patientId}`)).json<{ corrections: { field: string; was: string; becomes: string }[] }>()
    expect(corrections.map(({ field, was, becomes }) => [field, was, becomes]).sort()).toEqual([
      ['birthDate', '1950-01-01', '2015-01-01'],
      ['sex', 'not asked', 'female'],
    ])
  })
  it('is corrected and discarded by nobody who may not examine', async () => {
    const id = await start()
    const { patientId } = await detailOf(id)
    for (const [path, body] of [
      [`/api/patients/${patientId}/corrections`, { name: 'Other Name', reason: 'because' }],
      [`/api/examinations/${id}/discard`, { reason: 'because' }],
      [`/api/examinations/${id}/sides`, { sides: ['left'], reason: 'because' }],
    ] as const)
      expect((await call('POST', path, body, 'lark')).statusCode).toBe(403)
  })
})
