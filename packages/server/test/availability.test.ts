import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { entry, newServer, type Server } from './server.js'

let server: Server
beforeAll(async () => {
  server = await newServer('availability')
})
afterAll(() => server.close())

interface Page {
  readonly examinations: readonly { readonly id: string; readonly floor: string; readonly priority: string }[]
}
const deskRow = async (id: string) => (await server.call('GET', '/api/desk?state=draft')).json<Page>().examinations.find((one) => one.id === id)
const keptOf = async (id: string) =>
  (await server.owner.query<{ entries: number; floor: string }>('select entries, floor from standing_range where examination_id = $1', [id])).rows

describe('a record that takes long to judge', () => {
  /** A pulse that was checked again and again, for weeks: as much work as a request can ask for. */
  const endless = (count: number): object => {
    const at = (n: number): string => new Date(Date.now() - 400 * 86_400_000 + n * 360_000).toISOString()
    const entries = Array.from({ length: count }, (_, n) =>
      entry('vascular.pulse-dorsalis-pedis', n % 2 === 0 ? 'absent' : 'normal', { side: 'right', at: at(n) }),
    )
    return { format: 'kneecap-awl-examination', version: 2, complaint: { region: 'knee', sides: ['right'] }, asOf: at(0), entries }
  }

  it('keeps nobody else waiting, and is ended', async () => {
    const asked = server.call('POST', '/api/judge', endless(5000), 'lark')
    const id = await server.begin()
    expect((await server.record(id, entry('vascular.pulse-dorsalis-pedis', 'absent', { side: 'right' }))).statusCode).toBe(200)
    // The machine may be busy with it; the others wait for a moment at most.
    await vi.waitFor(async () => expect((await deskRow(id))?.floor).toBe('today'), { timeout: 4000 })
    expect((await server.sign(id)).statusCode).toBe(200)
    let isAnswered = false
    void asked.then(() => (isAnswered = true))
    await new Promise((wake) => setImmediate(wake))
    expect(isAnswered).toBe(false)
    const answer = await asked
    expect([answer.statusCode, answer.json<{ type: string }>().type]).toEqual([422, '/problems/too-long-to-judge'])
    expect((await server.call('POST', '/api/judge', endless(2), 'lark')).statusCode).toBe(200)
  })
})

describe('where an unsigned examination stands', () => {
  it('is kept with each entry, and read by the lists', async () => {
    const id = await server.begin()
    await server.record(id, entry('vascular.pulse-dorsalis-pedis', 'absent', { side: 'right' }))
    expect(await deskRow(id)).toMatchObject({ floor: 'today', priority: 'today' })
    const [kept] = await keptOf(id)
    expect(kept).toEqual({ entries: expect.any(Number) as number, floor: 'today' })
  })
  it('is worked out again where what is kept is of another number of entries, or of another side', async () => {
    const id = await server.begin()
    await server.record(id, entry('vascular.pulse-dorsalis-pedis', 'absent', { side: 'left' }))
    const before = (await deskRow(id))?.floor
    await server.owner.query('update standing_range set entries = entries - 1, floor = $2 where examination_id = $1', [id, 'routine'])
    expect((await deskRow(id))?.floor).toBe(before)
    const corrected = await server.call('POST', `/api/examinations/${id}/sides`, { sides: ['left'], reason: 'the other side hurts' })
    expect(corrected.statusCode).toBe(200)
    expect((await deskRow(id))?.floor).toBe('today')
  })
  it('is of no other site', async () => {
    const id = await server.begin()
    await deskRow(id)
    const seen = await server.pool.query('select 1 from standing_range where examination_id = $1', [id])
    expect(seen.rowCount).toBe(0)
  })
})
