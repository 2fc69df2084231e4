import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { buildApp } from '../src/app.js'
import { judgingThreads } from '../src/judging/threads.js'
import { PackStore } from '../src/packs/service.js'
import { newServer, type Server } from './server.js'

let server: Server
beforeAll(async () => {
  server = await newServer('logs')
})
afterAll(() => server.close())

/** Words that only this patient has. */
const PATIENT = { name: 'Zebedee Quagmire', birthDate: '1931-07-13', contact: 'Gallows Lane 77' }
const SECRET = /Zebedee|Quagmire|1931-07-13|Gallows|Warfarin/

describe('what goes wrong', () => {
  it('is logged with the reference that was told, and neither log holds a word about a patient', async () => {
    const lines: string[] = []
    const judge = judgingThreads(server.pack)
    const app = await buildApp({ pool: server.pool, packStore: new PackStore(server.pack, judge), log: { write: (line) => void lines.push(line) } })
    const signedIn = await app.inject({ method: 'POST', url: '/api/session', payload: { signIn: 'brannock', password: 'harbour-light' } })
    const cookie = String(signedIn.headers['set-cookie']).split(';')[0] ?? ''
    const ask = (method: 'GET' | 'POST', url: string, payload?: object) => app.inject({ method, url, headers: { cookie }, ...(payload ? { payload } : {}) })
    const begun = await ask('POST', '/api/examinations', { patient: PATIENT, region: 'knee', sides: ['right'], setting: 'emergency' })
    const { id } = begun.json<{ id: string }>()
    const note = (more: object) => ({
      entries: [
        { id, item: 'story.anticoagulant', side: 'none', state: 'examined', value: 'present', note: 'Warfarin', by: 'x', at: '2026-01-01T00:00:00Z', ...more },
      ],
    })
    await ask('GET', '/api/patients?search=Quagmire')
    await ask('POST', '/api/patients', PATIENT)
    await ask('POST', '/api/patients', { ...PATIENT, birthDate: '1931-07-13T00:00:00Z' })
    await ask('POST', `/api/examinations/${id}/entries`, note({ value: 'Warfarin' }))
    await ask('POST', `/api/examinations/${id}/discard`, { reason: 'Zebedee went home' })
    // The database fails in every way that it has: a table that is gone, one that is locked, a value that it does not hold, a row that does not fit.
    await server.owner.query("alter table patient add constraint no_quagmire check (contact not like 'Gallows%77') not valid")
    const { patientId } = (await ask('GET', `/api/examinations/${id}`)).json<{ patientId: string }>()
    const unfit = await ask('POST', `/api/patients/${patientId}/corrections`, { name: 'Zebedee Quagmire the Younger', reason: 'Quagmire is two people' })
    expect(unfit.statusCode).toBe(400)
    await server.owner.query('alter table patient drop constraint no_quagmire')
    await server.owner.query('alter table correction rename to mislaid')
    const failed = await ask('POST', `/api/patients/${patientId}/corrections`, { name: 'Zebedee Quagmire the Younger', reason: 'Quagmire is two people' })
    await server.owner.query('alter table mislaid rename to correction')
    await server.owner
      .query(
        "insert into patient (id, site_id, local_number, name, birth_date) select id, site_id, local_number, name, birth_date from patient where name = 'Zebedee Quagmire'",
      )
      .catch(() => undefined)
    await app.close()
    await judge.close()

    expect(failed.statusCode).toBe(500)
    const reference = /Reference ([0-9a-f]{8})/.exec(failed.json<{ title: string }>().title)?.[1] ?? 'none'
    const logged = lines.map((line) => JSON.parse(line) as { reqId?: string; level: number })
    expect(logged.find((line) => line.reqId === reference)?.level).toBeGreaterThanOrEqual(50)
    expect(lines.filter((line) => SECRET.test(line))).toEqual([])
    const folder = join(server.cluster.data, 'log')
    const logOfDatabase = (): string =>
      readdirSync(folder)
        .map((file) => readFileSync(join(folder, file), 'utf8'))
        .join('')
    // It is written by a process of its own.
    await vi.waitFor(() => expect(logOfDatabase()).toContain('relation "correction" does not exist'))
    expect(
      logOfDatabase()
        .split('\n')
        .filter((line) => SECRET.test(line)),
    ).toEqual([])
  })
})
