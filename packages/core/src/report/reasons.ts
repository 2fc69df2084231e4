import { NORMAL } from '../model/item.js'
import { counted } from '../model/plural.js'
import { SIDES, type Side } from '../model/side.js'
import type { RegionPack, Rival } from '../pack/pack.js'
import { type Tier } from '../model/tier.js'
import { conclusionsOf } from '../judge/conclusions.js'
import { contradictionsOf } from '../judge/contradictions.js'
import { releaseOf } from '../judge/holds.js'
import type { EarlierFlag } from '../judge/pastFlags.js'
import type { FlagVerdict } from '../judge/verdict.js'
import type { Judgement } from '../judge/judgement.js'
import type { Priority } from '../judge/priorityOf.js'
import { findingsOf } from '../rules/proof.js'
import { type ProofFinding } from '../rules/proofNode.js'
import { itemsById } from '../pack/itemsById.js'
import type { Entry, FindingEntry } from '../record/entry.js'
import { dayAndTime, spanOf } from './times.js'
import { bySide, entryLine, findingWords, isAbnormalEntry, shortLabel, sideWord, tierName } from './words.js'

/** A finding of a proof in the shape of an entry, for the functions that put entries into words. */
export function asEntry(finding: ProofFinding): Pick<FindingEntry, 'item' | 'state' | 'value' | 'qualifiers' | 'reason'> {
  const { item, value, qualifiers, reason } = finding
  const state = finding.state === 'derived' || finding.state === 'not-indicated' ? 'examined' : finding.state
  const plain = typeof value === 'object' && 'low' in value ? undefined : value
  return { item, state, ...(plain === undefined ? {} : { value: plain }), ...(qualifiers ? { qualifiers } : {}), ...(reason === undefined ? {} : { reason }) }
}

/**
 * The recorded findings that raised a flag: what is abnormal, measured or could not be done. Normal findings that only leave the
 * flag standing stay in the whole proof.
 */
function tellingFindings(pack: RegionPack, flag: FlagVerdict): readonly ProofFinding[] {
  const items = itemsById(pack)
  const recorded = flag.proof
    ? findingsOf(flag.proof).filter((finding) => finding.state === 'examined' || finding.state === 'could-not' || finding.state === 'not-valid')
    : []
  const telling = recorded.filter((finding) => {
    const item = items.get(finding.item)
    const isNumber = item !== undefined && item.options.length === 0 && finding.qualifiers?.equal !== true && finding.value !== NORMAL
    return finding.state !== 'examined' || isNumber || item?.depth === 'card' || isAbnormalEntry(pack, asEntry(finding))
  })
  return telling.length > 0 ? telling : recorded
}

/**
 * What raised a flag, a line for each item with both sides in one breath.
 * @example tellingLines(pack, flag) // ['Dorsalis pedis pulse (DP): absent on the right, normal on the left']
 */
export function tellingLines(pack: RegionPack, flag: FlagVerdict): string[] {
  const sided = tellingFindings(pack, flag).map((finding) => ({
    ...finding,
    words: findingWords(pack, asEntry(finding)),
    earlier: earlierWords(pack, finding),
  }))
  return bySide(pack, sided)
}

/** What a finding was at the check before. @example earlierWords(pack, finding) // 'normal 20 min before' */
export function earlierWords(pack: RegionPack, { item, before }: Pick<ProofFinding, 'item' | 'before'>): string {
  if (!before) return ''
  const then = findingWords(pack, { item, state: 'examined', qualifiers: before.qualifiers, ...(before.value === undefined ? {} : { value: before.value }) })
  return `${then} ${spanOf(before.hours)} before`
}

/** Each contradiction with the findings that do not agree. */
export const contradictionLines = (judged: Judgement, zone?: string): string[] =>
  contradictionsOf(judged).map((one) => `${one.says}${ofSide(one.side)}: ${standsOn(one, judged, zone)}`)

/** What the findings mean together, each with what it stands on and what else would explain it. */
export const conclusionLines = (judged: Judgement, zone?: string): string[] =>
  conclusionsOf(judged).map((one) => `${one.says}${ofSide(one.side)}: ${standsOn(one, judged, zone)}${rivalWords(judged.pack, one.rivals)}`)

/** @example rivalWords(pack, rivals) // '. Differential: osteoarthritis (radiograph: joint space lost)' */
function rivalWords(pack: RegionPack, rivals: readonly Rival[]): string {
  if (rivals.length === 0) return ''
  const label = (id: string): string => shortLabel(itemsById(pack).get(id)?.label ?? id)
  return `. Differential: ${rivals.map(({ is, by, shows }) => `${is} (${label(by)}: ${shows})`).join('; ')}`
}

const ofSide = (side: Side): string => (side === 'none' ? '' : ` (${side})`)

/** The findings that something stands on, in words. */
function standsOn({ side, items }: { readonly side: Side; readonly items: readonly string[] }, judged: Judgement, zone?: string): string {
  const told = items.flatMap((item) =>
    SIDES.filter((at) => at === side || at === 'none' || isPaired(item, judged)).flatMap((at) => {
      const entry = judged.record.finding(item, at)
      return entry ? [entryLine(judged.pack, entry, zone)] : []
    }),
  )
  return [...new Set(told)].join('; ')
}

/** Whether a finding is told of both sides: a number is read beside the other side. */
const isPaired = (item: string, { pack }: Judgement): boolean => {
  const one = itemsById(pack).get(item)
  return one !== undefined && one.sided && one.options.length === 0
}

/**
 * What two devices found within minutes of each other, a line each.
 * @example "Dorsalis pedis pulse right: absent (Dr Brannock, 10:42) or normal (Dr Quill, 10:44): the first stands until a clinician decides"
 */
export const disagreementLines = ({ pack, disagreements }: Pick<Judgement, 'pack' | 'disagreements'>, zone?: string): string[] =>
  disagreements.map(({ stands, other }) => {
    const by = (entry: FindingEntry): string => `(${whoRecorded(entry)}, ${dayAndTime(entry.at, zone)})`
    return `${entryLine(pack, stands, zone)} ${by(stands)} or ${findingWords(pack, other, zone)} ${by(other)}: the first, as the more urgent, stands until a clinician decides`
  })

/**
 * Who recorded an entry, as far as that is known here: whoever was signed in, and who a file or another device says it was.
 * @example whoRecorded({ by: 'Dr Quill', saidBy: 'Dr Marr' }) // "Dr Quill, from a file, said to be by Dr Marr"
 */
export const whoRecorded = ({ by, saidBy }: Pick<Entry, 'by' | 'saidBy'>): string => (saidBy === undefined ? by : `${by}, from a file, said to be by ${saidBy}`)

/** How many findings came from a file, and who is said to have recorded them, a line a name. */
export function fromFilesLines({ record }: Pick<Judgement, 'record'>): string[] {
  const counts = new Map<string, number>()
  for (const entry of record.findings) {
    if (entry.saidBy === undefined) continue
    const who = `read by ${entry.by}, said to be recorded by ${entry.saidBy}`
    counts.set(who, (counts.get(who) ?? 0) + 1)
  }
  return [...counts].map(([who, count]) => `${counted(count, 'finding', 'findings')} ${who}`)
}

/** Holds that a clinician released, with the reason. */
export const holdLines = (judged: Pick<Judgement, 'verdict' | 'record'>, zone?: string): string[] =>
  judged.verdict.holds.flatMap((hold) => {
    const release = releaseOf(hold, judged)
    const side = sideWord(hold.side)
    return release ? [`${hold.title}${side === '' ? '' : `, ${side}`}: released ${dayAndTime(release.at, zone)} by ${release.by}: ${release.reason}`] : []
  })

/**
 * What was urgent earlier in the examination, a line each, and whether it was lifted.
 * @example "Arterial injury right: Now until 10:42 (Dorsalis pedis pulse (DP): absent on the right). Lifted 10:50 by Dr Brannock: both feet alike"
 */
export const earlierLines = (pack: RegionPack, earlier: readonly EarlierFlag[], zone?: string): string[] =>
  earlier.map((one) => {
    const { flag, tier, until } = one
    const name = tierName(pack, tier)
    const side = sideWord(flag.side)
    const because = tellingLines(pack, flag)
    const met = `${flag.title}${side === '' ? '' : ` ${side}`}: ${name} until ${dayAndTime(until, zone)}${because.length > 0 ? ` (${because.join('; ')})` : ''}`
    return `${met}${liftWords(one, name, zone)}`
  })

function liftWords({ lifted, isRetained }: EarlierFlag, tier: string, zone: string | undefined): string {
  if (isRetained) return `. Found otherwise since, and not lifted: stays ${tier}`
  return lifted ? `. Lifted ${dayAndTime(lifted.at, zone)} by ${lifted.by}: ${lifted.reason}` : ''
}

/**
 * Who set the priority, in place of what; undefined when nobody did.
 * @example "Computed Today, set to Days by Dr Brannock, Tue 10 Mar 2026, 10:30 UTC: film seen. Dr Quill agreed Tue 10 Mar 2026, 10:28 UTC"
 */
export function setWords(pack: RegionPack, { set, computed }: Priority, zone?: string): string | undefined {
  if (!set) return undefined
  const name = (id: Tier): string => tierName(pack, id)
  const who = `set to ${name(set.tier)} by ${set.by}, ${dayAndTime(set.at, zone)}${set.reason ? `: ${set.reason}` : ''}`
  const agreed = set.senior ? `. ${set.senior} agreed${set.seniorAt ? ` ${dayAndTime(set.seniorAt, zone)}` : ''}` : ''
  return set.hasLapsed ? `Was ${who}${agreed}. That has lapsed: the findings now give ${name(computed)}` : `Computed ${name(computed)}, ${who}${agreed}`
}

/**
 * Who left the range open, why and with what plan; undefined when nobody did or nothing is open any more.
 * @example "Left open up to Now by Dr Brannock, Tue 10 Mar 2026, 10:30 UTC: would not lie down. Plan: again at noon, with her daughter"
 */
export function acceptedWords({ pack, verdict, record }: Pick<Judgement, 'pack' | 'verdict' | 'record'>, zone?: string): string | undefined {
  const { acceptance } = record.decisions
  if (!acceptance || verdict.floor === verdict.ceiling) return undefined
  const { ceiling, plan, by, at, reason } = acceptance
  return `Left open up to ${tierName(pack, ceiling)} by ${by}, ${dayAndTime(at, zone)}: ${reason}. Plan: ${plan}`
}
