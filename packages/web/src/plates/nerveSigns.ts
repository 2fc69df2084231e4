import type { Localisation } from '@kneecap-awl/core'

/** How a finding stands to the place that explains a limb best. */
export interface NerveSign {
  readonly badge: string
  readonly words: string
}

const SIGNS = {
  explains: { badge: '✓', words: 'fits' },
  against: { badge: '✗', words: 'not explained' },
  spared: { badge: '≠', words: 'expected, but normal' },
  untested: { badge: '…', words: 'expected, not examined' },
} as const
const NEXT: NerveSign = { badge: '?', words: 'separates, examine next' }

/**
 * What lies over the territories: for each item and side how it stands to the leading place of its limb; the item that separates the leaders stands first.
 * @example nerveSigns(levels).get('neuro.touch.thumb right')?.badge // '✓'
 */
export function nerveSigns(levels: readonly Localisation[]): ReadonlyMap<string, NerveSign> {
  const signs = new Map<string, NerveSign>()
  for (const { side, places, next } of levels) {
    const [best] = places
    if (!best) continue
    for (const [kind, sign] of Object.entries(SIGNS)) for (const item of best[kind as keyof typeof SIGNS]) signs.set(`${item} ${side}`, sign)
    if (next) signs.set(`${next.item} ${side}`, NEXT)
  }
  return signs
}

/**
 * The legend of what lies over the territories of one plate, naming the place for each limb; only signs that are there.
 * @example signWords(levels, new Set(['neuro.touch.thumb'])) // ['Right arm, C6 root: ✓ fits']
 */
export function signWords(levels: readonly Localisation[], items: ReadonlySet<string>): readonly string[] {
  const signs = nerveSigns(levels)
  return levels.flatMap(({ side, limb, places }) => {
    const [best] = places
    const here = new Set([...items].flatMap((item) => signs.get(`${item} ${side}`) ?? []))
    if (!best || here.size === 0) return []
    const told = [...here].map(({ badge, words }) => `${badge} ${words}`).join(' · ')
    return [`${side === 'right' ? 'Right' : 'Left'} ${limb}, ${best.name}: ${told}`]
  })
}
