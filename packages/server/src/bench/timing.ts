import { Bench } from 'tinybench'

/**
 * Median time of some work, after a few runs that do not count.
 * @returns milliseconds
 * @throws what the work throws
 */
export async function median(runs: number, work: () => unknown): Promise<number> {
  const bench = new Bench({ iterations: runs, time: 0, warmupIterations: Math.min(20, runs), warmupTime: 0, throws: true }).add('work', work)
  const [task] = await bench.run()
  const result = task?.result
  if (!result || !('latency' in result)) throw new Error('nothing was measured')
  return result.latency.p50
}
