import type { Pack, Tier } from '../content/types.js'
import type { Entry, Examination } from '../record/entry.js'
import { isLater, slotKey } from '../record/fold.js'
import { RECHECK_MINUTES } from '../record/recheck.js'
import { judge, type FlagVerdict, type Verdict } from './judge.js'
import { tierRank } from './prepare.js'

/** An urgent flag that was met earlier in the same examination and is met no longer, or only less urgently. */
export interface EarlierFlag {
  readonly flag: FlagVerdict
  readonly tier: Tier
  /** When a later check took the place of what it stood on, ISO 8601. */
  readonly until: string
}

const URGENT: readonly (Tier | undefined)[] = ['now', 'today']
/** Beyond so many checks the earliest are left out. */
const MOST_MOMENTS = 16

/**
 * What was urgent before a finding was checked anew: a pulse that was gone before the reduction belongs in the handover although it is back.
 * A correction within five minutes, or an entry taken back, is no check. It moves no priority; it is told.
 * @param verdict what the whole record gives
 * @example earlierFlags(pack, examination, verdict)[0]?.flag.title // 'Arterial injury'
 */
export function earlierFlags(pack: Pack, examination: Examination, verdict: Verdict): readonly EarlierFlag[] {
  const ordered = [...examination.entries].sort((a, b) => (isLater(a, b) ? 1 : -1))
  const tierNow = new Map(verdict.flags.map((flag) => [slotKey(flag.id, flag.side), flag.tier]))
  const found = new Map<string, EarlierFlag>()
  for (const until of checkedAnew(ordered).slice(-MOST_MOMENTS)) {
    const entries = ordered.filter((entry) => Date.parse(entry.at) < Date.parse(until))
    for (const flag of judge(pack, { ...examination, entries }).flags) {
      const key = slotKey(flag.id, flag.side)
      const { tier } = flag
      if (tier && URGENT.includes(tier) && tierRank(tier) < tierRank(tierNow.get(key) ?? 'here')) found.set(key, { flag, tier, until })
    }
  }
  return [...found.values()].sort((a, b) => tierRank(a.tier) - tierRank(b.tier))
}

/** Moments at which a later check took the place of an earlier one that said something else, in order. */
function checkedAnew(ordered: readonly Entry[]): string[] {
  const standing = new Map<string, Entry>()
  const moments = ordered.flatMap((entry) => {
    const key = slotKey(entry.item, entry.side)
    const held = standing.get(key)
    standing.set(key, entry)
    const isCheck = held?.state === 'examined' && entry.state !== 'not-examined' && Date.parse(entry.at) - Date.parse(held.at) >= RECHECK_MINUTES * 60_000
    return isCheck && saying(held) !== saying(entry) ? [entry.at] : []
  })
  return [...new Set(moments)]
}

const saying = ({ state, value, qualifiers }: Entry): string => JSON.stringify([state, value, qualifiers])
