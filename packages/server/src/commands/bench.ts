import { Worker } from 'node:worker_threads'
import { CORE_SCHEMA, load } from 'js-yaml'
import { compilePack, counterfactuals, fold, judge, judgement, publicVerdict, rejudge, viewOf, type Examination, type Pack } from '@kneecap-awl/core'
import { peerOf } from '../bench/peer.js'
import { median, medianOf } from '../bench/timing.js'
import { uuid7 } from '../db/uuid7.js'
import { CASES } from '../demo/cases.js'
import { caseEntries } from '../demo/load.js'
import { readContent } from '../packs/service.js'

/** `npm run bench`: the engine's figures against their targets, and beside a general-purpose rules library on the same rules and facts. */
const files = readContent()
const pack = compilePack(files)
const at = new Date(Date.UTC(2026, 2, 10, 9))
const examinations = CASES.map((one): Examination => ({
  complaint: { region: 'knee', sides: [one.side] },
  asOf: at.toISOString(),
  setting: one.setting,
  entries: caseEntries(pack, one, at, 'bench'),
}))
const whole = examinations[CASES.findIndex((one) => one.who === 'pell')]
if (!whole) throw new Error('the demonstration has no whole examination')

const say = (line: string): void => void process.stdout.write(`${line}\n`)
const line = (work: string, value: number, unit: string, target: number, isMost: boolean): void => {
  const kept = isMost ? value < target : value > target
  say(
    `${work.padEnd(58)} ${value.toFixed(value < 10 ? 3 : 1).padStart(10)} ${unit.padEnd(4)} target ${isMost ? 'under' : 'over'} ${String(target).padEnd(6)} ${kept ? 'kept' : 'MISSED'}`,
  )
}

say(`${pack.items.length} items, ${pack.flags.length} flags, ${whole.entries.length} entries in the examination judged; one core; medians\n`)
const compiled = median(15, () => compilePack(files))
line('compile the whole pack', compiled, 'ms', 150, true)
const judged = median(400, () => judgement(pack, whole))
line('judge one complete examination, all flags, with proof', judged, 'ms', 1, true)
line('judge again after one entry', againTime(whole), 'ms', 0.3, true)
line(
  'explanation with counterfactuals',
  median(100, () => publicAndCounterfactuals(whole)),
  'ms',
  10,
  true,
)
line('examinations judged a second, two threads', await perSecond(pack), '/s', 5000, false)

// Beside what no compiler of these files could do without, so that a slow machine shows as one.
const read = median(15, () => files.map((file) => load(file.text, { schema: CORE_SCHEMA })))
say(`\nreading the YAML of the pack and no more (js-yaml)\n  takes ${read.toFixed(1)} ms, the whole compilation ${(compiled / read).toFixed(1)} times as long`)

// The knee's flags, since the examination is of a knee.
const peer = peerOf(viewOf(pack, 'knee'))
const facts = peer.factsOf(judgement(pack, whole))
const met = new Set((await peer.engine.run(facts)).events.map((event) => event.type))
const ours = judge(pack, whole).flags.map((flag) => flag.id)
const peerTime = await medianOf(60, () => peer.engine.run(facts))
say(`\nthe same flags in a general-purpose rules library (json-rules-engine), its leaves already compared for it`)
say(
  `  it takes ${peerTime.toFixed(2)} ms, ours with sides, three values, measures and proof ${judged.toFixed(3)} ms: ${(peerTime / judged).toFixed(1)} times as long`,
)
say(`  both meet ${ours.filter((id) => met.has(id)).length} of the ${ours.length} flags met`)

/** The record grows by one entry, as it does with each key in the workspace. */
function againTime(examination: Examination): number {
  const first = judgement(pack, examination)
  const [entry] = examination.entries.filter((one) => one.item === 'knee.feel.medial-joint-line' && one.side === 'right')
  if (!entry) throw new Error('the examination has no medial joint line')
  let tick = 0
  return median(400, () => rejudge(first, { ...entry, id: uuid7(), value: String(tick++ % 4), at: new Date(at.getTime() + tick).toISOString() }))
}

function publicAndCounterfactuals(examination: Examination): unknown {
  const one = judgement(pack, examination)
  return [publicVerdict(pack, examination, one), counterfactuals(one), fold(examination.entries)]
}

async function perSecond(of: Pack): Promise<number> {
  const ms = 3000
  const counts = await Promise.all(
    [0, 1].map(
      () =>
        new Promise<number>((resolve, reject) => {
          const worker = new Worker(new URL('../bench/judgeMany.js', import.meta.url), { workerData: { pack: of, examinations, ms } })
          worker.once('message', (count: number) => resolve(count))
          worker.once('error', reject)
        }),
    ),
  )
  return counts.reduce((a, b) => a + b, 0) / (ms / 1000)
}
