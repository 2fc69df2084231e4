import { Worker } from 'node:worker_threads'
import { CORE_SCHEMA, load } from 'js-yaml'
import { compilePack, counterfactuals, isFinding, judge, judgement, publicVerdict, rejudge, viewOf, type Examination, type Pack } from '@kneecap-awl/core'
import { peerOf } from '../bench/peer.js'
import { median } from '../bench/timing.js'
import { v7 as uuid7 } from 'uuid'
import { KNEES } from '../demo/knees.js'
import { caseEntries } from '../demo/load.js'
import { contentHash, readContent } from '../packs/service.js'

/** `npm run bench`: the engine's figures against their targets, and beside a general-purpose rules library on the same rules and facts. */
const files = readContent()
const pack = compilePack(files)
const at = new Date(Date.UTC(2026, 2, 10, 9))
const examinations = KNEES.map((one): Examination => ({
  complaint: { region: 'knee', sides: [one.side] },
  asOf: at.toISOString(),
  setting: one.setting,
  entries: caseEntries(pack, one, at, 'bench'),
}))
const whole = examinations[KNEES.findIndex((one) => one.who === 'pell')]
if (!whole) throw new Error('the demonstration has no whole examination')

interface Line {
  readonly work: string
  readonly measure: () => Promise<number>
  readonly unit: 'ms' | '/s'
  /** Milliseconds at most, or a second at least; none for what is only compared with. */
  readonly target?: number
}

// The knee's flags, since the examination is of a knee.
const peer = peerOf(viewOf(pack, 'knee'))
const facts = peer.factsOf(judgement(pack, whole))

const LINES = {
  compile: { work: 'compile the whole pack', measure: () => median(15, () => compilePack(files, contentHash(files))), unit: 'ms', target: 150 },
  read: { work: 'read its YAML and no more', measure: () => median(15, () => files.map((file) => load(file.text, { schema: CORE_SCHEMA }))), unit: 'ms' },
  judge: {
    work: 'judge one complete examination, all flags, with proof',
    measure: () => median(400, () => judgement(pack, anew(whole))),
    unit: 'ms',
    target: 1,
  },
  again: { work: 'judge again after one entry', measure: () => againTime(whole), unit: 'ms', target: 0.3 },
  explain: { work: 'explanation with counterfactuals', measure: () => median(100, () => publicAndCounterfactuals(whole)), unit: 'ms', target: 10 },
  many: { work: 'examinations judged a second, two threads', measure: () => perSecond(pack), unit: '/s', target: 5000 },
  peer: { work: 'its flags in a general-purpose rules library', measure: () => median(60, () => peer.engine.run(facts)), unit: 'ms' },
} as const satisfies Record<string, Line>
type Name = keyof typeof LINES

/** Other work shares the machine for seconds at a time: every line is measured in each round, and the quietest round of each counts. */
const ROUNDS = 3
const best = new Map<Name, number>()
for (let round = 0; round < ROUNDS; round++) {
  for (const [name, { measure, unit }] of Object.entries(LINES) as [Name, Line][]) {
    const [value, before] = [await measure(), best.get(name)]
    best.set(name, before === undefined ? value : unit === 'ms' ? Math.min(before, value) : Math.max(before, value))
  }
}

const say = (line: string): void => void process.stdout.write(`${line}\n`)
const valueOf = (name: Name): number => best.get(name) ?? NaN
const times = (one: Name, other: Name): string => `${(valueOf(one) / valueOf(other)).toFixed(1)} times as long`

say(`${pack.items.length} items, ${pack.flags.length} flags, ${whole.entries.length} entries in the examination judged`)
say(`one core; medians, each of the quietest of ${ROUNDS} rounds\n`)
for (const [name, { work, unit, target }] of Object.entries(LINES) as [Name, Line][]) {
  const value = valueOf(name)
  const kept = target !== undefined && (unit === 'ms' ? value < target : value > target)
  const verdict = target === undefined ? '' : ` target ${unit === 'ms' ? 'under' : 'over'} ${String(target).padEnd(6)} ${kept ? 'kept' : 'MISSED'}`
  say(`${work.padEnd(58)} ${value.toFixed(value < 10 ? 3 : 1).padStart(10)} ${unit.padEnd(4)}${verdict}`)
}
const met = new Set((await peer.engine.run(facts)).events.map((event) => event.type))
const ours = judge(pack, whole).flags.map((flag) => flag.id)
say(`\nthe compilation takes ${times('compile', 'read')} as reading its YAML alone (js-yaml)`)
say(`the library (json-rules-engine, its leaves already compared for it) takes ${times('peer', 'judge')} as ours with sides, three values, measures and proof;`)
say(`  both meet ${ours.filter((id) => met.has(id)).length} of the ${ours.length} flags met`)

/** The same examination as if it had just come in: nothing of its record is folded yet. */
function anew(examination: Examination): Examination {
  return { ...examination, entries: [...examination.entries] }
}

/** The record grows by one entry, as it does with each key in the workspace. */
function againTime(examination: Examination): Promise<number> {
  const first = judgement(pack, examination)
  const [entry] = examination.entries.filter(isFinding).filter((one) => one.item === 'knee.feel.medial-joint-line' && one.side === 'right')
  if (!entry) throw new Error('the examination has no medial joint line')
  let tick = 0
  return median(400, () =>
    rejudge(first, { ...entry, state: 'examined', id: uuid7(), value: String(tick++ % 4), at: new Date(at.getTime() + tick).toISOString() }),
  )
}

function publicAndCounterfactuals(examination: Examination): unknown {
  const one = judgement(pack, anew(examination))
  return [publicVerdict(one), counterfactuals(one), one.record.findings]
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
