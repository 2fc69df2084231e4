import { isSiteOfPain, mirrored, type Item, type Plate as PlateOf, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { SmallTitle, Soft } from '../parts/controls'
import { Plate } from './Plate'
import type { SpotOf } from './Spot'

interface Props {
  readonly pack: RegionPack
  readonly items: readonly Item[]
  readonly sides: readonly Side[]
  readonly isReadOnly: boolean
  /** What it is called: "Site of pain". */
  readonly title?: string
  /** The places that were told of a side so far. */
  readonly wordsOf: (item: Item, side: Side) => readonly string[]
  /** The places that are told now; none takes back what was told. */
  readonly onWords: (item: Item, side: Side, words: readonly string[]) => void
}

/** Where it hurts, on the drawings of the joint: one place or several, of each side that is the complaint. In words it stands among the facts. */
export function SitePlates({ pack, items, sides, isReadOnly, title = 'Site of pain', wordsOf, onWords }: Props) {
  const item = items.find(({ id }) => isSiteOfPain(id))
  const plates = pack.plates.filter(({ sites }) => sites !== undefined && sites.length > 0)
  if (!item || plates.length === 0) return null
  const drawn: readonly Side[] = plates.some(({ whole }) => whole) ? ['none'] : sides
  return (
    <section aria-label={title}>
      <SmallTitle>{title}</SmallTitle>
      <Row>
        {drawn.flatMap((side) =>
          plates.map((plate) => {
            const spots = placesOf(plate, item, side).map(({ key, word, about, x, y }): SpotOf => {
              const isTold = about.every((one) => wordsOf(item, one).includes(word))
              const where = plate.whole && about.length === 1 && about[0] !== 'none' ? `, ${about[0] ?? ''}` : ''
              return {
                key,
                x,
                y,
                label: `${word}${where}: ${isTold ? 'painful' : 'not told'}`,
                mark: isTold ? '×' : '',
                state: isTold ? 'abnormal' : 'open',
                size: isTold ? 1 : 0,
                isCurrent: false,
              }
            })
            const flip = (key: string): void => {
              const { word = '', about = [] } = placesOf(plate, item, side).find((one) => one.key === key) ?? {}
              const isTold = about.every((one) => wordsOf(item, one).includes(word))
              for (const one of about) {
                const others = wordsOf(item, one).filter((other) => other !== word)
                onWords(item, one, isTold ? others : [...others, word])
              }
            }
            return (
              <figure key={`${side} ${plate.id}`}>
                <Plate
                  plate={plate}
                  label={`${title}, ${side === 'none' ? '' : `${side}, `}${plate.title.toLowerCase()}`}
                  isMirrored={side === 'left'}
                  spots={spots}
                  isReadOnly={isReadOnly}
                  onTouch={flip}
                  onDigit={flip}
                  onOpen={flip}
                />
                <figcaption>
                  <Soft>
                    {side === 'none' ? '' : `${side}, `}
                    {plate.title.toLowerCase()}
                  </Soft>
                </figcaption>
              </figure>
            )
          }),
        )}
      </Row>
    </section>
  )
}

interface Touched {
  readonly key: string
  readonly word: string
  /** The sides that it is told of. */
  readonly about: readonly Side[]
  readonly x: number
  readonly y: number
}

/** Every site of a plate; where one drawing shows both sides, what is not in the middle stands on each. */
function placesOf({ sites = [], whole }: PlateOf, { sided }: Item, side: string): Touched[] {
  return sites.flatMap(({ word, x, y }) => {
    const isMiddle = x === mirrored(x)
    if (!whole) return [{ key: word, word, about: [sided ? (side as Side) : 'none'], x, y }]
    if (isMiddle) return [{ key: word, word, about: sided ? (['right', 'left'] as const) : ['none'], x, y }]
    const of = (one: Side): readonly Side[] => [sided ? one : 'none']
    return [
      { key: `${word} right`, word, about: of('right'), x, y },
      { key: `${word} left`, word, about: of('left'), x: mirrored(x), y },
    ]
  })
}

const Row = styled.div`
  display: flex;
  gap: 12px;
  overflow-x: auto;
  figure {
    flex: none;
    width: 300px;
    margin: 0;
    text-align: center;
  }
`
