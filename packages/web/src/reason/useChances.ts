import { useEffect, useRef, useState } from 'react'
import type { Chance, ConditionRange } from '@kneecap-awl/core'
import type { Job } from './chance.worker'

export type Likely = ConditionRange & { readonly chance?: Chance }

const keyOf = ({ id, side }: ConditionRange): string => `${id}|${side}`

/**
 * The conditions, each with its sampled chance. Until the worker has sampled anew, a condition keeps the chance it had a moment ago, so that
 * nothing jumps with a key; one that had none shows worst to best alone.
 */
export function useChances(conditions: readonly ConditionRange[]): readonly Likely[] {
  const [found, setFound] = useState<ReadonlyMap<string, Chance>>(new Map())
  const worker = useRef<Worker>(undefined)
  const round = useRef(0)
  useEffect(() => {
    worker.current = new Worker(new URL('./chance.worker.ts', import.meta.url), { type: 'module' })
    return () => worker.current?.terminate()
  }, [])
  useEffect(() => {
    const at = worker.current
    if (!at || conditions.length === 0) return
    const now = ++round.current
    const take = ({ data }: MessageEvent<{ readonly round: number; readonly chances: readonly Chance[] }>): void => {
      if (data.round === now) setFound(new Map(conditions.flatMap((one, index) => (data.chances[index] ? [[keyOf(one), data.chances[index]] as const] : []))))
    }
    at.addEventListener('message', take)
    const job: Job = { round: now, estimates: conditions.map((one) => one.estimate) }
    at.postMessage(job)
    return () => at.removeEventListener('message', take)
  }, [conditions])
  return conditions.map((one) => {
    const chance = found.get(keyOf(one))
    return chance ? { ...one, chance } : one
  })
}

const percent = (share: number): string => (share * 100).toFixed(0)

/** @example shareWords(lachman) // '86 % (61–95)': the middle and where nine of ten samples lie, or from worst to best until it is sampled */
export const shareWords = ({ low, high, chance }: Likely): string =>
  chance ? `${percent(chance.middle)} % (${percent(chance.low)}–${percent(chance.high)})` : `${percent(low)}–${percent(high)} %`

const isMetAndLow = ({ met, high, low, chance }: Likely): boolean => met !== undefined && (chance?.middle ?? (low + high) / 2) < 0.5

/** What stands beside the name of a condition on the rail. */
export const beside = (one: Likely): string => {
  const from = one.presentation ? one.presentation.because : 'every complaint of this joint'
  return one.met === undefined ? (one.presentation ? `from: ${from}` : '') : isMetAndLow(one) ? `criteria met; the figure starts from ${from}` : 'criteria met'
}

/** What a figure starts from, and why criteria that are met stand beside a low one. */
export function aboutShare(one: Likely): string {
  const { presentation } = one
  const starts = presentation ? `Starts from: ${presentation.because} (${presentation.source}).` : 'Starts from all who come with this joint.'
  return isMetAndLow(one) ? `${starts} Its criteria are met and stand by themselves; the figure counts published test figures alone.` : starts
}

/** @example chanceWords(lachman) // "about 86 % (61 to 95)": the middle, and where nine of ten samples lie */
export const chanceWords = ({ low, high, chance }: Likely): string =>
  chance ? `about ${percent(chance.middle)} % (${percent(chance.low)} to ${percent(chance.high)})` : `${percent(low)} to ${percent(high)} %`
