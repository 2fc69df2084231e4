import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { examinedNormal, viewOf, type FindingEntry, type Side } from '@kneecap-awl/core'
import { v7 as uuid7 } from 'uuid'
import { otherSite } from './otherSite.js'
import { entry, newServer, type Detail, type Server } from './server.js'

let server: Server
beforeAll(async () => {
  server = await newServer('visits')
})
afterAll(() => server.close())

const PULSE = 'vascular.pulse-dorsalis-pedis'
const pulse = (value: string, more: Partial<FindingEntry> = {}): FindingEntry => entry(PULSE, value, { side: 'right', ...more })
const ago = (minutes: number): string => new Date(Date.now() - minutes * 60_000).toISOString()
const detailOf = async (id: string): Promise<Detail> => (await server.call('GET', `/api/examinations/${id}`)).json<Detail>()
const again = async (id: string, about: object = {}): Promise<string> => server.begin({ patientId: (await detailOf(id)).patientId, ...about })
const foundBefore = async (id: string): Promise<unknown[]> => (await detailOf(id)).previous.map((one) => [one.item, one.side, one.value])
const flagsOf = async (id: string): Promise<readonly string[]> => (await server.shownFor(id)).flags

/** A knee that was examined and signed, with what was found. */
async function signedKnee(...found: readonly FindingEntry[]): Promise<string> {
  const id = await server.begin()
  await server.record(id, ...found)
  expect((await server.sign(id)).statusCode).toBe(200)
  return id
}

describe('an examination and the ones before it', () => {
  it('is compared with what was found at the same joint of the same patient', async () => {
    // What was found now counts as a check done anew only some minutes later.
    const now = await again(await signedKnee(pulse('normal', { at: ago(6) })))
    expect(await foundBefore(now)).toEqual([[PULSE, 'right', 'normal']])
    await server.record(now, pulse('reduced'))
    expect(await flagsOf(now)).toContain('any.flag.pulse-change|right|now')
    const signed = await server.sign(now)
    expect(signed.json()).toMatchObject({ verdict: { floor: 'now' } })
  })
  it('takes the last of several, and of each only what stood in the end', async () => {
    const first = await signedKnee(pulse('absent'))
    const second = await again(first)
    await server.record(second, pulse('reduced'), pulse('normal', { at: new Date(Date.now() + 1000).toISOString() }))
    await server.sign(second)
    expect(await foundBefore(await again(first))).toEqual([[PULSE, 'right', 'normal']])
  })
  it('takes nothing that was taken back, could not be done, or that no rule compares', async () => {
    const first = await signedKnee(
      pulse('normal'),
      pulse('normal', { state: 'not-examined', at: new Date(Date.now() + 1000).toISOString() }),
      entry('vascular.pulse-posterior-tibial', undefined, { side: 'right', state: 'could-not', reason: 'pain' }),
      entry('knee.feel.medial-joint-line', '2', { side: 'right' }),
    )
    expect(await foundBefore(await again(first))).toEqual([])
  })
  it.each<[string, object]>([
    ['another joint', { region: 'ankle' }],
    ['a neck', { region: 'neck', sides: ['none'] satisfies Side[] }],
  ])('takes nothing of %s', async (_what, about) => {
    expect(await foundBefore(await again(await signedKnee(pulse('normal')), about))).toEqual([])
  })
  it('takes nothing of an examination that is not signed, nor of another patient', async () => {
    const open = await server.begin()
    await server.record(open, pulse('normal'))
    expect(await foundBefore(await again(open))).toEqual([])
    await signedKnee(pulse('normal'))
    expect(await foundBefore(await server.begin())).toEqual([])
  })
  it('is judged alike however the earlier one is amended later', async () => {
    const first = await signedKnee(pulse('normal'))
    const now = await again(first)
    const amended = await server.record(first, pulse('absent', { amends: 'told by the ward' }))
    expect(amended.statusCode).toBe(200)
    expect(await foundBefore(now)).toEqual([[PULSE, 'right', 'normal']])
  })
  it('has in its file what it was compared with, and that is judged to the same verdict', async () => {
    const now = await again(await signedKnee(pulse('normal', { at: ago(6) })))
    await server.record(now, pulse('absent'))
    const file = (await server.call('GET', `/api/examinations/${now}/file`)).json<{ previous: FindingEntry[] }>()
    expect(file.previous.map((one) => one.value)).toEqual(['normal'])
    const judged = (await server.call('POST', '/api/judge', file)).json<{ floor: string; flags: { id: string }[] }>()
    expect([judged.floor, judged.flags.map((flag) => flag.id).includes('any.flag.pulse-change')]).toEqual(['now', true])
  })
  it('seals with what it was compared with', async () => {
    const hashOf = async (id: string): Promise<string> => (await server.sign(id)).json<{ verdict: { recordHash: string } }>().verdict.recordHash
    const found = pulse('reduced')
    const first = await signedKnee(pulse('normal'))
    const compared = await again(first)
    const alone = await server.begin()
    const copy = { ...found, id: uuid7() }
    await server.record(compared, found)
    await server.record(alone, copy)
    expect(await hashOf(compared)).not.toBe(await hashOf(alone))
  })
  it('is on the desk to be seen again, the first first, until the same joint is examined again', async () => {
    const listed = async (): Promise<unknown[]> =>
      (await server.call('GET', '/api/desk?state=review&search=Lapwing'))
        .json<{ examinations: { id: string; reviewOn: string }[] }>()
        .examinations.map((one) => [one.id, one.reviewOn])
    const signedFor = async (name: string, ...days: readonly string[]): Promise<string> => {
      const id = await server.begin({ patient: { name, birthDate: '1986-05-05', isNew: true } })
      for (const day of days) await server.record(id, entry('plan.review-on', `${day}T12:00:00.000Z`, { qualifiers: { precision: 'day' } }))
      await server.sign(id)
      return id
    }
    const later = await signedFor('Lapwing Late', '2031-04-01')
    const sooner = await signedFor('Lapwing Soon', '2031-05-01', '2031-03-01')
    await signedFor('Lapwing Never')
    expect(await listed()).toEqual([
      [sooner, '2031-03-01T12:00:00.000Z'],
      [later, '2031-04-01T12:00:00.000Z'],
    ])
    await again(sooner)
    expect(await listed()).toEqual([[later, '2031-04-01T12:00:00.000Z']])
  })
  it('stands on the desk with the priority that the comparison gives', async () => {
    const now = await again(await signedKnee(pulse('normal', { at: ago(6) })))
    await server.record(now, pulse('absent'))
    const desk = (await server.call('GET', '/api/desk?limit=100')).json<{ examinations: { id: string; floor: string }[] }>()
    expect(desk.examinations.find((one) => one.id === now)?.floor).toBe('now')
  })
})

describe('a visit that begins with several joints', () => {
  const HAND = 'hand.history.pain-site'
  const two = (also: object, more: object = {}) =>
    server.call('POST', '/api/examinations', {
      patient: { name: 'Perpetua Moss', birthDate: '1971-02-03', isNew: true },
      region: 'hand',
      sides: ['right'],
      setting: 'primary-care',
      told: [
        { item: 'story.trauma', value: 'present' },
        { item: HAND, side: 'right', value: ['palm'] },
        { item: HAND, side: 'right', value: ['thumb base'] },
      ],
      also: [{ region: 'knee', sides: ['left'], sameEvent: true, ...also }],
      ...more,
    })
  const told = ({ entries }: Detail): string[] =>
    entries.filter(({ item }) => !item.startsWith('patient.')).map(({ item, side, value }) => `${item} ${side} ${String(value)}`)
  it('keeps what was told of the first, and the history of one event for the others', async () => {
    const begun = await two({})
    expect(begun.json()).toEqual({ id: expect.any(String) as string })
    const { id } = begun.json<{ id: string }>()
    const hand = await detailOf(id)
    expect(told(hand)).toEqual(['story.trauma none present', `${HAND} right palm,thumb base`])
    const [knee] = hand.visitWith
    expect(knee).toMatchObject({ region: 'knee', sides: ['left'] })
    expect(told(await detailOf(knee?.id ?? ''))).toEqual(['story.trauma none present'])
  })
  it('shares no history where each joint has its own', async () => {
    const { id } = (await two({ sameEvent: false })).json<{ id: string }>()
    const [knee] = (await detailOf(id)).visitWith
    expect(told(await detailOf(knee?.id ?? ''))).toEqual([])
  })
  it('begins whole or not at all', async () => {
    const count = async (): Promise<unknown> => (await server.owner.query('SELECT count(*) FROM patient')).rows
    const before = await count()
    const wrongJoint = await two({ region: 'tail' })
    expect(wrongJoint.statusCode).toBe(400)
    const wrongWord = await two({}, { told: [{ item: HAND, value: 'elsewhere' }] })
    expect(wrongWord.statusCode).toBe(400)
    expect(wrongWord.json<{ faults: { path: string }[] }>().faults[0]?.path).toMatch(/^\/told\/0/)
    expect(await count()).toEqual(before)
  })
})

describe('who is refused what', () => {
  const calm = (): FindingEntry[] => examinedNormal(viewOf(server.pack, 'knee'), ['card', 'core'], { by: 'test', at: new Date().toISOString(), newId: uuid7 })
  const doings: readonly (readonly [string, (id: string, signIn: string) => ReturnType<Server['call']>])[] = [
    [
      'begin',
      (_, who) =>
        server.call(
          'POST',
          '/api/examinations',
          { patient: { name: 'Refused Ruff', birthDate: '1980-01-01', isNew: true }, region: 'knee', sides: ['right'], setting: 'primary-care' },
          who,
        ),
    ],
    ['record', (id, who) => server.call('POST', `/api/examinations/${id}/entries`, { entries: [entry('story.trauma', 'present')] }, who)],
    ['read', (id, who) => server.call('GET', `/api/examinations/${id}`, undefined, who)],
    ['download', (id, who) => server.call('GET', `/api/examinations/${id}/file`, undefined, who)],
    [
      'sign',
      (id, who) =>
        server.call('POST', `/api/examinations/${id}/sign`, { record: '0'.repeat(64), floor: 'here', ceiling: 'here', priority: 'here', flags: [] }, who),
    ],
    ['refer', (id, who) => server.call('POST', `/api/examinations/${id}/referrals`, {}, who)],
    ['list referrals', (_, who) => server.call('GET', '/api/referrals', undefined, who)],
    ['find patients', (_, who) => server.call('GET', '/api/patients?search=a', undefined, who)],
    ['add a patient', (_, who) => server.call('POST', '/api/patients', { name: 'Refused Reeve', birthDate: '1980-01-01' }, who)],
  ]
  it.each(doings.flatMap(([what, doing]) => (['fenn', 'lark', ''] as const).map((who) => [what, who, doing] as const)))(
    'to %s is not for %s',
    async (_what, who, doing) => {
      const id = await server.begin()
      const answer = await doing(id, who)
      expect(answer.statusCode).toBe(who === '' ? 401 : 403)
      expect(answer.headers['content-type']).toContain('application/problem+json')
    },
  )
  it('a learner and an administrator may try the judge', async () => {
    const id = await server.begin()
    await server.record(id, ...calm())
    const file = (await server.call('GET', `/api/examinations/${id}/file`)).json<object>()
    for (const who of ['fenn', 'lark']) expect((await server.call('POST', '/api/judge', file, who)).statusCode).toBe(200)
  })
})

describe('what is asked for and is not there, or is asked for wrongly', () => {
  const NOBODY = '01920000-0000-7000-8000-00000000dead'
  it.each<[string, 'GET' | 'POST', string, object | undefined, number]>([
    ['an examination', 'GET', `/api/examinations/${NOBODY}`, undefined, 404],
    ['its file', 'GET', `/api/examinations/${NOBODY}/file`, undefined, 404],
    ['entries for it', 'POST', `/api/examinations/${NOBODY}/entries`, { entries: [entry('story.trauma', 'present')] }, 404],
    [
      'a signature under it',
      'POST',
      `/api/examinations/${NOBODY}/sign`,
      { record: '0'.repeat(64), floor: 'here', ceiling: 'here', priority: 'here', flags: [] },
      404,
    ],
    ['a referral from it', 'POST', `/api/examinations/${NOBODY}/referrals`, {}, 404],
    ['another joint beside it', 'POST', `/api/examinations/${NOBODY}/also`, { region: 'hip', sides: ['right'], sameEvent: true }, 404],
    ['an event of a referral', 'POST', `/api/referrals/${NOBODY}/events`, { kind: 'told', note: 'Dr Nobody' }, 404],
    ['a patient', 'GET', `/api/patients/${NOBODY}`, undefined, 404],
    ['an examination for a patient', 'POST', '/api/examinations', { patientId: NOBODY, region: 'knee', sides: ['right'], setting: 'primary-care' }, 404],
    ['a pack', 'GET', '/api/packs/0123456789abcdef/knee', undefined, 404],
    ['an id that is none', 'GET', '/api/examinations/seventeen', undefined, 400],
    ['an address', 'GET', '/api/nowhere', undefined, 404],
    ['no entries at all', 'POST', `/api/examinations/${NOBODY}/entries`, { entries: [] }, 400],
    ['a patient without a name', 'POST', '/api/patients', { birthDate: '1980-01-01' }, 400],
    ['a birth date to come', 'POST', '/api/patients', { name: 'Not Yet', birthDate: '2999-01-01' }, 400],
    ['a birth date that is no date', 'POST', '/api/patients', { name: 'No Day', birthDate: '1980-02-31' }, 400],
    ['an examination of nobody', 'POST', '/api/examinations', { region: 'knee', sides: ['right'], setting: 'primary-care' }, 400],
    [
      'a joint that is not in the pack',
      'POST',
      '/api/examinations',
      { patient: { name: 'A Tail', birthDate: '1980-01-01' }, region: 'tail', sides: ['right'], setting: 'primary-care' },
      400,
    ],
    [
      'a setting that is none',
      'POST',
      '/api/examinations',
      { patient: { name: 'At Sea', birthDate: '1980-01-01' }, region: 'knee', sides: ['right'], setting: 'at sea' },
      400,
    ],
    ['a time zone that is none', 'POST', `/api/examinations/${NOBODY}/referrals`, { zone: 'Harbour/Town' }, 400],
  ])('%s', async (_what, method, url, payload, status) => {
    const answer = await server.call(method, url, payload)
    expect(answer.statusCode).toBe(status)
    expect(answer.headers['content-type']).toContain('application/problem+json')
    expect(answer.json<{ title: string }>().title.length).toBeGreaterThan(10)
  })
  it('a referral of another site, which stays as it was', async () => {
    const id = await server.begin()
    await server.record(id, pulse('absent'), entry('story.trauma', 'present'))
    await server.sign(id)
    const referral = (await server.call('POST', `/api/examinations/${id}/referrals`, {})).json<{ id: string }>().id
    const { clinician } = await otherSite(server)
    const told = (by: string) => server.call('POST', `/api/referrals/${referral}/events`, { kind: 'told', note: 'Dr Vane' }, by)
    expect((await told('brannock')).statusCode).toBe(201)
    expect((await told(clinician)).statusCode).toBe(404)
    const { rows } = await server.owner.query<{ n: number }>("select count(*)::int as n from referral_event where referral_id = $1 and kind = 'told'", [
      referral,
    ])
    expect(rows[0]?.n).toBe(1)
  })
  it('leaves nothing behind of an examination whose patient was refused', async () => {
    const count = async (): Promise<number> => (await server.owner.query<{ n: number }>('select count(*)::int as n from examination')).rows[0]?.n ?? 0
    const before = await count()
    await server.call('POST', '/api/examinations', {
      patient: { name: 'Not Yet', birthDate: '2999-01-01' },
      region: 'knee',
      sides: ['right'],
      setting: 'primary-care',
    })
    expect(await count()).toBe(before)
  })
})
