#!/usr/bin/env node
// npm run load: what the server takes on loopback: sign-in, read, post, judge and desk at 1, 10 and 50 connections, then memory over some minutes.
import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { startApplication } from './lib/demo.mjs'
import { say } from './lib/run.mjs'

const { values: options } = parseArgs({ options: { seconds: { type: 'string', default: '4' }, minutes: { type: 'string', default: '1' } } })
const SECONDS = Number(options.seconds)
const MINUTES = Number(options.minutes)
/** p95 in milliseconds at 10 connections on two quiet cores. */
const TARGETS = { desk: 150, post: 60 }

const { base, data } = await startApplication('load', { AWL_SIGN_IN_TRIES: '100000', AWL_REQUESTS_PER_MINUTE: '10000000' })
let cookie = ''
/** @returns status and answer; the whole answer is read, as a browser does */
async function ask(method, path, body, as = cookie) {
  const response = await fetch(`${base}${path}`, {
    method,
    headers: { cookie: as, ...(body ? { 'content-type': 'application/json' } : {}) },
    ...(body ? { body: JSON.stringify(body) } : {}),
  })
  const text = await response.text()
  return { status: response.status, cookie: response.headers.get('set-cookie'), json: () => JSON.parse(text) }
}
const enter = () => ask('POST', '/api/session', { signIn: 'brannock', password: 'harbour-light' }, '')
cookie = (await enter()).cookie.split(';')[0]

/** Each connection examines a patient of its own, as clinicians do. */
async function begin(n) {
  const patient = {
    name: `Load ${String.fromCharCode(65 + (n % 26))}${'abcdefghijklmnopqrstuvwxyz'[Math.floor(n / 26) % 26]} Tester`,
    birthDate: '1970-01-01',
    isNew: true,
  }
  return (await ask('POST', '/api/examinations', { patient, region: 'knee', sides: ['right'], setting: 'emergency' })).json().id
}
const examinations = []
for (let n = 0; n < 50; n++) examinations.push(await begin(n))
const file = (await ask('GET', `/api/examinations/${examinations[0]}/file`)).json()
const entryNow = (n) => ({
  id: randomUUID(),
  item: ['knee.feel.calf', 'knee.feel.fibular-head', 'knee.feel.tibial-condyles'][n % 3],
  side: 'right',
  state: 'examined',
  value: String(n % 4),
  by: 'Dr Isolde Brannock',
  at: new Date().toISOString(),
})
const WORK = {
  'sign-in': enter,
  read: (n) => ask('GET', `/api/examinations/${examinations[n % 50]}`),
  post: (n) => ask('POST', `/api/examinations/${examinations[n % 50]}/entries`, { entries: [entryNow(n)] }),
  judge: () => ask('POST', '/api/judge', file),
  desk: () => ask('GET', '/api/desk?state=draft'),
}

/** So many at once, each after its last answer, for so long. @returns milliseconds of each, and how many failed */
async function loaded(work, connections, ms) {
  const taken = []
  let failed = 0
  const until = Date.now() + ms
  const one = async (connection) => {
    for (let n = connection; Date.now() < until; n += connections) {
      const from = performance.now()
      const { status } = await work(n).catch(() => ({ status: 0 }))
      taken.push(performance.now() - from)
      if (status >= 400 || status === 0) failed++
    }
  }
  await Promise.all(Array.from({ length: connections }, (_, at) => one(at)))
  return { taken: taken.sort((a, b) => a - b), failed }
}
const share = (sorted, part) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0

say(`\n${'milliseconds'.padEnd(24)}${['p50', 'p95', 'p99', 'a second', 'failed'].map((one) => one.padStart(10)).join('')}`)
for (const connections of [1, 10, 50])
  for (const [name, work] of Object.entries(WORK)) {
    const { taken, failed } = await loaded(work, connections, SECONDS * 1000)
    const figures = [0.5, 0.95, 0.99].map((part) => share(taken, part))
    const target = connections === 10 ? TARGETS[name] : undefined
    const verdict = target === undefined ? '' : `   target: p95 under ${target} ms, ${figures[1] < target ? 'kept' : 'MISSED'}`
    const none = connections === 50 && failed > 0 ? '   target: none fails, MISSED' : ''
    say(
      `${`${name}, ${connections} at once`.padEnd(24)}${[...figures.map((ms) => ms.toFixed(1)), (taken.length / SECONDS).toFixed(0), String(failed)].map((one) => one.padStart(10)).join('')}${verdict}${none}`,
    )
  }

const { server } = JSON.parse(readFileSync(join(data, 'running.json'), 'utf8'))
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server}/status`, 'utf8'))?.[1] ?? 0) / 1024
const readings = [memory()]
for (let minute = 0; minute < MINUTES; minute++) {
  const mixed = (n) => Object.values(WORK)[1 + (n % 4)](n)
  await loaded(mixed, 10, 60_000)
  readings.push(memory())
}
say(`\nmemory of the server, MB, at the start and after each minute with 10 connections: ${readings.map((mb) => mb.toFixed(0)).join(', ')}`)
process.exit()
