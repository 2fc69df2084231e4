import type { Item } from '../model/item.js'
import type { RegionPack } from '../pack/pack.js'
import { itemsById } from '../pack/itemsById.js'
import { judgedSides } from '../judge/judgedSides.js'
import { type Judgement } from '../judge/judgement.js'
import type { Complaint, FindingEntry } from '../record/entry.js'
import { isGapEntry } from '../record/gaps.js'
import { byItem } from './itemLines.js'
import { dayAndTime } from './times.js'
import { bySide, findingWords, isAbnormalEntry, isMeasured } from './words.js'

/** Whether an item belongs to the neurovascular status. */
export const isCheck = (item: Item | undefined): boolean => item?.stage === 'neuro' || item?.stage === 'vascular'

/** Whether an entry is of a side that is judged, or of none. */
export function onSoreSide(pack: RegionPack, complaint: Complaint): (entry: FindingEntry) => boolean {
  const sides = judgedSides(pack, complaint)
  return ({ side }) => side === 'none' || sides.includes(side)
}

/**
 * Vessels, power, sensation and reflexes of the sore side with the time of each check: first what is not normal or was measured, then by name
 * what was normal and is part of the core or was asked for; the rest of what was normal stands in the note.
 * @example neurovascularText(judged, 'UTC') // 'Tue 10 Mar 2026, 09:00 UTC: Posterior tibial pulse (PT): absent on the right. Normal on the right: Dorsalis pedis pulse (DP).'
 */
export function neurovascularText({ pack, examination: { complaint }, record, verdict }: Judgement, zone: string | undefined): string {
  const items = itemsById(pack)
  const isHere = onSoreSide(pack, complaint)
  const asked = new Set(verdict.asked.prompts.flatMap((prompt) => prompt.items))
  const tells = (id: string): boolean => items.get(id)?.depth === 'core' || asked.has(id)
  const checks = record.findings.filter(
    (entry) => entry.state === 'examined' && !isGapEntry(items.get(entry.item), entry) && isCheck(items.get(entry.item)) && isHere(entry),
  )
  const byTime = new Map<string, FindingEntry[]>()
  const inOrder = byItem(pack, checks, complaint.sides).flatMap((one) => one.entries)
  for (const entry of inOrder.sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    const time = dayAndTime(entry.at, zone)
    byTime.set(time, [...(byTime.get(time) ?? []), entry])
  }
  const timed = [...byTime].map(([time, then]) => {
    const isTelling = (entry: FindingEntry): boolean => isAbnormalEntry(pack, entry) || isMeasured(pack, entry)
    const telling = bySide(
      pack,
      then.filter(isTelling).map((entry) => ({ ...entry, words: findingWords(pack, entry, zone), earlier: '' })),
    )
    const normal = normalLines(
      pack,
      then.filter((entry) => !isTelling(entry) && tells(entry.item)),
    )
    const unnamed = then.some((entry) => !isTelling(entry) && !tells(entry.item)) ? ['What else was checked is normal and stands in the note'] : []
    return `${time}: ${[...(telling.length > 0 ? [telling.join('; ')] : []), ...normal, ...unnamed].join('. ')}.`
  })
  return timed.length === 0 ? 'Not checked.' : timed.join(' ')
}

/** What is normal, by the sides on which it is: "Normal on both sides: Dorsalis pedis pulse (DP), Ankle reflex (S1)". */
function normalLines(pack: RegionPack, entries: readonly FindingEntry[]): string[] {
  const where = new Map<string, string[]>()
  for (const item of new Set(entries.map((entry) => entry.item))) {
    const sides = entries.filter((entry) => entry.item === item).map(({ side }) => side)
    const place = sides.includes('none') ? '' : sides.length > 1 ? ' on both sides' : ` on the ${sides[0] ?? ''}`
    where.set(place, [...(where.get(place) ?? []), itemsById(pack).get(item)?.label ?? item])
  }
  return [...where].map(([place, labels]) => `Normal${place}: ${labels.join(', ')}`)
}
