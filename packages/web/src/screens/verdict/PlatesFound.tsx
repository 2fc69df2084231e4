import { isAbnormalEntry, itemsById, type FindingEntry, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { patternWords } from '../../plates/marks'
import { Plate } from '../../plates/Plate'
import { spotsOf } from '../../plates/spotsOf'

interface Props {
  readonly pack: RegionPack
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
}

const SIDES = ['right', 'left'] as const
const nothing = (): void => undefined

/** The plates on which something abnormal was found, both sides, with a caption that says the same in words: seen on screen and printed in black. */
export function PlatesFound({ pack, entryOf }: Props) {
  const items = itemsById(pack)
  return platesWith(pack, entryOf).map((plate) => {
    const felt = [...new Set(plate.landmarks.map(({ item }) => item))].flatMap((id) => items.get(id) ?? [])
    const recorded = (side: (typeof SIDES)[number]) => spotsOf(plate, side, { pack, entryOf }).filter(({ state }) => state !== 'open')
    const common = { plate, isReadOnly: true, isPicture: true, onTouch: nothing, onDigit: nothing, onOpen: nothing }
    return (
      <Figure key={plate.id}>
        <div>
          {plate.whole ? (
            <Plate {...common} label={`Found, both sides, ${plate.title.toLowerCase()}`} isMirrored={false} spots={SIDES.flatMap(recorded)} />
          ) : (
            SIDES.map((side) => (
              <div key={side}>
                <Plate {...common} label={`Found, ${side}, ${plate.title.toLowerCase()}`} isMirrored={side === 'left'} spots={recorded(side)} />
                <Side>{side}</Side>
              </div>
            ))
          )}
        </div>
        <figcaption>
          {plate.title}. {patternWords(pack, felt, entryOf)}.
        </figcaption>
      </Figure>
    )
  })
}

/** Each abnormal finding once: on the first view that shows it. */
function platesWith(pack: RegionPack, entryOf: Props['entryOf']): RegionPack['plates'] {
  const isFound = (id: string): boolean =>
    ([...SIDES, 'none'] as const).some((side) => {
      const entry = entryOf(id, side)
      return entry?.state === 'examined' && isAbnormalEntry(pack, entry)
    })
  const shown = new Set<string>()
  return pack.plates.filter(({ landmarks }) => {
    const found = landmarks.map(({ item }) => item).filter((id) => isFound(id) && !shown.has(id))
    for (const id of found) shown.add(id)
    return found.length > 0
  })
}

const Side = styled.p`
  text-align: center;
  font-weight: 650;
`
const Figure = styled.figure`
  margin: 12px 0;
  break-inside: avoid;
  > div {
    display: flex;
    gap: 16px;
  }
  > div > * {
    flex: 0 1 220px;
    min-width: 0;
  }
`
