import { findingWords, isAbnormalEntry, type FindingEntry, type Item, type RegionPack, type Side } from '@kneecap-awl/core'
import { timeOnly } from '../parts/times'
import type { SpotOf } from './Spot'

/** How a finding stands in its landmark: a digit for a grade, a sign for anything else; larger the more it is. */
export function markOf(item: Item, entry: FindingEntry | undefined, isAbnormal: boolean): Pick<SpotOf, 'mark' | 'state' | 'size'> {
  if (entry === undefined || entry.state === 'not-examined') return { mark: '', state: 'open', size: 0 }
  if (entry.state !== 'examined') return { mark: '⌀', state: 'could-not', size: 1 }
  const at = item.options.indexOf(String(entry.value))
  const isDigit = /^\d$/.test(String(entry.value))
  const size = isAbnormal ? Math.min(3, Math.max(1, at)) : 0
  return { mark: isDigit ? String(entry.value) : isAbnormal ? '+' : '–', state: isAbnormal ? 'abnormal' : 'normal', size }
}

/**
 * What a touch makes of it: one grade more, the next word, the first again after the last.
 * @returns undefined for what is read and not touched: a number, a list of several
 * @example nextWord(jointLine, undefined) // '0'
 */
export function nextWord(item: Item, entry: FindingEntry | undefined): string | undefined {
  if (item.options.length === 0 || item.kind === 'multi') return undefined
  const calm = item.options.filter((word) => item.calm.includes(word))
  // The nearest to normal first: reduced before absent, whichever is written first.
  const off = (word: string): number => Math.min(...calm.map((one) => Math.abs(item.options.indexOf(one) - item.options.indexOf(word))))
  const words = [...calm, ...item.options.filter((word) => !item.calm.includes(word) && !item.gaps.includes(word)).sort((a, b) => off(a) - off(b))]
  const at = entry?.state === 'examined' ? words.indexOf(String(entry.value)) : -1
  return words[(at + 1) % words.length]
}

/**
 * What was felt on one view, in words: what is abnormal on each side with its grade, each pulse with its time, and how many of all were examined.
 * @example patternWords(pack, felt, entryOf) // 'Right: medial joint line 2, fibular head 1; 6 of 14 examined. Left: 14 of 14 examined, none abnormal.'
 */
export function patternWords(pack: RegionPack, felt: readonly Item[], entryOf: (item: string, side: Side) => FindingEntry | undefined): string {
  const sides: readonly Side[] = felt.some(({ sided }) => sided) ? ['right', 'left'] : ['none']
  return sides
    .map((side) => {
      const entries = felt.flatMap((item) => {
        const entry = entryOf(item.id, item.sided ? side : 'none')
        return entry?.state === 'examined' ? [{ item, entry }] : []
      })
      const told = entries
        .filter(({ item, entry }) => item.stage === 'vascular' || isAbnormalEntry(pack, entry))
        .map(({ item, entry }) => {
          const found = /^\d$/.test(String(entry.value)) ? String(entry.value) : findingWords(pack, entry)
          return `${shortName(item.label)} ${found}${item.stage === 'vascular' ? ` at ${timeOnly(entry.at)}` : ''}`
        })
      const count = `${entries.length} of ${felt.length} examined`
      const says = told.length > 0 ? `${told.join(', ')}; ${count}` : entries.length > 0 ? `${count}, none abnormal` : 'not examined'
      return `${side === 'none' ? '' : `${side === 'right' ? 'Right' : 'Left'}: `}${says}`
    })
    .join('. ')
}

/** The place alone: that it is tender shows in its grade. */
const shortName = (label: string): string => {
  const name = label.replace(/ (tenderness|\().*$/i, '')
  return name === name.toUpperCase() || /^[A-Z]{2}/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1)
}
