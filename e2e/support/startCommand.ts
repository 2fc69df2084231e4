import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'

const ROOT = join(import.meta.dirname, '../..')

export interface Started {
  readonly url: string
  readonly said: () => string
  readonly process: ChildProcess
  /** Ctrl-C, then wait for the end. @returns the exit code */
  stop(): Promise<number | null>
}

/** Runs `npm start` as a user would, with its own data folder, until it prints its address or ends. */
export function start(data: string, args: readonly string[] = []): Promise<Started> {
  const child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), ...args], {
    cwd: ROOT,
    env: { ...process.env, AWL_DATA: join(ROOT, '.test', data), AWL_SIGN_IN_TRIES: '1000' },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let output = ''
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
  const stop = (): Promise<number | null> => {
    child.kill('SIGINT')
    return ended
  }
  return new Promise((resolve, reject) => {
    const hear = (chunk: Buffer): void => {
      output += String(chunk)
      const url = /http:\/\/127\.0\.0\.1:\d+/.exec(output)?.[0]
      if (url && output.includes('Ctrl-C stops it')) resolve({ url, said: () => output, process: child, stop })
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    void ended.then((code) => reject(new Error(`the start command ended with ${code}: ${output}`)))
  })
}
