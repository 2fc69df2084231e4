import type { Pack } from '@kneecap-awl/core'
import { workerData } from 'piscina'
import { judgeHere, type Judge } from './judge.js'

/** One call of a judge. A pack that is not the one of every day is sent along. */
export interface Task {
  readonly kind: keyof Judge
  readonly hash: string
  readonly pack?: Pack
  /** What the call takes after the pack. */
  readonly given: readonly unknown[]
}

const everyday = workerData as Pack
/** Each is made ready to judge with once, and kept with what was made of it. */
const packs = new Map<string, Pack>([[everyday.hash, everyday]])

/** Judges in a thread of its own, so that a long judgement keeps nobody waiting but whoever asked for it. */
export default async ({ kind, hash, pack, given }: Task): Promise<unknown> => {
  const kept = packs.get(hash) ?? pack
  if (!kept) throw new Error(`the content pack ${hash} was not sent`)
  packs.set(hash, kept)
  return (judgeHere[kind] as (pack: Pack, ...given: readonly unknown[]) => Promise<unknown>)(kept, ...given)
}
