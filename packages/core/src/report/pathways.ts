import type { Pathway } from '../pack/pack.js'
import type { Judgement } from '../judge/judgement.js'
import type { Verdict } from '../judge/verdict.js'
import type { Examination, FindingEntry } from '../record/entry.js'
import type { ExaminationRecord } from '../record/record.js'

export interface PathwayStep extends Pick<Pathway, 'id' | 'title' | 'first' | 'then' | 'review'> {
  /** What stands in for it in pregnancy, when the patient is or may be pregnant. */
  readonly pregnant?: string
  /** Until when: ISO 8601; undefined when the time that it runs from was not told. */
  readonly clock?: { readonly title: string; readonly until?: string }
}

const HOUR = 3_600_000

/**
 * What follows the flags that are met, or those that are named: the first picture and the next, when to look again, which clock runs until when. Each suspicion once,
 * in the order of the flags.
 */
export function pathwaysOf(
  { pack, examination, record, verdict }: Pick<Judgement, 'pack' | 'examination' | 'record' | 'verdict'>,
  flags: Verdict['flags'] = verdict.flags,
): readonly PathwayStep[] {
  const found = new Map<string, PathwayStep>()
  const { item = '', values = [] } = pack.mayBePregnant ?? {}
  const mayBePregnant = values.includes(String(valueOf(record, item)))
  for (const { concept } of flags) {
    for (const way of pack.pathways) {
      if (found.has(way.id) || !way.concepts.includes(concept)) continue
      const { id, title, first, then, review, pregnant, clock } = way
      found.set(id, {
        id,
        title,
        first,
        ...(then === undefined ? {} : { then }),
        ...(review === undefined ? {} : { review }),
        ...(pregnant !== undefined && mayBePregnant ? { pregnant } : {}),
        ...(clock ? { clock: { title: clock.title, ...until(clock, examination, record) } } : {}),
      })
    }
  }
  return [...found.values()]
}

/** When the injury was, or the complaint began: what days are counted from. */
export const onsetOf = (record: ExaminationRecord): string | undefined => told(record, 'story.injury-at') ?? told(record, 'story.onset-at')

function told(record: ExaminationRecord, id: string): string | undefined {
  const value = valueOf(record, id)
  return typeof value === 'string' && !Number.isNaN(Date.parse(value)) ? value : undefined
}

function until(clock: NonNullable<Pathway['clock']>, examination: Examination, record: ExaminationRecord): { until?: string } {
  const start = clock.from === 'seen' ? examination.asOf : clock.from === 'injury' ? onsetOf(record) : told(record, 'story.onset-at')
  return start === undefined ? {} : { until: new Date(Date.parse(start) + clock.hours * HOUR).toISOString() }
}

const valueOf = ({ findings }: ExaminationRecord, id: string): FindingEntry['value'] =>
  findings.find((entry) => entry.item === id && entry.state === 'examined')?.value
