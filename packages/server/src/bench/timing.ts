/** Median of many runs, milliseconds. */
export function median(runs: number, work: () => unknown): number {
  for (let i = 0; i < Math.min(20, runs); i++) work()
  return middle(Array.from({ length: runs }, () => timeOf(work)))
}

export async function medianOf(runs: number, work: () => Promise<unknown>): Promise<number> {
  await work()
  const times: number[] = []
  for (let i = 0; i < runs; i++) {
    const from = performance.now()
    await work()
    times.push(performance.now() - from)
  }
  return middle(times)
}

function timeOf(work: () => unknown): number {
  const from = performance.now()
  work()
  return performance.now() - from
}

const middle = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0
