// Keeps the server and its database running: whichever dies is started again, with a limit; what an earlier run left behind is ended first.
import { spawn } from 'node:child_process'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { NODE_FLAGS, ROOT, Stop, sleep } from './run.mjs'

const MAIN = join(ROOT, 'packages/server/dist/main.js')
/** So many starts in so long: a fault that ends the server each time is told and not tried for ever. */
const MOST_STARTS = 5
const SPAN_MS = 5 * 60_000
const LOOK_MS = 2000
const PATIENCE_MS = 15_000

/** The command line of a process that runs; empty for none. */
function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
  } catch {
    return ''
  }
}

const noteFile = (folder) => join(folder, 'running.json')

/**
 * Ends the server that a run of before left behind when it was killed. One that still has its launcher is left alone.
 * @returns what was found, in words
 * @throws Stop when it runs properly
 */
export async function endEarlier(folder) {
  if (!existsSync(noteFile(folder))) return 'none'
  const { launcher, server, address } = JSON.parse(readFileSync(noteFile(folder), 'utf8'))
  if (launcher !== process.pid && commandOf(launcher).includes('start.mjs'))
    throw new Stop(`It runs already, at ${address} (process ${launcher}). Stop it first, or set AWL_DATA to another folder.`)
  if (!commandOf(server).includes(MAIN)) return 'none left'
  process.kill(server, 'SIGTERM')
  for (let waited = 0; commandOf(server) !== '' && waited < PATIENCE_MS; waited += 200) await sleep(200)
  if (commandOf(server) !== '') process.kill(server, 'SIGKILL')
  return `the server of a run that was killed (process ${server}) is ended`
}

/** One server and its database, for as long as nobody stops them. */
export class Supervisor {
  starts = []
  isStopping = false

  /** @param env what the server is told */
  constructor(cluster, env, say) {
    this.cluster = cluster
    this.env = env
    this.say = say
    this.ended = new Promise((resolve) => (this.end = resolve))
  }

  /** Starts the server. Resolves once it answers. */
  async start() {
    await this.launch()
    this.watch = setInterval(() => void this.look(), LOOK_MS)
  }

  launch() {
    this.starts.push(Date.now())
    const server = spawn(process.execPath, [...NODE_FLAGS, MAIN], { cwd: ROOT, env: this.env, stdio: ['ignore', 'pipe', 'inherit'] })
    this.server = server
    const address = `${this.env.AWL_CERT ? 'https' : 'http'}://${this.env.AWL_HOST ?? '127.0.0.1'}:${this.env.AWL_PORT}`
    writeFileSync(noteFile(this.cluster.folder), JSON.stringify({ launcher: process.pid, server: server.pid, address }))
    return new Promise((resolve) => {
      server.stdout.on('data', (chunk) => {
        const text = String(chunk)
        process.stdout.write(text.replace(/^ready .*\n/m, ''))
        if (/^ready /m.test(text)) resolve()
      })
      server.on('exit', (code, signal) => void this.died(code ?? signal))
    })
  }

  async died(how) {
    if (this.isStopping) return this.finish(0)
    if (!this.mayStartAgain()) {
      this.say(
        `The server ended (${how}) ${MOST_STARTS} times within five minutes and is not started again. What it said stands above; everything recorded is kept.`,
      )
      return this.finish(1)
    }
    this.say(`The server ended (${how}). It is started again; what devices recorded meanwhile is kept there and sent.`)
    await sleep(500)
    if (!this.isStopping) await this.launch()
  }

  mayStartAgain() {
    this.starts = this.starts.filter((at) => Date.now() - at < SPAN_MS)
    return this.starts.length < MOST_STARTS
  }

  /** The database is looked at every other second: the server waits for it and says 503 meanwhile. */
  async look() {
    if (this.isStopping || this.isLooking || this.cluster.ready()) return
    this.isLooking = true
    try {
      if (!this.mayStartAgain()) {
        this.say('The database does not stay up and is not started again. Its log is in the data folder; everything recorded is kept.')
        return this.stop()
      }
      this.starts.push(Date.now())
      this.say('The database ended. It is started again.')
      await this.cluster.start()
    } catch (error) {
      this.say(error.message)
    } finally {
      this.isLooking = false
    }
  }

  stop() {
    if (this.isStopping) return
    this.isStopping = true
    this.say('\nStopping …')
    this.server.kill('SIGTERM')
  }

  finish(code) {
    clearInterval(this.watch)
    this.isStopping = true
    this.cluster.stop()
    rmSync(noteFile(this.cluster.folder), { force: true })
    if (code === 0) this.say('Stopped. Everything recorded is kept.')
    this.end(code)
  }
}
