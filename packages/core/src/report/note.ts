import { localChoices } from '../content/profile.js'
import type { Item, Pack, Stage } from '../content/types.js'
import { openItems } from '../judge/openItems.js'
import { earlierFlags } from '../judge/pastFlags.js'
import { priorityOf } from '../judge/priorityOf.js'
import type { Judgement } from '../judge/judge.js'
import { scoreReadings, spanWords } from '../judge/calcVerdicts.js'
import { dueAt, windowsOf } from '../judge/clock.js'
import { itemsById } from '../record/checkEntry.js'
import type { Entry, Examination } from '../record/entry.js'
import { fold } from '../record/fold.js'
import { acceptedWords, earlierLines, setWords } from './reasons.js'
import { dayAndTime } from './times.js'
import { findingWords, isAbnormalEntry, isMeasured, sideWord } from './words.js'

export interface NoteSection {
  readonly heading: string
  readonly lines: readonly string[]
}

const HEADINGS: readonly (readonly [Stage, string])[] = [
  ['patient', 'Background'],
  ['story', 'Story'],
  ['screen', 'Screen'],
  ['look', 'Look'],
  ['feel', 'Feel'],
  ['move', 'Move'],
  ['strength', 'Strength'],
  ['test', 'Tests'],
  ['neuro', 'Nerve'],
  ['vascular', 'Pulse and flow'],
  ['neighbours', 'Neighbours'],
  ['function', 'Function'],
  ['result', 'Results'],
]

/** The examination as a clinical note: abnormal findings spelt out, normal ones named, gaps said as gaps. */
export function clinicalNote(pack: Pack, examination: Examination, judged: Judgement, zone?: string): readonly NoteSection[] {
  const entries = [...fold(examination.entries).values()].filter((entry) => entry.state !== 'not-examined')
  const sections = HEADINGS.flatMap(([stage, heading]) => stageSection(pack, entries, stage, heading, zone))
  const earlier = earlierLines(pack, earlierFlags(judged), zone)
  const before = earlier.length > 0 ? [{ heading: 'Earlier in this examination', lines: earlier }] : []
  return [
    priorityLine(pack, examination, judged, zone),
    ...before,
    ...sections,
    ...scoresSection(judged),
    missingSection(judged),
    ...localSection(pack, examination),
  ]
}

/** Where this site's rules differ from the pack's own. */
function localSection({ schools }: Pack, { complaint }: Examination): NoteSection[] {
  const lines = localChoices(schools, complaint.region).map(({ topic, chosen }) => `${topic}: ${chosen}`)
  return lines.length > 0 ? [{ heading: 'Judged by local choices', lines }] : []
}

/** Scores that something speaks for; a range says that parts are missing. */
function scoresSection(judged: Judgement): NoteSection[] {
  const lines = scoreReadings(judged).map(
    (score) => `${score.label}${sidePart(score.side)}: ${spanWords(score)}${score.low === score.high ? '' : ', parts missing'}`,
  )
  return lines.length > 0 ? [{ heading: 'Scores', lines }] : []
}

/** What has no word for "nothing" says something whatever the answer: a sex, a place, a way of beginning. */
const isAlwaysTold = (item: Item | undefined): boolean =>
  item !== undefined && (item.mustBeTold || (item.options.length > 1 && item.options.every((word) => item.calm.includes(word))))

function stageSection(pack: Pack, entries: readonly Entry[], stage: Stage, heading: string, zone: string | undefined): NoteSection[] {
  const items = itemsById(pack)
  const own = entries.filter((entry) => items.get(entry.item)?.stage === stage)
  if (own.length === 0) return []
  const telling = own.filter(
    (entry) => entry.state !== 'examined' || isAbnormalEntry(pack, entry) || isMeasured(pack, entry) || isAlwaysTold(items.get(entry.item)),
  )
  const normal = [...new Set(own.filter((entry) => !telling.includes(entry)).map((entry) => items.get(entry.item)?.label ?? entry.item))]
  const lines = telling.map(
    (entry) =>
      `${items.get(entry.item)?.label ?? entry.item}${sidePart(entry.side)}: ${findingWords(pack, entry, zone)}${entry.override ? ` [done against a hold: ${entry.override.reason}]` : ''}`,
  )
  return [
    {
      heading,
      lines:
        normal.length > 0
          ? [...lines, `${stage === 'story' || stage === 'patient' ? 'Asked and absent or usual' : 'Examined and normal'}: ${normal.join('; ')}`]
          : lines,
    },
  ]
}

const sidePart = (side: string): string => (sideWord(side) === '' ? '' : `, ${sideWord(side)}`)

function priorityLine(pack: Pack, examination: Examination, judged: Judgement, zone: string | undefined): NoteSection {
  const { verdict } = judged
  const priority = priorityOf(judged)
  const set = setWords(pack, priority, zone)
  const accepted = acceptedWords(pack, judged, zone)
  const name = (id: string): string => pack.tiers.find((tier) => tier.id === id)?.name ?? id
  const range =
    priority.tier !== verdict.floor
      ? name(priority.tier)
      : verdict.floor === verdict.ceiling
        ? name(verdict.floor)
        : `at least ${name(verdict.floor)}, could still be ${name(verdict.ceiling)}`
  const due = dueAt(examination.asOf, priority.tier, windowsOf(pack))
  const lead = verdict.flags.filter((flag) => flag.tier !== 'here')
  return {
    heading: 'Priority',
    lines: [
      `${range}${due ? `; due by ${dayAndTime(due, zone)}` : ''}`,
      ...(set ? [set] : []),
      ...(accepted ? [accepted] : []),
      ...(lead.length > 0
        ? lead.map((flag) => `${flag.title}${sidePart(flag.side)}: ${name(flag.tier ?? 'here')}${flag.held ? ', held until it is lifted' : ''}`)
        : ['No flag met. That is not the same as normal.']),
    ],
  }
}

function missingSection(judged: Judgement): NoteSection {
  const open = openItems(judged)
  return {
    heading: 'Not examined and still open',
    lines:
      open.length > 0
        ? open.slice(0, 12).map((item) => `${item.label}${item.held ? ' (on hold)' : ''}`)
        : ['Nothing left unexamined could change the priority.'],
  }
}

/** The note as plain text, for copying. */
export const noteText = (sections: readonly NoteSection[]): string =>
  sections.map((section) => `${section.heading}\n${section.lines.map((line) => `  ${line}`).join('\n')}`).join('\n\n')
