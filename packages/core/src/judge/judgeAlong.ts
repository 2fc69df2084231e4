import type { AnyPack } from '../pack/pack.js'
import type { Entry, Examination } from '../record/entry.js'
import { disagree } from '../record/disagreement.js'
import { isFinding } from '../record/decisions.js'
import { isLater } from '../record/record.js'
import { judgement, type PastVerdicts } from './judge.js'
import { type Judgement } from './judgement.js'
import { isRecheck } from './pastFlags.js'
import { SIDE_INDEX } from '../model/side.js'
import { rejudge } from './rejudge.js'
import { slotOf } from '../rules/runtime.js'

/**
 * A judge that follows a growing record: entries added at its end are judged one by one, anything else anew.
 * @example const along = judgeAlong(pack, about); along([a]); along([a, b]) // works out only what hangs on b
 */
export function judgeAlong(pack: AnyPack, about: Omit<Examination, 'entries'>): (entries: readonly Entry[]) => Judgement {
  let seen: readonly Entry[] | undefined
  let last: Judgement | undefined
  const known: PastVerdicts = new Map()
  return (entries) => {
    const isLonger = seen !== undefined && entries.length >= seen.length && seen.every((entry, at) => entry === entries[at])
    if (!isLonger) known.clear()
    const added = isLonger && seen ? entries.slice(seen.length) : entries
    const along = isLonger && last && added.length <= MOST_AT_ONCE ? added.reduce<Judgement | undefined>(rejudgePlain, last) : undefined
    last = along ?? judgement(pack, { ...about, entries }, known)
    seen = entries
    return last
  }
}

const rejudgePlain = (before: Judgement | undefined, entry: Entry): Judgement | undefined =>
  before && isPlain(before, entry) ? rejudge(before, entry) : undefined

/** Whether what was urgent before stays as it was: the entry is no recheck, lifts nothing, and is not older than a recheck. */
function isPlain({ compiled, standing, rechecks, disagreements }: Judgement, entry: Entry): boolean {
  const item = isFinding(entry) ? compiled.indexOf.get(entry.item) : undefined
  if (!isFinding(entry) || item === undefined || disagreements.length > 0 || Date.parse(entry.at) < Date.parse(rechecks.at(-1)?.at ?? entry.at)) return false
  const stood = standing[slotOf(item, SIDE_INDEX[entry.side])]
  return stood === undefined || (isLater(entry, stood) && !isRecheck(stood, entry) && !disagree(stood, entry))
}
/** Beyond so many new entries judging anew is quicker. */
const MOST_AT_ONCE = 4
