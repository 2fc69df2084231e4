import type { Side } from '../model/side.js'
import type { Scalar, Value } from '../model/item.js'
import type { Leaf } from './rule.js'
import type { Truth } from './truth.js'

type Qualifiers = Readonly<Record<string, Scalar | readonly string[]>>

export interface ProofFinding {
  readonly item: string
  readonly side: Side
  readonly state: 'examined' | 'could-not' | 'not-valid' | 'not-examined' | 'derived' | 'not-indicated'
  readonly value?: Value | { readonly low: number; readonly high: number }
  readonly qualifiers?: Qualifiers
  readonly reason?: string
  /** What it is compared with: the check before, and how many hours before. */
  readonly before?: { readonly value?: Value; readonly qualifiers: Qualifiers; readonly hours: number }
}

/** One step of a proof. A reader checks each leaf against its findings, and each step against the ones below it. */
export interface ProofNode {
  readonly op: 'all' | 'any' | 'not' | 'proven' | 'atLeast' | 'leaf'
  readonly truth: Truth
  readonly n?: number
  readonly text?: string
  /** What is asked of the findings, of a leaf. */
  readonly leaf?: Leaf
  /** The flag that is read stays met from before: its findings met it until then. */
  readonly until?: string
  readonly findings?: readonly ProofFinding[]
  readonly of?: readonly ProofNode[]
}
