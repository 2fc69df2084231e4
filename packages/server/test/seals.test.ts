import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { SealState } from '../src/examinations/seals.js'
import { verifySeals } from '../src/examinations/seals.js'
import { Sealer } from '../src/audit/seal.js'
import { entry, newServer, type Server } from './server.js'

let server: Server
let signed = ''
beforeAll(async () => {
  server = await newServer('seals')
  signed = await server.begin()
  await server.record(signed, entry('story.trauma', 'present'), entry('knee.feel.medial-joint-line', '2', { side: 'right' }))
  await server.sign(signed)
})
afterAll(() => server.close())

interface Shown {
  readonly seal: SealState
  readonly altered: readonly { readonly what: string; readonly how: string; readonly id: string }[]
}
const verdictNow = async (): Promise<Shown> => (await server.call('GET', `/api/examinations/${signed}`)).json<{ verdict: Shown }>().verdict
const shown = async (): Promise<SealState> => (await verdictNow()).seal
const altered = async (): Promise<readonly string[]> => (await verifySeals(server.owner, server.sealer)).altered

/** Somebody who may write everything changes it past the database's own protection; then it is put back. */
async function changed(sql: string, back: string): Promise<{ readonly shown: SealState; readonly rows: readonly string[]; readonly found: readonly string[] }> {
  const all = async (statement: string): Promise<void> => {
    for (const one of ['set session_replication_role = replica', statement, 'set session_replication_role = default'].filter(Boolean)) await db.query(one)
  }
  const db = await server.owner.connect()
  try {
    await all(sql)
    const { seal, altered: rows } = await verdictNow()
    const result = { shown: seal, rows: rows.map(({ what, how }) => `${what} ${how}`), found: await altered() }
    await all(back)
    return result
  } finally {
    db.release()
  }
}

describe('the seal of a signed record', () => {
  it('is whole for every record of the demonstration, and for one that was just signed', async () => {
    const report = await verifySeals(server.owner, server.sealer)
    expect(report).toMatchObject({ altered: [], unsealed: 0 })
    expect(report.whole).toBeGreaterThan(10)
    expect(await shown()).toBe('whole')
  })
  it.each([
    [
      'an entry',
      'entry altered',
      `update entry set body = jsonb_set(body, '{value}', '"0"') where body ->> 'value' = '2' and examination_id = '$'`,
      `update entry set body = jsonb_set(body, '{value}', '"2"') where body ->> 'value' = '0' and examination_id = '$'`,
    ],
    [
      'the verdict',
      'verdict altered',
      `update verdict set floor = 'routine', reason = floor where examination_id = '$'`,
      `update verdict set floor = reason, reason = '' where examination_id = '$'`,
    ],
    ['the side', 'examination altered', `update examination set sides = '{left}' where id = '$'`, `update examination set sides = '{right}' where id = '$'`],
    [
      'the setting',
      'examination altered',
      `update examination set setting = 'emergency' where id = '$'`,
      `update examination set setting = 'primary-care' where id = '$'`,
    ],
    [
      'the time of the signature',
      'examination altered',
      `update examination set signed_at = signed_at - interval '1 day' where id = '$'`,
      `update examination set signed_at = signed_at + interval '1 day' where id = '$'`,
    ],
    [
      'the patient',
      'examination altered',
      `update examination set patient_id = (select min(id::text)::uuid from patient), discard_reason = patient_id::text where id = '$'`,
      `update examination set patient_id = discard_reason::uuid, discard_reason = '' where id = '$'`,
    ],
    [
      'the list of entries',
      // To its seal the entry that is listed no more was put in.
      'entry added',
      `update seal set entries = entries[2:] where verdict_id = (select id from verdict where examination_id = '$')`,
      `update seal set entries = (select array_agg(id order by id) from entry where examination_id = '$') where verdict_id = (select id from verdict where examination_id = '$')`,
    ],
    [
      'an entry that was put in',
      'entry added',
      `insert into entry (id, examination_id, site_id, about, side, body, at) select gen_random_uuid(), examination_id, site_id, 'put-in', side, body, at from entry where examination_id = '$' limit 1`,
      `delete from entry where about = 'put-in'`,
    ],
  ])('shows where somebody altered %s', async (_what, row, sql, back) => {
    const here = (statement: string): string => statement.replaceAll('$', signed)
    const { shown: seal, rows, found } = await changed(here(sql), here(back))
    expect([seal, rows[0], found]).toEqual(['altered', row, [signed]])
    expect([await shown(), await altered()]).toEqual(['whole', []])
  })
  it('needs the key: with another one nothing fits', async () => {
    expect((await verifySeals(server.owner, new Sealer('another key'))).whole).toBe(0)
  })
  it('follows an amendment: both verdicts are what was sealed with each', async () => {
    await server.record(signed, entry('knee.feel.fibular-head', '1', { side: 'right', amends: 'The film shows a line there.' }))
    expect([await shown(), await altered()]).toEqual(['whole', []])
  })
  it('is told as none for what was signed before there were seals', async () => {
    expect(await changed('delete from seal', 'select 1')).toEqual({ shown: 'unsealed', rows: [], found: [] })
  })
})
