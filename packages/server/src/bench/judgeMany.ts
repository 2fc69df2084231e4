import { parentPort, workerData } from 'node:worker_threads'
import { judge, type Examination, type Pack } from '@kneecap-awl/core'

/** A worker that judges the same examinations again and again for a while, and says how many it judged once it is warm. */
const { pack, examinations, ms } = workerData as { pack: Pack; examinations: readonly Examination[]; ms: number }
for (let round = 0; round < 20; round++) for (const examination of examinations) judge(pack, examination)
const until = performance.now() + ms
let count = 0
while (performance.now() < until) {
  for (const examination of examinations) judge(pack, { ...examination, entries: [...examination.entries] })
  count += examinations.length
}
parentPort?.postMessage(count)
