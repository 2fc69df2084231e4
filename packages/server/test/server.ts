import type { FastifyInstance } from 'fastify'
import type pg from 'pg'
import {
  judgement,
  rangeToAccept,
  shownVerdict,
  type Decision,
  type Entry,
  type Examination,
  type FindingEntry,
  type Pack,
  type ShownVerdict,
} from '@kneecap-awl/core'
import { buildApp } from '../src/app.js'
import { sealWith } from '../src/audit/queries.js'
import { Sealer } from '../src/audit/seal.js'
import { connect } from '../src/db/connect.js'
import { migrate } from '../src/db/migrate.js'
import { v7 as uuid7 } from 'uuid'
import { DEMO_PASSWORD, loadDemo } from '../src/demo/load.js'
import { judgingThreads } from '../src/judging/threads.js'
import { Changes } from '../src/live/changes.js'
import { PackStore, shippedPack } from '../src/packs/service.js'
import { newCluster, type Cluster } from './database.js'

type Method = 'GET' | 'POST' | 'DELETE'
type Answer = Awaited<ReturnType<FastifyInstance['inject']>> & { statusCode: number }

/** The whole server over a database of its own, with the demonstration loaded. */
export interface Server {
  readonly app: FastifyInstance
  readonly cluster: Cluster
  /** As the server connects: bound to one site. */
  readonly pool: pg.Pool
  /** As the owner of the tables connects. */
  readonly owner: pg.Pool
  readonly ownerUrl: string
  /** The key of the audit chain, and what was noted of it outside of the database. */
  readonly sealer: Sealer
  readonly pack: Pack
  /** @param signIn name of a demonstration account; empty for nobody */
  readonly call: (method: Method, url: string, payload?: object | string, signIn?: string, headers?: Record<string, string>) => Promise<Answer>
  readonly begin: (about?: object) => Promise<string>
  readonly record: (id: string, ...entries: readonly Entry[]) => Promise<Answer>
  /** The verdict that the browser would show for what is stored. */
  readonly shownFor: (id: string) => Promise<ShownVerdict>
  readonly sign: (id: string) => Promise<Answer>
  readonly close: () => Promise<void>
}

export interface Detail {
  readonly patientId: string
  readonly region: string
  readonly sides: ('right' | 'left' | 'none')[]
  readonly startedAt: string
  readonly setting: 'primary-care'
  readonly entries: FindingEntry[]
  readonly previous: FindingEntry[]
  readonly visitWith: { readonly id: string; readonly region: string; readonly sides: readonly string[] }[]
}

/** @param prepared what is done with the cluster before it is started */
export async function newServer(name: string, prepared: (cluster: Cluster) => void = () => undefined): Promise<Server> {
  const cluster = await newCluster(name)
  prepared(cluster)
  const { appUrl, ownerUrl, auditKey, anchors } = await cluster.start()
  await migrate(ownerUrl, new URL(appUrl).password)
  const pack = shippedPack()
  const pool = connect(appUrl, () => undefined)
  const sealer = new Sealer(auditKey, anchors)
  sealWith(pool, sealer)
  const owner = connect(ownerUrl, () => undefined)
  const judge = judgingThreads(pack)
  const packStore = new PackStore(pack, judge)
  await packStore.store(owner)
  await loadDemo(ownerUrl, pack, sealer)
  const changes = new Changes(appUrl, () => undefined)
  const app = await buildApp({ pool, packStore, changes, signInTries: 1000, requestsPerMinute: 1_000_000 })

  const cookies = new Map<string, string>()
  const cookieOf = async (signIn: string): Promise<string> => {
    const held = cookies.get(signIn)
    if (held) return held
    const answer = await app.inject({ method: 'POST', url: '/api/session', payload: { signIn, password: DEMO_PASSWORD } })
    const cookie = String(answer.headers['set-cookie']).split(';')[0] ?? ''
    cookies.set(signIn, cookie)
    return cookie
  }
  const call: Server['call'] = async (method, url, payload, signIn = 'brannock', headers = {}) => {
    const cookie = signIn ? await cookieOf(signIn) : undefined
    const answer = await app.inject({ method, url, ...(payload ? { payload } : {}), headers: { ...(cookie ? { cookie } : {}), ...headers } })
    const given = answer.headers['set-cookie']
    // As a browser does: a session that was begun anew is used from then on.
    if (signIn && given && answer.statusCode === 200) cookies.set(signIn, String(given).split(';')[0] ?? '')
    return answer
  }
  const begin: Server['begin'] = async (about = { patient: { name: 'Wren Holloway', birthDate: '1986-05-05', isNew: true } }) =>
    (await call('POST', '/api/examinations', { region: 'knee', sides: ['right'], setting: 'primary-care', ...about })).json<{ id: string }>().id
  const examinationFor = async (id: string): Promise<Examination> => {
    const { region, sides, startedAt, setting, entries, previous } = (await call('GET', `/api/examinations/${id}`)).json<Detail>()
    return { complaint: { region, sides }, asOf: startedAt, setting, entries, previous }
  }
  const shownFor: Server['shownFor'] = async (id) => {
    const examination = await examinationFor(id)
    return shownVerdict(judgement(pack, examination))
  }
  /** What a clinician must say before a range that is still open can be signed. */
  const acceptFor = async (id: string): Promise<void> => {
    const ceiling = rangeToAccept(judgement(pack, await examinationFor(id)))
    const said = { state: 'accepted', ceiling, reason: 'seen for a signature', plan: 'again tomorrow', by: 'Dr Isolde Brannock' }
    if (ceiling) await call('POST', `/api/examinations/${id}/entries`, { entries: [decision(said)] })
  }
  return {
    app,
    cluster,
    pool,
    owner,
    ownerUrl,
    sealer,
    pack,
    call,
    begin,
    record: (id, ...entries) => call('POST', `/api/examinations/${id}/entries`, { entries }),
    shownFor,
    sign: async (id) => {
      await acceptFor(id)
      return call('POST', `/api/examinations/${id}/sign`, await shownFor(id))
    },
    close: async () => {
      await app.close()
      await judge.close()
      await pool.end()
      await owner.end()
      cluster.remove()
    },
  }
}

export const entry = (item: string, value: FindingEntry['value'], more: Partial<FindingEntry> = {}): FindingEntry =>
  ({
    id: uuid7(),
    item,
    side: 'none',
    state: 'examined',
    ...(value === undefined ? {} : { value }),
    by: 'test',
    at: new Date().toISOString(),
    ...more,
  }) as FindingEntry

/** What a clinician decides, as a browser or a program sends it: right or wrong. */
export const decision = (says: object): Decision => ({ id: uuid7(), at: new Date().toISOString(), ...says }) as Decision
