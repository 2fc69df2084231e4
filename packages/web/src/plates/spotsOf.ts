import { findingWords, isAbnormalEntry, itemsById, mirrored, type FindingEntry, type Item, type Plate, type RegionPack, type Side } from '@kneecap-awl/core'
import { markOf } from './marks'
import type { NerveSign } from './nerveSigns'
import type { SpotOf } from './Spot'

interface About {
  readonly pack: RegionPack
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly isStopped?: (item: Item) => boolean
  readonly rowId?: string
  /** By item and side: how each stands to the place that explains its limb best. */
  readonly signs?: ReadonlyMap<string, NerveSign>
}

/**
 * The landmarks of one side of a plate with what was found there. Of a drawing that shows both sides the left is its mirror image.
 * @example spotsOf(kneeFront, 'right', { pack, entryOf })[0]?.label // 'Quadriceps tendon (tenderness, gap), right: not examined'
 */
export function spotsOf(plate: Plate, side: 'right' | 'left', { pack, entryOf, isStopped, rowId, signs }: About): SpotOf[] {
  const items = itemsById(pack)
  return plate.landmarks.flatMap(({ item: id, x, y }, at) => {
    const item = items.get(id)
    if (!item || (side === 'left' && plate.whole && !item.sided)) return []
    const about: Side = item.sided ? side : 'none'
    const entry = entryOf(id, about)
    const sign = signs?.get(`${id} ${about}`)
    const told = entry ? findingWords(pack, entry) : 'not examined'
    return [
      {
        key: `${id} ${about} ${at}`,
        x: plate.whole && side === 'left' ? mirrored(x) : x,
        y,
        label: `${item.label}${item.sided ? `, ${side}` : ''}: ${told}${isStopped?.(item) ? ', on hold' : ''}${sign ? `; ${sign.words}` : ''}`,
        isCurrent: id === rowId,
        badge: sign?.badge,
        ...markOf(item, entry, entry !== undefined && isAbnormalEntry(pack, entry)),
      },
    ]
  })
}
