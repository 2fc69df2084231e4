import type { PatientFile } from '@kneecap-awl/contract'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { verifySeals } from '../src/examinations/seals.js'
import { otherSite, type OtherSite } from './otherSite.js'
import { entry, newServer, type Detail, type Server } from './server.js'

let server: Server
let other: OtherSite
beforeAll(async () => {
  server = await newServer('person')
  other = await otherSite(server)
})
afterAll(() => server.close())

interface Known {
  readonly patient: { readonly id: string; readonly name: string }
  readonly examinations: readonly { readonly id: string; readonly patientName: string }[]
  readonly mergedInto: { readonly id: string } | null
  readonly merged: readonly { readonly id: string }[]
  readonly merges: readonly object[]
}
const add = async (name: string, birthDate: string): Promise<string> =>
  (await server.call('POST', '/api/patients', { name, birthDate, isNew: true })).json<{ id: string }>().id
const known = async (id: string): Promise<Known> => (await server.call('GET', `/api/patients/${id}`)).json<Known>()
const merge = (id: string, patient: string, what: 'merge' | 'separate' = 'merge', reason = 'same passport, asked her') =>
  server.call('POST', `/api/patients/${id}/${what}`, { patient, reason }, 'quill')
const ids = (list: readonly { readonly id: string }[]): string[] => list.map(({ id }) => id).sort()

describe('two records of one person', () => {
  let stays = ''
  let goes = ''
  let [signed, draft, own] = ['', '', '']
  beforeAll(async () => {
    stays = await add('Avis Shearwater', '1980-02-03')
    goes = await add('A. Shearwater', '1970-02-03')
    signed = await server.begin({ patientId: goes })
    await server.record(signed, entry('knee.move.flexion', 100, { side: 'right' }))
    expect((await server.sign(signed)).statusCode).toBe(200)
    draft = await server.begin({ patientId: goes })
    own = await server.begin({ patientId: stays })
    expect((await merge(stays, goes)).statusCode).toBe(204)
  })

  it('are one: the record that stays shows what either was begun with, by its name, and the other leads to it', async () => {
    const kept = await known(stays)
    expect(ids(kept.examinations)).toEqual([signed, draft, own].sort())
    expect(kept.examinations.every(({ patientName }) => patientName === 'Avis Shearwater')).toBe(true)
    expect(kept.merges).toMatchObject([
      {
        kind: 'merged',
        patient: goes,
        name: 'A. Shearwater',
        birthDate: '1970-02-03',
        reason: 'same passport, asked her',
        by: expect.stringContaining('Quill') as string,
      },
    ])
    const gone = await known(goes)
    expect([gone.mergedInto?.id, gone.examinations]).toEqual([stays, []])
    const found = (await server.call('GET', '/api/patients?search=Shearwater')).json<{ patients: { id: string }[] }>().patients
    expect(ids(found)).toEqual([stays])
    // Who begins with the other is examined as the person.
    const later = await server.begin({ patientId: goes })
    expect((await server.call('GET', `/api/examinations/${later}`)).json<Detail>().patientId).toBe(stays)
  })
  it('leaves every seal whole, tells drafts the age that holds, and compares with what the other was found to have', async () => {
    expect((await verifySeals(server.owner, server.sealer)).altered).toEqual([])
    const { entries, previous } = (await server.call('GET', `/api/examinations/${draft}`)).json<Detail>()
    const ages = entries.filter(({ item }) => item === 'patient.age-years').map(({ value }) => Number(value))
    expect(ages.at(-1)).toBe((ages[0] ?? 0) - 10)
    expect(previous).toEqual((await server.call('GET', `/api/examinations/${own}`)).json<Detail>().previous)
  })
  it('are not merged twice, with themselves, into a chain, without a reason, by anybody, or with those of another site', async () => {
    const third = await add('Third Shearwater', '1960-01-01')
    expect((await merge(stays, goes)).statusCode).toBe(409)
    expect((await merge(goes, third)).statusCode).toBe(409)
    const chain = await merge(third, stays)
    expect([chain.statusCode, chain.json<{ title: string }>().title]).toEqual([409, expect.stringContaining('stands for other records')])
    expect((await merge(stays, stays)).json()).toMatchObject({ faults: [{ path: '/patient' }] })
    expect((await merge(stays, third, 'merge', '--')).json()).toMatchObject({ faults: [{ path: '/reason' }] })
    expect((await merge(stays, other.patient)).statusCode).toBe(404)
    expect((await merge(third, goes, 'separate')).statusCode).toBe(409)
    const chained = server.owner.query('update patient set merged_into = $2 where id = $1', [stays, third])
    await expect(chained).rejects.toThrow('stands for others')
  })
  it('are exported as one, with verdicts, referrals and who read them', async () => {
    const answer = await server.call('GET', `/api/patients/${stays}/file`, undefined, 'quill')
    const file = answer.json<PatientFile>()
    expect(answer.headers['content-disposition']).toContain('attachment; filename="patient-H')
    expect(file.examinations).toHaveLength(4)
    const whole = file.examinations.find(({ id }) => id === signed)
    expect(whole).toMatchObject({
      format: 'kneecap-awl-examination',
      verdicts: [{ kind: 'signed', by: 'Dr Isolde Brannock' }],
      signed: { by: 'Dr Isolde Brannock' },
    })
    expect(file.merged).toMatchObject([{ id: goes, name: 'A. Shearwater' }])
    expect(file.access.map(({ action }) => action)).toEqual(expect.arrayContaining(['patient added', 'examination signed', 'patients merged', 'patient read']))
    const audited = await server.owner.query("select 1 from audit where action = 'patient exported' and about = $1", [stays])
    expect(audited.rowCount).toBe(1)
  })
  it('of which one has a referral: it is in the file, as it was sent', async () => {
    const waiting = (await server.call('GET', '/api/referrals')).json<{ referrals: { patientId: string; destination: string }[] }>().referrals[0]
    const file = (await server.call('GET', `/api/patients/${waiting?.patientId ?? ''}/file`, undefined, 'quill')).json<PatientFile>()
    const referrals = file.examinations.flatMap((one) => one.referrals)
    expect(referrals).toContainEqual(expect.objectContaining({ letter: expect.objectContaining({}) as object, events: expect.arrayContaining([]) as object }))
  })
  it('are parted again: each with what was begun with it, and the range of each draft is worked out anew', async () => {
    expect((await merge(stays, goes, 'separate', 'two cousins after all')).statusCode).toBe(204)
    expect(ids((await known(goes)).examinations)).toEqual([signed, draft].sort())
    expect((await known(stays)).merged).toEqual([])
    expect((await known(goes)).merges).toMatchObject([{ kind: 'separated', reason: 'two cousins after all' }, { kind: 'merged' }])
    const { entries } = (await server.call('GET', `/api/examinations/${draft}`)).json<Detail>()
    const ages = entries.filter(({ item }) => item === 'patient.age-years').map(({ value }) => Number(value))
    expect(ages.at(-1)).toBe(ages[0])
    await vi.waitFor(async () => expect((await server.owner.query('select 1 from range_job where examination_id = $1', [draft])).rowCount).toBe(0), {
      timeout: 20_000,
    })
  })
})
