import { tierRank } from '../model/tier.js'
import { sayingOf } from '../record/disagreement.js'
import { isFinding } from '../record/decisions.js'
import type { Entry, FindingEntry } from '../record/entry.js'
import { compareTime, type ExaminationRecord } from '../record/record.js'
import { minutesBetween, RECHECK_MINUTES } from '../record/recheck.js'
import type { FlagVerdict, Verdict, Recheck, PastFlag } from './verdict.js'
/** Of a judgement what was urgent in it before, and what is so now. */
interface WithPast {
  readonly past: readonly PastFlag[]
  readonly verdict: Pick<Verdict, 'flags'>
}

/** A flag of the past that its findings no longer meet, or only less urgently. */
export interface EarlierFlag extends PastFlag {
  /** Still Now, because nobody has lifted it. */
  readonly isRetained: boolean
}

/**
 * When a finding was replaced by another at least five minutes later, in order; sooner it is a correction.
 * The order in which the entries came in does not matter.
 * @param knows whether a slot is of an item that matters here
 */
export function rechecksOf({ repeated }: ExaminationRecord, knows: (entry: FindingEntry) => boolean = () => true): readonly Recheck[] {
  const found = new Map<string, Recheck>()
  for (const { standing, passed } of repeated) {
    if (!isFinding(standing) || !knows(standing)) continue
    const ordered = [standing, ...passed.filter(isFinding)].sort(compareTime)
    for (const [at, entry] of ordered.entries()) {
      const isTakenBack = entry.state === 'not-examined'
      if (isRecheck(ordered[at - 1], entry)) found.set(entry.at, { at: entry.at, isTakenBack: isTakenBack && (found.get(entry.at)?.isTakenBack ?? true) })
    }
  }
  return [...found.values()].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
}

/** Whether `entry` finds otherwise what `held` found at least five minutes before, or takes it back. */
export const isRecheck = (held: FindingEntry | undefined, entry: FindingEntry): boolean =>
  held?.state === 'examined' && minutesBetween(held.at, entry.at) >= RECHECK_MINUTES && sayingOf(held) !== sayingOf(entry)

/**
 * What was urgent before each recheck, the most urgent tier of each flag, with who lifted it. A flag of tier Now stays Now until a clinician
 * lifts it by name, with a reason, after the recheck: see `heldFlags`.
 * @param judgeAt judges the record as it stood, with the flags that were retained by then
 * @param keyOf by what a flag is known again: its id, and its side where the joint has one
 */
export function pastFlags(
  { entries, decisions }: ExaminationRecord,
  rechecks: readonly Recheck[],
  judgeAt: (entries: readonly Entry[], retained: readonly PastFlag[], at: string) => readonly FlagVerdict[],
  keyOf: (id: string, side: string) => string,
): readonly PastFlag[] {
  const ordered = entries.map((entry) => ({ entry, at: Date.parse(entry.at) })).sort((a, b) => compareTime(a.entry, b.entry))
  let count = 0
  const lifts = new Map(decisions.lifts.map((lift) => [keyOf(lift.flag, lift.side), lift]))
  const found = new Map<string, PastFlag>()
  for (const { at, isTakenBack } of rechecks) {
    while ((ordered[count]?.at ?? Infinity) < Date.parse(at)) count++
    const before = ordered.slice(0, count).map(({ entry }) => entry)
    for (const flag of judgeAt(before, retainedFlags([...found.values()]), at)) {
      const { tier } = flag
      const isTold = tier === 'now' || (tier === 'today' && !isTakenBack)
      if (!isTold || flag.retained) continue
      const key = keyOf(flag.id, flag.side)
      const lift = lifts.get(key)
      const known = found.get(key)
      if (known && tierRank(known.tier) < tierRank(tier)) continue
      // What is rechecked in one go is told as it was found before the first of it.
      const isOneGo = known?.tier === tier && minutesBetween(known.until, at) < RECHECK_MINUTES
      found.set(key, {
        flag: isOneGo ? known.flag : flag,
        tier,
        from: isOneGo ? known.from : at,
        until: at,
        ...(lift && Date.parse(lift.at) >= Date.parse(at) ? { lifted: lift } : {}),
      })
    }
  }
  return [...found.values()].sort((a, b) => tierRank(a.tier) - tierRank(b.tier))
}

/** Those that stay Now whatever was found since. */
export const retainedFlags = (past: readonly PastFlag[]): readonly PastFlag[] => past.filter(({ tier, lifted }) => tier === 'now' && !lifted)

/**
 * What was urgent earlier in the examination and is so no longer by its findings: a pulse that was gone before the reduction belongs in the
 * handover although it is back.
 * @example earlierFlags(judgement(pack, pulseGoneThenBack))[0]?.flag.title // 'Arterial injury'
 */
export function earlierFlags({ past, verdict }: WithPast): readonly EarlierFlag[] {
  const isSame = (a: FlagVerdict, b: FlagVerdict): boolean => a.id === b.id && (a.side === b.side || a.side === 'none' || b.side === 'none')
  return past.flatMap((one) => {
    const standing = verdict.flags.find((flag) => isSame(flag, one.flag))
    const isRetained = standing?.retained !== undefined
    return isRetained || tierRank(one.tier) < tierRank(standing?.tier ?? 'here') ? [{ ...one, isRetained }] : []
  })
}

/** Those of them that are Now no longer: lifted by name, or of a tier that follows its findings. What is retained stands among the flags. */
export const endedFlags = (judged: WithPast): readonly EarlierFlag[] => earlierFlags(judged).filter((flag) => !flag.isRetained)
