// Small helpers for the start and test commands: plain Node, no dependencies.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, statSync, readdirSync, writeFileSync, mkdirSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = fileURLToPath(new URL('../../', import.meta.url))

/** How the server and its commands run: room for the young generation, so that reading the content pack copies less of itself. */
export const NODE_FLAGS = ['--min-semi-space-size=96', '--max-semi-space-size=96']

export const say = (line) => process.stdout.write(`${line}\n`)

export const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms))

export class Stop extends Error {}

/** Runs a command to its end. Its output goes to the terminal, or is returned when quiet. */
export function run(command, args, { cwd = ROOT, env = process.env, quiet = false, may = false } = {}) {
  const result = spawnSync(command, args, { cwd, env, encoding: 'utf8', stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit', maxBuffer: 64 * 1024 * 1024 })
  if (result.error) throw new Stop(`${command} could not be started: ${result.error.message}`)
  if (result.status !== 0 && !may) throw new Stop(`${command} ${args.join(' ')} failed${quiet ? `:\n${result.stdout}${result.stderr}` : ''}`)
  return result
}

/**
 * Runs a command and shows what it prints under a heading.
 * @param live as it comes; otherwise once it has ended, so that two that run at once do not speak at once
 */
export function tell(command, args, heading, { cwd = ROOT, env = process.env, live = false } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd, env, stdio: ['ignore', 'pipe', 'pipe'] })
    let kept = ''
    const take = (chunk) => {
      if (live) process.stdout.write(chunk)
      else kept += chunk
    }
    const end = (code) => {
      process.stdout.write(kept)
      resolve({ code })
    }
    take(`\n== ${heading}\n`)
    child.stdout.on('data', take)
    child.stderr.on('data', take)
    child.on('error', (error) => {
      take(error.message)
      end(127)
    })
    child.on('close', (code) => end(code ?? 1))
  })
}

/** Times a step and says how long it took. */
export async function step(name, work) {
  const from = Date.now()
  process.stdout.write(`- ${name} … `)
  const said = await work()
  process.stdout.write(`${said ? `${said}, ` : ''}${((Date.now() - from) / 1000).toFixed(1)} s\n`)
}

/** A free port on loopback; the wished one when it is free. */
export function freePort(wish = 0) {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', reject)
    probe.listen(wish, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
  })
}

const walk = (path) =>
  statSync(path).isDirectory()
    ? readdirSync(path)
        .filter((n) => n !== 'dist' && n !== 'node_modules' && !n.endsWith('.tsbuildinfo'))
        .flatMap((n) => walk(join(path, n)))
    : [path]

/** A stamp over the bytes of the sources; work is skipped while it stays the same. */
export function stampOf(paths) {
  const hash = createHash('sha256')
  for (const path of paths
    .filter((p) => existsSync(join(ROOT, p)))
    .flatMap((p) => walk(join(ROOT, p)))
    .sort())
    hash.update(path).update(readFileSync(path))
  return hash.digest('hex')
}

/** Runs the work unless what it makes is there and the stamp kept says that it was made from the same sources. */
export async function onceFor(file, stamp, makes, work) {
  if (existsSync(join(ROOT, makes)) && existsSync(file) && readFileSync(file, 'utf8') === stamp) return 'up to date'
  const said = await work()
  mkdirSync(dirname(file), { recursive: true })
  writeFileSync(file, stamp)
  return said
}
