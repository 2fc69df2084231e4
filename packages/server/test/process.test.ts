import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, readFileSync, statSync } from 'node:fs'
import { request } from 'node:https'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newCluster, ROOT, type Cluster } from './database.js'

let cluster: Cluster
let server: ChildProcess
let folder = ''
let said = ''
const PORT = 20_000 + ((process.pid + 7) % 9000)
const isRoot = process.getuid?.() === 0

beforeAll(async () => {
  cluster = await newCluster('process')
  const urls = await cluster.start()
  folder = join(cluster.folder, 'tls')
  mkdirSync(folder, { mode: 0o700 })
  const [cert, key] = [join(folder, 'cert.pem'), join(folder, 'key.pem')]
  // Debian's PostgreSQL brings openssl.
  const made = spawnSync('openssl', [
    'req',
    '-x509',
    '-newkey',
    'ec',
    '-pkeyopt',
    'ec_paramgen_curve:prime256v1',
    '-nodes',
    '-subj',
    '/CN=localhost',
    '-addext',
    'subjectAltName=DNS:localhost',
    '-keyout',
    key,
    '-out',
    cert,
    '-days',
    '2',
  ])
  expect(made.status).toBe(0)
  const env = {
    ...process.env,
    AWL_APP_URL: urls.appUrl,
    AWL_AUDIT_KEY: urls.auditKey,
    AWL_ANCHORS: urls.anchors,
    AWL_LOG: join(cluster.folder, 'log'),
    AWL_PORT: String(PORT),
    AWL_CERT: cert,
    AWL_KEY: key,
  }
  const built = (file: string): string => join(ROOT, 'packages/server/dist', file)
  expect(spawnSync(process.execPath, [built('commands/prepare.js')], { env: { ...env, AWL_OWNER_URL: urls.ownerUrl }, encoding: 'utf8' }).stderr).toBe('')
  server = spawn(process.execPath, [built('main.js')], { env, stdio: ['ignore', 'pipe', 'inherit'] })
  await new Promise<void>((resolve, reject) => {
    server.stdout?.on('data', (chunk) => {
      said += String(chunk)
      if (/^ready /m.test(said)) resolve()
    })
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)))
  })
})
afterAll(async () => {
  const gone = once(server, 'exit')
  server.kill('SIGTERM')
  await gone
  cluster.remove()
})

/** Over TLS, by a client that trusts this certificate alone. */
const ask = (method: string, path: string, body?: object, headers: Record<string, string> = {}) =>
  new Promise<{ status: number; headers: NodeJS.Dict<string | string[]>; text: string }>((resolve, reject) => {
    const asked = request(
      {
        host: '127.0.0.1',
        servername: 'localhost',
        port: PORT,
        method,
        path,
        ca: readFileSync(join(folder, 'cert.pem')),
        headers: { host: `localhost:${PORT}`, 'content-type': 'application/json', ...headers },
      },
      (answer) => {
        let text = ''
        answer.on('data', (chunk) => (text += String(chunk)))
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, text }))
      },
    )
    asked.on('error', reject)
    asked.end(body ? JSON.stringify(body) : undefined)
  })

describe('the server as a process of its own', () => {
  it('ends TLS itself: the cookie is bound to this host and secure, another page is refused, and nothing is said in the clear', async () => {
    expect(said).toContain(`ready https://127.0.0.1:${PORT}`)
    const entered = await ask('POST', '/api/session', { signIn: 'brannock', password: 'harbour-light' })
    const [cookie = ''] = [entered.headers['set-cookie'] ?? ''].flat()
    expect([entered.status, cookie]).toEqual([200, expect.stringMatching(/^__Host-awl_session=.*; Path=\/; HttpOnly; Secure; SameSite=Strict$/)])
    const session = cookie.split(';')[0] ?? ''
    const desk = await ask('GET', '/api/desk', undefined, { cookie: session })
    expect([desk.status, desk.headers['cache-control']]).toEqual([200, 'no-store'])
    expect((await ask('GET', '/')).headers['strict-transport-security']).toContain('max-age')
    // The same host without TLS is another origin.
    expect((await ask('POST', '/api/judge', {}, { cookie: session, origin: `http://localhost:${PORT}` })).status).toBe(403)
    await expect(fetch(`http://127.0.0.1:${PORT}/api/health`)).rejects.toThrow()
  })
  it('goes on as a user who owns nothing when root started it, and still writes its log and the notes of the audit', async () => {
    expect(said.includes('server runs as nobody')).toBe(isRoot)
    const status = readFileSync(`/proc/${server.pid}/status`, 'utf8')
    expect(/^Uid:\t(\d+)\t(\d+)\t(\d+)/m.exec(status)?.slice(1)).not.toContain('0')
    expect(/^Groups:\t(.*?) *$/m.exec(status)?.[1]).not.toMatch(/\b0\b/)
    for (let count = 0; count < 25; count++) await ask('POST', '/api/session', { signIn: 'brannock', password: 'harbour-light' })
    expect(readFileSync(join(cluster.folder, 'audit-anchors.jsonl'), 'utf8')).toMatch(/^\{"seq":\d+/)
    expect(existsSync(join(cluster.folder, 'log', 'server.log'))).toBe(true)
    // The keys of the cluster are closed to others, so to it.
    expect(statSync(join(cluster.folder, 'secrets.json')).mode & 0o077).toBe(0)
  })
})
