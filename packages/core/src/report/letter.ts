import type { Pack } from '../content/types.js'
import type { Judgement } from '../judge/judge.js'
import { openItems } from '../judge/openItems.js'
import { dueAt } from '../judge/clock.js'
import { findingsOf } from '../judge/proof.js'
import type { Examination } from '../record/entry.js'
import { itemsById } from '../record/checkEntry.js'
import { fold } from '../record/fold.js'
import { findingWords, isAbnormalEntry, sideWord } from './words.js'

export interface LetterPerson {
  readonly name: string
  readonly birthDate: string
  readonly localNumber?: string
}

export interface Letter {
  readonly to: string
  readonly destination: string
  readonly paragraphs: readonly { readonly heading: string; readonly text: string }[]
  /** What this destination wants and the record does not hold. */
  readonly missing: readonly string[]
}

/** A referral letter from the record and its verdict: range, reason, findings of both sides, gaps, and what the destination still wants. */
export function referralLetter(
  pack: Pack,
  examination: Examination,
  judged: Judgement,
  about: { readonly patient: LetterPerson; readonly examiner: string; readonly site: string },
): Letter {
  const { verdict } = judged
  const lead = verdict.flags.find((flag) => flag.tier === verdict.floor) ?? verdict.flags[0]
  const destination = pack.destinations.find((d) => d.id === (lead?.to[0] ?? 'dest.own-clinic'))
  const tier = (id: string): string => pack.tiers.find((t) => t.id === id)?.name ?? id
  const due = dueAt(examination.asOf, verdict.floor)
  const region = pack.regions.find((r) => r.id === examination.complaint.region)?.name.toLowerCase() ?? examination.complaint.region
  const side = examination.complaint.sides.map(sideWord).join(' and ')
  return {
    to: destination?.name ?? 'Own clinic',
    destination: destination?.id ?? 'dest.own-clinic',
    paragraphs: [
      {
        heading: 'About',
        text: `${about.patient.name}, born ${about.patient.birthDate}${about.patient.localNumber ? `, number ${about.patient.localNumber}` : ''}. ${capital(side)} ${region}, seen ${examination.asOf.slice(0, 16).replace('T', ' ')} UTC by ${about.examiner}, ${about.site}.`,
      },
      {
        heading: 'Priority',
        text: `${tier(verdict.floor)}${verdict.ceiling === verdict.floor ? '' : `, could still be ${tier(verdict.ceiling)}`}${due ? `, due by ${due.slice(0, 16).replace('T', ' ')} UTC` : ''}. ${lead ? `Reason: ${reasonOf(pack, judged)}` : 'No flag met.'}`,
      },
      ...examination.complaint.sides.flatMap((s) => findingsParagraph(pack, examination, s)),
      { heading: 'Done and advised', text: actionTexts(pack, lead?.doNow ?? []).join(' ') || 'Treatment and review here.' },
      {
        heading: 'Not examined and still open',
        text:
          openItems(judged)
            .slice(0, 8)
            .map((item) => item.label)
            .join('; ') || 'Nothing that could change the priority.',
      },
    ],
    missing: destination?.letter ?? [],
  }
}

function reasonOf(pack: Pack, { verdict }: Judgement): string {
  const items = itemsById(pack)
  return verdict.flags
    .filter((flag) => flag.tier === verdict.floor && flag.proof)
    .map((flag) => {
      const because = flag.proof ? findingsOf(flag.proof).filter((f) => f.state === 'examined' || f.state === 'could-not') : []
      return `${flag.title}${
        because.length > 0
          ? ` (${because
              .slice(0, 5)
              .map(
                (f) =>
                  `${items.get(f.item)?.label ?? f.item}${sideWord(f.side) ? ` ${sideWord(f.side)}` : ''}: ${findingWords(pack, { item: f.item, state: f.state as 'examined', ...(f.value === undefined ? {} : { value: f.value as string }), ...(f.qualifiers ? { qualifiers: f.qualifiers } : {}), ...(f.reason ? { reason: f.reason } : {}) })}`,
              )
              .join('; ')})`
          : ''
      }.`
    })
    .join(' ')
}

function findingsParagraph(pack: Pack, examination: Examination, side: string): { heading: string; text: string }[] {
  const items = itemsById(pack)
  const here = [...fold(examination.entries).values()].filter(
    (entry) => (entry.side === side || entry.side === 'none') && items.get(entry.item)?.depth !== 'card',
  )
  const told = here
    .filter((entry) => isAbnormalEntry(pack, entry) || entry.state === 'could-not')
    .map((entry) => `${items.get(entry.item)?.label ?? entry.item}: ${findingWords(pack, entry)}`)
  return told.length > 0 ? [{ heading: `Found, ${sideWord(side)}`, text: `${told.join('. ')}.` }] : []
}

const actionTexts = (pack: Pack, ids: readonly string[]): string[] => ids.flatMap((id) => pack.actions.find((action) => action.id === id)?.text ?? [])
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
