import type { RegionPack } from '../pack/pack.js'
import { criterionWords, leafWords } from '../library/ruleWords.js'
import { itemsById } from '../pack/itemsById.js'
import type { ProofFinding, ProofNode } from '../rules/proofNode.js'
import type { Truth } from '../rules/truth.js'
import { asEntry, earlierWords } from './reasons.js'
import { bySide, findingWords } from './words.js'

/** One step of a proof as a physician reads it: what was found, what was asked of it, and what follows from the steps below. */
export interface ProofLine {
  readonly text: string
  /** What is asked of the finding, where the finding does not say it by itself. */
  readonly asked?: string
  readonly truth: Truth
  readonly until?: string
  readonly kids: readonly ProofLine[]
}

const GROUP: Readonly<Record<'all' | 'any', Readonly<Record<Truth, string>>>> = {
  all: { met: 'All of these', 'not-met': 'Not fulfilled, for', unknown: 'Not yet known; needed' },
  any: { met: 'Sufficient', 'not-met': 'None of these', unknown: 'Not yet known; each would suffice' },
}
const ABSENT: Readonly<Record<Truth, string>> = { met: 'Absent', 'not-met': 'Not excluded', unknown: 'Not yet excluded' }
const CERTAIN: Readonly<Record<Truth, string>> = { met: 'Known for certain', 'not-met': 'Not known for certain', unknown: 'Not known for certain' }

/**
 * A proof in words. Steps that only pass on what one step below says are left out.
 * @example proofLine(view, proof) // { text: 'Dorsalis pedis pulse (DP): absent on the right, normal on the left', asked: 'less than on the other side', truth: 'met', kids: [] }
 */
export function proofLine(pack: RegionPack, proof: ProofNode): ProofLine {
  const only = proof.of?.length === 1 ? proof.of[0] : undefined
  if (only && proof.op !== 'leaf' && proof.op !== 'not') return proofLine(pack, only)
  const kids = (proof.of ?? []).map((kid) => proofLine(pack, kid))
  if (proof.op === 'leaf') return { ...leafLine(pack, proof), kids }
  return { text: stepWords(proof), truth: proof.truth, kids }
}

function stepWords({ op, truth, n = 1 }: ProofNode): string {
  if (op === 'not') return ABSENT[truth]
  if (op === 'proven') return CERTAIN[truth]
  if (op === 'atLeast') return truth === 'met' ? `At least ${n} of these` : `Fewer than ${n} so far`
  return op === 'leaf' ? '' : GROUP[op][truth]
}

function leafLine(pack: RegionPack, { leaf, truth, findings = [], text = '', until }: ProofNode): Omit<ProofLine, 'kids'> {
  const lasting = until === undefined ? {} : { until }
  if (leaf === undefined) return { text, truth, ...lasting }
  if (findings.length === 0) return { text: leafWords(pack, leaf), truth, ...lasting }
  const asked = criterionWords(pack, leaf)
  const found = findings.map((finding) => ({ finding, words: proofWords(pack, finding) }))
  const isTold = found.some(({ words }) => words === asked) || asked === 'present'
  return { text: foundWords(pack, found), truth, ...(asked === '' || isTold ? {} : { asked }), ...lasting }
}

/** The findings of one step, both sides of an item in one breath. */
const foundWords = (pack: RegionPack, found: readonly { readonly finding: ProofFinding; readonly words: string }[]): string =>
  bySide(
    pack,
    found.map(({ finding, words }) => ({ ...finding, words, earlier: earlierWords(pack, finding) })),
  ).join('; ')

function proofWords(pack: RegionPack, finding: ProofFinding): string {
  if (finding.state === 'not-indicated') return 'not asked, nothing called for it'
  if (finding.state === 'derived') return derivedWords(pack, finding)
  return findingWords(pack, asEntry(finding))
}

function derivedWords(pack: RegionPack, { item, value }: ProofFinding): string {
  const unit = itemsById(pack).get(item)?.unit
  const round = (number: number, to: number): number => Math.round(number * to) / to
  const shown =
    typeof value === 'number' ? round(value, 100) : typeof value === 'object' && 'low' in value ? `${round(value.low, 10)} to ${round(value.high, 10)}` : value
  return `${String(shown)}${unit ? (unit === '°' ? '°' : ` ${unit}`) : ''} (calculated)`
}

/** A proof as other programs read it: the rule as it is written, and what it says in words. */
export function toldProof(pack: RegionPack, { leaf, of, ...node }: ProofNode): object {
  const line = leaf === undefined ? undefined : leafLine(pack, { leaf, ...node })
  return { ...node, ...(line === undefined ? {} : { says: line.text }), ...(of === undefined ? {} : { of: of.map((kid) => toldProof(pack, kid)) }) }
}
