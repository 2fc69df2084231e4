import { conclusionsOf } from '../judge/conclusions.js'
import type { Destination, RegionPack } from '../pack/pack.js'
import type { Item, Stage } from '../model/item.js'
import { tierRank, type Tier } from '../model/tier.js'
import type { FlagVerdict } from '../judge/verdict.js'
import { isWanted } from '../pack/wantedItem.js'
import { dueHere } from '../judge/clock.js'
import { type Judgement } from '../judge/judgement.js'
import { openItems } from '../judge/openItems.js'
import { endedFlags } from '../judge/pastFlags.js'
import { priorityOf, raisedTo } from '../judge/priorityOf.js'
import { itemsById } from '../pack/itemsById.js'
import type { FindingEntry } from '../record/entry.js'
import { isGapEntry } from '../record/gaps.js'
import { isolated, plainText } from '../model/plainText.js'
import { byItem, itemLine } from './itemLines.js'
import { pathwaysOf } from './pathways.js'
import { planLines } from './plan.js'
import { isCheck, neurovascularText, onSoreSide } from './neurovascular.js'
import { NoteFindings } from './noteFindings.js'
import { acceptedWords, contradictionLines, disagreementLines, earlierLines, setWords, tellingLines } from './reasons.js'
import { spelledOut } from './abbreviations.js'
import { dayAndTime, dayOnly } from './times.js'
import { entryLine, findingWords, isAbnormalEntry, isMeasured, rangeWords, sideWord, tierName } from './words.js'

interface LetterPerson {
  readonly name: string
  readonly birthDate: string
  readonly localNumber?: string
  /** Where the patient is reached: telephone, address, or whoever cares for them. */
  readonly contact?: string
}

export interface LetterAbout {
  readonly patient: LetterPerson
  readonly examiner: string
  readonly site: string
  /** IANA time zone in which times are written; UTC when left out. */
  readonly zone?: string
  /** What the examiner adds: what this destination wants and the record does not hold. */
  readonly added?: string
}

export interface Letter {
  readonly to: string
  readonly destination: string
  readonly paragraphs: readonly { readonly heading: string; readonly text: string }[]
  /** What this destination wants and the record does not hold. */
  readonly missing: readonly string[]
}

/** Stages that have a paragraph of their own. */
const TOLD_APART: ReadonlySet<Stage> = new Set(['story', 'result', 'plan'])

/** Names, and what a clinician wrote: no abbreviation of theirs is touched. */
const VERBATIM: ReadonlySet<string> = new Set(['About', 'Added'])

/**
 * A referral letter from the record and its verdict, in the order in which a colleague reads it: who and how urgent, complaint, background,
 * findings with the positive first, neurovascular status with times, imaging, impression, what was advised, what is asked and by when, gaps.
 */
export function referralLetter(judged: Judgement, about: LetterAbout): Letter {
  const { pack, verdict } = judged
  const lead = verdict.flags.find((flag) => flag.tier === verdict.floor) ?? verdict.flags[0]
  const [raised] = raisedTo(pack, priorityOf(judged))
  const destination = pack.destinations.find((d) => d.id === (raised ?? lead?.to[0] ?? 'dest.own-clinic'))
  const entries = judged.record.findings
  const wanted = wantedBy(destination, judged, about.zone)
  const advised = (lead?.doNow ?? []).flatMap((id) => pack.actions.find((action) => action.id === id)?.name ?? [])
  return {
    to: destination?.name ?? 'Own clinic',
    destination: destination?.id ?? 'dest.own-clinic',
    paragraphs: [
      { heading: 'About', text: aboutText(judged, about) },
      ...[
        { heading: 'Priority', text: priorityText(judged, about.zone) },
        ...disagreementText(judged, about.zone),
        ...earlierText(judged, about.zone),
        ...foundText('Presenting complaint', ({ stage }) => stage === 'story', judged, about.zone),
        ...backgroundText(pack, entries, wanted.recorded, about.zone),
        ...foundText('Examination', ({ stage }) => !TOLD_APART.has(stage), judged, about.zone),
        ...negativesText(judged, about.zone),
        { heading: 'Neurovascular status', text: neurovascularText(judged, about.zone) },
        ...foundText('Imaging and results', ({ stage }) => stage === 'result', judged, about.zone),
        ...notDoneText(pack, entries),
        ...interpretationText(judged),
        { heading: 'Impression', text: impressionText(judged, about.zone) },
        ...wanted.given,
        ...(about.added ? [{ heading: 'Added', text: about.added }] : []),
        { heading: 'Advised', text: advised.length > 0 ? `${advised.join('; ')}.` : 'Treatment and review here.' },
        ...imagingText(judged),
        ...planText(judged, about.zone),
        { heading: 'Request', text: requestText(judged, destination, about.zone) },
        { heading: 'Not examined and still open', text: openText(judged, about.zone) },
      ].map(({ heading, text }) => ({ heading, text: plainText(text) })),
    ].map(spelledOut(pack.abbreviations, VERBATIM)),
    missing: wanted.missing,
  }
}

/** What two devices found and nobody decided, and what contradicts itself: the receiver sees both. */
function disagreementText(judged: Judgement, zone: string | undefined): { heading: string; text: string }[] {
  const told = (heading: string, lines: readonly string[]): { heading: string; text: string }[] =>
    lines.length > 0 ? [{ heading, text: `${lines.join('. ')}.` }] : []
  return [...told('Not agreed', disagreementLines(judged, zone)), ...told('Contradictory', contradictionLines(judged, zone))]
}

/** What was urgent and is no longer, by a finding or lifted: the receiver must know of a pulse that was gone. */
function earlierText(judged: Judgement, zone: string | undefined): { heading: string; text: string }[] {
  const lines = earlierLines(judged.pack, endedFlags(judged), zone)
  return lines.length > 0 ? [{ heading: 'Earlier in this examination', text: `${lines.join('. ')}.` }] : []
}

/** The pictures that the suspicions call for; what was already seen stands under what was found. */
function imagingText(judged: Judgement): { heading: string; text: string }[] {
  const { flags, floor } = judged.verdict
  const ways = pathwaysOf(
    judged,
    flags.filter((flag) => flag.tier === floor && flag.tier !== 'here'),
  )
  return ways.length > 0 ? [{ heading: 'Imaging advised', text: ways.map((way) => `${way.title}: ${way.pregnant ?? way.first}`).join(' ') }] : []
}

function aboutText({ pack, examination }: Judgement, { patient, examiner, site, zone }: LetterAbout): string {
  const region = pack.regions[0].name.toLowerCase()
  const side = examination.complaint.sides.map(sideWord).filter(Boolean).join(' and ')
  const number = patient.localNumber ? `, number ${patient.localNumber}` : ''
  const contact = patient.contact ? ` Reached at ${isolated(patient.contact)}.` : ''
  return `${isolated(patient.name)}, born ${dayOnly(patient.birthDate)}${number}.${contact} ${capital(`${side} ${region}`.trim())}, seen ${dayAndTime(examination.asOf, zone)} by ${examiner}, ${site}.`
}

function priorityText(judged: Judgement, zone: string | undefined): string {
  const { pack, examination, verdict } = judged
  const priority = priorityOf(judged)
  const set = setWords(pack, priority, zone)
  const tier = (id: Tier): string => tierName(pack, id)
  const due = dueHere(pack, examination.asOf, priority.tier, verdict.flags)
  const settled = priority.tier !== verdict.floor || verdict.floor === verdict.ceiling
  const head = settled ? tier(priority.tier) : rangeWords(pack, verdict.floor, verdict.ceiling)
  const range = `${head}${set ? ` (${set.charAt(0).toLowerCase()}${set.slice(1)})` : ''}${settled && verdict.ceiling !== verdict.floor ? `, could still be ${tier(verdict.ceiling)}` : ''}${due ? `, due by ${dayAndTime(due, zone)}` : ''}`
  return `${range}.`
}

/** What the findings stand for, with what raised it; what is met besides, and what more urgent is not excluded yet. */
function impressionText({ pack, verdict }: Judgement, zone: string | undefined): string {
  const at = (flag: FlagVerdict): boolean => flag.tier === verdict.floor
  const leading = verdict.flags
    .filter((flag) => at(flag) && flag.proof)
    .map((flag) => {
      const held = flag.retained ? [`found otherwise since ${dayAndTime(flag.retained.until, zone)}, not lifted`] : []
      const why = [...tellingLines(pack, flag), ...held]
      return why.length > 0 ? `${flag.title} (${why.join('; ')})` : flag.title
    })
  const others = named(verdict.flags.filter((flag) => !at(flag) && flag.tier !== 'here'))
  const isLeading = ({ title }: FlagVerdict): boolean => verdict.flags.some((flag) => at(flag) && flag.title === title)
  const open = named(verdict.openFlags.filter((flag) => flag.ceiling !== undefined && tierRank(flag.ceiling) < tierRank(verdict.floor) && !isLeading(flag)))
  return [
    leading.length > 0 ? `${leading.join('. ')}.` : 'No referral criterion met.',
    ...(others === '' ? [] : [`Also: ${others}.`]),
    ...(open === '' ? [] : [`Not excluded yet: ${open}.`]),
  ].join(' ')
}

/** What is done meanwhile, and when the patient is seen again. */
function planText(judged: Judgement, zone: string | undefined): { heading: string; text: string }[] {
  const lines = planLines(judged, zone).map((line) => line.replace(/\.$/, ''))
  return lines.length > 0 ? [{ heading: 'Plan', text: `${lines.join('. ')}.` }] : []
}

/** What the findings mean together; the findings themselves were told. */
function interpretationText(judged: Judgement): { heading: string; text: string }[] {
  const told = conclusionsOf(judged).map(({ says, side }) => `${says}${sideWord(side) === '' ? '' : `, ${sideWord(side)}`}`)
  return told.length > 0 ? [{ heading: 'Interpretation', text: `${[...new Set(told)].join('. ')}.` }] : []
}

/** The first few of them, each once. */
const named = (flags: readonly FlagVerdict[]): string => [...new Set(flags.map(({ title }) => title))].slice(0, MOST_NAMED).join('; ')
const MOST_NAMED = 5

/** What the receiver is asked for, and until when. */
function requestText(judged: Judgement, destination: Destination | undefined, zone: string | undefined): string {
  const { pack, examination, verdict } = judged
  const { tier } = priorityOf(judged)
  const due = dueHere(pack, examination.asOf, tier, verdict.flags)
  if (tier === 'here' || destination === undefined) return 'For information: treatment and review here.'
  return `Assessment by ${destination.name}${due ? `, by ${dayAndTime(due, zone)}` : ''}, please.`
}

/** What was looked for on the sore side and is not there, in the words of the joint. */
function negativesText(judged: Judgement, zone: string | undefined): { heading: string; text: string }[] {
  const says = new NoteFindings(judged, zone).negatives()
  return says.length > 0 ? [{ heading: 'Relevant negatives', text: says.join(' ') }] : []
}

/** What is abnormal or could not be had on the sore side, and what measures otherwise there than on the other: each with both sides. */
function foundText(heading: string, isOfIt: (item: Item) => boolean, judged: Judgement, zone: string | undefined): { heading: string; text: string }[] {
  const { pack } = judged
  const { complaint } = judged.examination
  const isHere = onSoreSide(pack, complaint)
  const told = byItem(pack, judged.record.findings, complaint.sides).filter(({ item, entries: own }) => {
    if (item.depth === 'card' || !isOfIt(item) || isBackground(pack, item, own[0])) return false
    if (isTimeOfStory(item)) return own[0]?.state === 'examined'
    if (own.some((entry) => isHere(entry) && entry.state !== 'examined')) return true
    if (isCheck(item)) return false
    const isUneven =
      item.sided && own.length > 1 && own.some((entry) => isMeasured(pack, entry)) && new Set(own.map((entry) => findingWords(pack, entry, zone))).size > 1
    return isUneven || own.some((entry) => isHere(entry) && isAbnormalEntry(pack, entry))
  })
  return told.length > 0 ? [{ heading, text: `${told.map((one) => itemLine(pack, one, zone)).join('. ')}.` }] : []
}

/** Investigations that were recorded as not done: the receiver neither waits for them nor takes them for normal. */
function notDoneText(pack: RegionPack, entries: readonly FindingEntry[]): { heading: string; text: string }[] {
  const items = itemsById(pack)
  const names = entries.flatMap((entry) => {
    const item = items.get(entry.item)
    return item?.stage === 'result' && isGapEntry(item, entry) ? [`${item.label}${entry.side === 'none' ? '' : ` ${entry.side}`}`] : []
  })
  return names.length > 0 ? [{ heading: 'Not done', text: `${names.join(', ')}.` }] : []
}

/** Who the patient is as far as it matters to whoever takes over: anticoagulants, allergies, metalwork, and what every letter needs and nobody asked. */
function backgroundText(
  pack: RegionPack,
  entries: readonly FindingEntry[],
  elsewhere: readonly FindingEntry[],
  zone: string | undefined,
): { heading: string; text: string }[] {
  const items = itemsById(pack)
  const told = entries.flatMap((entry) => {
    const item = items.get(entry.item)
    return item && isBackground(pack, item, entry) && !elsewhere.includes(entry) ? [entryLine(pack, entry, zone)] : []
  })
  const named = (ids: readonly string[]): string => ids.map((id) => items.get(id)?.label.toLowerCase()).join(', ')
  const wanted = pack.everyLetter.filter((id) => items.has(id))
  const unasked = wanted.filter((id) => !entries.some((entry) => entry.item === id && entry.state === 'examined'))
  const unknown = wanted.filter((id) => entries.some((entry) => entry.item === id && isGapEntry(items.get(id), entry)))
  const lines = [
    ...told,
    ...(unknown.length > 0 ? [`Asked and not known: ${named(unknown)}`] : []),
    ...(unasked.length > 0 ? [`Not asked: ${named(unasked)}`] : []),
  ]
  return lines.length > 0 ? [{ heading: 'Background', text: `${lines.join('. ')}.` }] : []
}

/** When it began: told with the complaint, to every receiver. */
const isTimeOfStory = ({ kind, id }: Item): boolean => kind === 'moment' && !id.startsWith('patient.')

/** A fact of the patient card that is not the ordinary answer, or a time: last dose, last meal. Age and sex stand elsewhere. */
const isBackground = (pack: RegionPack, item: Item, entry: FindingEntry | undefined): boolean =>
  entry === undefined || isTimeOfStory(item)
    ? false
    : item.kind === 'moment'
      ? entry.state === 'examined'
      : item.depth === 'card' && isAbnormalEntry(pack, entry)

/** What the destination wants: what the record holds of it, and by name what else is asked for here. A closed fracture lacks no tetanus. */
function wantedBy(
  destination: Destination | undefined,
  { pack, record, examination, verdict, compiled }: Judgement,
  zone: string | undefined,
): { readonly given: { heading: string; text: string }[]; readonly missing: readonly string[]; readonly recorded: readonly FindingEntry[] } {
  const items = itemsById(pack)
  const isAsked = (wanted: string): boolean => pack.items.some(({ id }) => isWanted(id, wanted) && (verdict.asked.level[compiled.index(id)] ?? 0) > 0)
  const recordedOf = (wanted: string): FindingEntry[] =>
    record.findings.filter((entry) => isWanted(entry.item, wanted) && !isGapEntry(items.get(entry.item), entry))
  const wanted = (destination?.letter ?? []).map(({ says, items: ids }) => ({ says, ids, entries: ids.flatMap(recordedOf) }))
  const recorded = wanted.flatMap(({ entries: own }) => own)
  const given = byItem(pack, [...new Set(recorded)], examination.complaint.sides).flatMap((one) => (isTimeOfStory(one.item) ? [] : [itemLine(pack, one, zone)]))
  return {
    given: given.length > 0 ? [{ heading: 'For this service', text: `${given.join('. ')}.` }] : [],
    missing: wanted.filter(({ ids, entries: own }) => own.length === 0 && (ids.length === 0 || ids.some(isAsked))).map(({ says }) => says),
    recorded,
  }
}

function openText(judged: Judgement, zone: string | undefined): string {
  const labels = openItems(judged).map((item) => item.label)
  const accepted = acceptedWords(judged, zone)
  const isLong = labels.length > MOST_OPEN
  const named = isLong ? `${labels.slice(0, MOST_OPEN).join('; ')}; and ${labels.length - MOST_OPEN} more, which the note lists` : labels.join('; ')
  const names = labels.length === 0 ? 'Nothing that could change the priority.' : `${named}.`
  return accepted ? `${names} ${accepted}.` : names
}
/** A letter names what matters most; all of it stands in the note. */
const MOST_OPEN = 8

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
