import type { Lesions, Pack } from './types.js'

export const NO_LESIONS: Lesions = { lesions: [], neighbouringRoots: [], ties: [], pointers: [], quick: { arm: [], leg: [] }, readAs: [] }

/**
 * A pack stored by an earlier version, with what that version did not know yet left empty: a signed examination is judged with its own
 * pack for as long as it is kept. Rules and findings are never touched, so the verdict stays what it was.
 */
export function upgradePack(stored: Pack): Pack {
  const { lesions } = stored as Partial<Pack>
  return {
    ...stored,
    lesions: lesions ?? NO_LESIONS,
    regions: stored.regions.map((region) => ({ ...region, ordinary: (region as Partial<typeof region>).ordinary ?? {} })),
    items: stored.items.map((item) => {
      const { lost, also, carried } = item as Partial<typeof item>
      return lost && also && carried !== undefined ? item : { ...item, lost: lost ?? [], also: also ?? [], carried: carried ?? item.scope === 'patient' }
    }),
    calcs: stored.calcs.map((calc) => ({ ...calc, also: (calc as Partial<typeof calc>).also ?? [] })),
  }
}
