import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import type { Pack } from '@kneecap-awl/core'
import { Piscina } from 'piscina'
import { HttpProblem } from '../http/problem.js'
import type { Judge } from './judge.js'
import type { Task } from './worker.js'

const WORKER = fileURLToPath(new URL('../../dist/judging/worker.js', import.meta.url))

/** A record of an afternoon takes some milliseconds: what takes so long is no record. */
const LIMIT_MS = 5000
/** Where no thread is free, or one is just starting, so long altogether: to wait is not to be too much. */
const QUEUED_MS = 15_000
/** So many may wait for a thread; who comes after them is told at once to try again. */
const MOST_WAITING = 200
/** Memory of one thread: what needs more ends that thread and not the server. */
const MEMORY = { maxOldGenerationSizeMb: 512, maxYoungGenerationSizeMb: 32 }

export interface JudgingThreads extends Judge {
  close(): Promise<void>
}

/**
 * Judges in threads, each call within a time limit. What other programs send is judged in a thread of its own, apart from the patients of the site.
 * @throws HttpProblem 422 `too-long-to-judge`, 503 `busy` when too many wait
 * @example const judge = judgingThreads(pack); await judge.verdict(pack, examination); await judge.close()
 */
export function judgingThreads(everyday: Pack): JudgingThreads {
  const common = { filename: WORKER, workerData: everyday, resourceLimits: MEMORY, maxQueue: MOST_WAITING, idleTimeout: Infinity, minThreads: 1 }
  const records = new Piscina({ ...common, maxThreads: Math.max(1, availableParallelism() - 1) })
  const documents = new Piscina({ ...common, maxThreads: 1 })
  const run = async <R>(threads: Piscina, kind: keyof Judge, pack: Pack, ...given: readonly unknown[]): Promise<R> => {
    const task: Task = { kind, hash: pack.hash, given, ...(pack.hash === everyday.hash ? {} : { pack }) }
    const isFree = threads.idleThreads > 0
    try {
      return (await threads.run(task, { signal: AbortSignal.timeout(isFree ? LIMIT_MS : QUEUED_MS) })) as R
    } catch (error) {
      throw asProblem(error as Error, isFree)
    }
  }
  return {
    verdict: (pack, examination) => run(records, 'verdict', pack, examination),
    standing: (pack, examination) => run(records, 'standing', pack, examination),
    referral: (pack, examination, about) => run(records, 'referral', pack, examination, about),
    document: (pack, document) => run(documents, 'document', pack, document),
    close: async () => {
      await Promise.all([records.destroy(), documents.destroy()])
    },
  }
}

function asProblem(error: Error, isFree: boolean): Error {
  const { name, message } = error
  const code = (error as { readonly code?: string }).code
  const isOver = name === 'AbortError' || name === 'TimeoutError'
  if ((isOver && isFree) || code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new HttpProblem(422, 'too-long-to-judge', `Judging this record was ended after ${LIMIT_MS / 1000} seconds. Send fewer entries.`)
  if (isOver || /queue/i.test(message)) return new HttpProblem(503, 'busy', 'Too much is being judged just now. Try again in a moment.')
  return error
}
