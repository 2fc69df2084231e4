import { localChoices } from '../pack/profile.js'
import type { Stage } from '../model/item.js'
import type { Tier } from '../model/tier.js'
import { adviceOf } from '../judge/advice.js'
import { openItems } from '../judge/openItems.js'
import { earlierFlags } from '../judge/pastFlags.js'
import { priorityOf } from '../judge/priorityOf.js'
import type { Judgement } from '../judge/judgement.js'
import { unexaminedCore } from '../judge/unexamined.js'
import { scoreReadings, spanWords } from '../judge/calcVerdicts.js'
import { dueHere } from '../judge/clock.js'
import { plainText } from '../model/plainText.js'
import { NoteFindings } from './noteFindings.js'
import { planLines, planOf } from './plan.js'
import { acceptedWords, conclusionLines, contradictionLines, disagreementLines, earlierLines, fromFilesLines, holdLines, setWords } from './reasons.js'
import { dayAndTime } from './times.js'
import { rangeWords, sideWord, tierName } from './words.js'

export interface NoteSection {
  readonly heading: string
  readonly lines: readonly string[]
}

const HEADINGS: readonly (readonly [Stage, string])[] = [
  ['patient', 'Background'],
  ['story', 'History'],
  ['screen', 'Screen'],
  ['look', 'Inspection'],
  ['feel', 'Palpation'],
  ['move', 'Movement'],
  ['strength', 'Power'],
  ['test', 'Special tests'],
  ['neuro', 'Neurology'],
  ['vascular', 'Vascular'],
  ['neighbours', 'Adjacent regions'],
  ['function', 'Function'],
  ['result', 'Imaging and results'],
]

/** The examination as a clinical note: abnormal findings spelt out, normal ones named, gaps said as gaps. */
export function clinicalNote(judged: Judgement, zone?: string): readonly NoteSection[] {
  const { pack } = judged
  const findings = new NoteFindings(judged, zone)
  const sections = HEADINGS.flatMap(([stage, heading]) => sectionOf(heading, findings.linesOf(stage)))
  const earlier = earlierLines(pack, earlierFlags(judged), zone)
  const whole: readonly NoteSection[] = [
    priorityLine(judged, zone),
    ...sectionOf('Two devices do not agree', disagreementLines(judged, zone)),
    ...sectionOf('Contradictory findings', contradictionLines(judged, zone)),
    ...sectionOf('Earlier in this examination', earlier),
    ...sections,
    ...sectionOf('Interpretation', conclusionLines(judged, zone)),
    ...sectionOf('Rules and scores', [...findings.outcomes(), ...scoreLines(judged)]),
    ...sectionOf(
      'Also consider',
      adviceOf(judged).map(({ title, says }) => `${title}: ${says}`),
    ),
    ...sectionOf('Plan', planLines(judged, zone)),
    ...sectionOf('Told to the patient', planOf(judged).told),
    ...sectionOf('Holds', holdLines(judged, zone)),
    ...sectionOf('From a file', fromFilesLines(judged)),
    ...sectionOf('Not examined', unexaminedLines(judged)),
    missingSection(judged),
    ...sectionOf('Judged by local choices', localLines(judged)),
  ]
  return whole.map(({ heading, lines }) => ({ heading, lines: lines.map(plainText) }))
}

/** Where this site's rules differ from the pack's own. */
const localLines = ({ pack, examination }: Judgement): string[] =>
  localChoices(pack.practiceVariants, examination.complaint.region).map(({ topic, chosen }) => `${topic}: ${chosen}`)

const sectionOf = (heading: string, lines: readonly string[]): NoteSection[] => (lines.length > 0 ? [{ heading, lines }] : [])

/** Scores that something speaks for; a range says that parts are missing. */
const scoreLines = (judged: Judgement): string[] =>
  scoreReadings(judged).map((score) => `${score.label}${sidePart(score.side)}: ${spanWords(score)}${score.low === score.high ? '' : ', parts missing'}`)

const sidePart = (side: string): string => (sideWord(side) === '' ? '' : `, ${sideWord(side)}`)

function priorityLine(judged: Judgement, zone: string | undefined): NoteSection {
  const { pack, examination, verdict } = judged
  const priority = priorityOf(judged)
  const set = setWords(pack, priority, zone)
  const accepted = acceptedWords(judged, zone)
  const name = (id: Tier): string => tierName(pack, id)
  const range = priority.tier !== verdict.floor ? name(priority.tier) : rangeWords(pack, verdict.floor, verdict.ceiling)
  const due = dueHere(pack, examination.asOf, priority.tier, verdict.flags)
  const lead = verdict.flags.filter((flag) => flag.tier !== 'here')
  return {
    heading: 'Priority',
    lines: [
      `${range}${due ? `; due by ${dayAndTime(due, zone)}` : ''}`,
      ...(set ? [set] : []),
      ...(accepted ? [accepted] : []),
      ...(lead.length > 0
        ? lead.map((flag) => `${flag.title}${sidePart(flag.side)}: ${name(flag.tier ?? 'here')}${flag.retained ? ', held until it is lifted' : ''}`)
        : ['No flag met. That is not the same as normal.']),
    ],
  }
}

/** What was not examined and could still make it more urgent, a line for each suspicion, with how urgent it could be. */
function missingSection(judged: Judgement): NoteSection {
  const { pack, verdict } = judged
  const suspicion = (id: string | undefined): string => verdict.openFlags.find((flag) => flag.id === id)?.title ?? ''
  const lines = new Map<string, string[]>()
  for (const { label, sides, tier, flags, onHold } of openItems(judged)) {
    const head = `Could still be ${tierName(pack, tier)}, ${suspicion(flags[0])}`
    lines.set(head, [...(lines.get(head) ?? []), `${label}${onlySide(sides)}${onHold ? ' (on hold)' : ''}`])
  }
  return {
    heading: 'Not examined and still open',
    lines: lines.size === 0 ? ['Nothing left unexamined could change the priority.'] : [...lines].map(([head, items]) => `${head}: ${items.join('; ')}`),
  }
}

const onlySide = (sides: readonly string[]): string => (sides.length === 1 ? sidePart(sides[0] ?? 'none') : '')

/** What of the core nobody examined, a line for each stop of the route. */
const unexaminedLines = (judged: Judgement): string[] =>
  unexaminedCore(judged).map(({ title, items }) => `${title}: ${items.map(({ label, sides }) => `${label}${onlySide(sides)}`).join('; ')}`)

/** The note as plain text, for copying. */
export const noteText = (sections: readonly NoteSection[]): string =>
  sections.map((section) => `${section.heading}\n${section.lines.map((line) => `  ${line}`).join('\n')}`).join('\n\n')
