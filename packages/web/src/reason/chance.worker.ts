import { sampleChance, type Estimate } from '@kneecap-awl/core'

export interface Job {
  readonly round: number
  readonly estimates: readonly Estimate[]
}

/** Samples off the main thread, so that the sheet answers each key at once. */
self.addEventListener('message', ({ data: { round, estimates } }: MessageEvent<Job>) =>
  self.postMessage({ round, chances: estimates.map((estimate) => sampleChance(estimate)) }),
)
