import { startTransition, useState } from 'react'
import { itemsById, mirrored, type FindingEntry, type Item, type Localisation, type Plate as PlateOf, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, Soft, Toggle, ToggleRow } from '../../parts/controls'
import { useKept } from '../../parts/useKept'
import { Plate } from '../../plates/Plate'
import { painted } from '../../plates/painted'
import { nextWord, patternWords } from '../../plates/marks'
import { nerveSigns, signWords } from '../../plates/nerveSigns'
import { spotsOf } from '../../plates/spotsOf'
import { wordOfDigit } from './restOfStop'
import { kept, type Answer } from './ValueControl'

interface Props {
  readonly pack: RegionPack
  readonly rows: readonly Item[]
  readonly rowId: string
  readonly isReadOnly: boolean
  readonly isStopped: (item: Item) => boolean
  /** What explains the losses of each limb best. */
  readonly levels: readonly Localisation[]
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly onFocus: (item: string) => void
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
  readonly onGo: (item: string) => void
}

const KEY = 'awl-plates'
const HIDDEN = 'hidden'
/** With fewer of its rows on a plate a station is no map: of what is felt, and of what is touched or has a pulse. */
const LEAST_PLACED = { feel: 3, other: 2 }

/** Both sides of a joint as drawings beside the rows of a station where something is felt, touched or has a pulse: what is touched here stands in the rows at once, and the other way round. */
export function FeelPlates(props: Props) {
  const { pack, rows } = props
  const [wish, setWish] = useKept(KEY)
  const isHidden = wish === HIDDEN
  const [chosen, setChosen] = useState(0)
  const shown = new Set(rows.map(({ id }) => id))
  const plates = pack.plates.filter(({ landmarks }) => landmarks.some(({ item }) => shown.has(item)))
  const onPlates = new Set(plates.flatMap(({ landmarks }) => landmarks.map(({ item }) => item)))
  const placed = rows.filter(({ id }) => onPlates.has(id))
  const felt = placed.filter(({ stage }) => stage === 'feel').length
  const isMap = felt >= LEAST_PLACED.feel || placed.length - felt >= LEAST_PLACED.other
  const plate = plates[Math.min(chosen, plates.length - 1)]
  if (!isMap || !plate) return null
  return (
    <Box aria-label="Plates">
      <Head>
        {plates.length > 1 && !isHidden && (
          <ToggleRow
            aria-label="View"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[plate.id]}
            onSelectionChange={([key]) => setChosen(plates.findIndex(({ id }) => id === key))}
          >
            {plates.map(({ id, title }) => (
              <Toggle key={id} id={id}>
                {title}
              </Toggle>
            ))}
          </ToggleRow>
        )}
        <Soft>{isHidden ? '' : 'touch: one more · hold: its row'}</Soft>
        <Button $tone="quiet" onPress={() => setWish(isHidden ? undefined : HIDDEN)}>
          {isHidden ? 'Show the plates' : 'Hide the plates'}
        </Button>
      </Head>
      {!isHidden && <Sides {...props} plate={plate} />}
    </Box>
  )
}

function Sides(props: Props & { readonly plate: PlateOf }) {
  const { pack, plate, levels, onAnswer, onGo, onFocus, isReadOnly, isStopped } = props
  const items = itemsById(pack)
  // What was touched shows in the next frame; the judgement and the rows follow, and a further touch does not wait for them.
  const [touched, setTouched] = useState<readonly FindingEntry[]>([])
  const entryOf: Props['entryOf'] = (item, side) => touched.findLast((one) => one.item === item && one.side === side) ?? props.entryOf(item, side)
  const about = (key: string): { item: Item | undefined; side: Side } => {
    const [id = '', side = 'none'] = key.split(' ')
    return { item: items.get(id), side: side as Side }
  }
  const give = (key: string, word: (item: Item, entry: FindingEntry | undefined) => string | undefined): void => {
    const { item, side } = about(key)
    if (!item) return
    const entry = entryOf(item.id, side)
    const value = word(item, entry)
    if (value === undefined || isStopped(item)) return onGo(item.id)
    const answer = kept({ item, entry }, { value })
    const shown: FindingEntry = { id: '', by: '', at: new Date().toISOString(), item: item.id, side, state: 'examined', ...answer }
    setTouched((now) => [...now, shown])
    void painted().then(() =>
      startTransition(() => {
        onFocus(item.id)
        onAnswer(item, side, answer)
        setTouched((now) => now.filter((one) => one !== shown))
      }),
    )
  }
  const common = {
    plate,
    isReadOnly,
    onTouch: (key: string) => give(key, nextWord),
    onDigit: (key: string, digit: string) => give(key, (item) => wordOfDigit(item, digit)),
    onOpen: (key: string) => onGo(about(key).item?.id ?? ''),
  }
  const felt = [...new Set(plate.landmarks.map(({ item }) => item))].flatMap((id) => items.get(id) ?? [])
  // Told of the record, with the rows: the frame after a touch has the mark alone to show.
  const pattern = patternWords(pack, felt, props.entryOf)
  const shown = { ...props, entryOf, signs: nerveSigns(levels) }
  const signed = signWords(levels, new Set(felt.map(({ id }) => id)))
  return (
    <>
      <Pair $isWhole={plate.whole === true} ref={toMiddle}>
        {plate.whole ? (
          <figure>
            <Plate
              {...common}
              label={`Both sides, ${plate.title.toLowerCase()}`}
              isMirrored={false}
              spots={[...spotsOf(plate, 'right', shown), ...spotsOf(plate, 'left', shown)]}
            />
            <figcaption>{isFromBehind(plate) ? 'from behind: the right is on the right' : 'facing you: the right is on the left'}</figcaption>
          </figure>
        ) : (
          (['right', 'left'] as const).map((side) => (
            <figure key={side}>
              <Plate
                {...common}
                label={`${side === 'right' ? 'Right' : 'Left'}, ${plate.title.toLowerCase()}`}
                isMirrored={side === 'left'}
                spots={spotsOf(plate, side, shown)}
              />
              <figcaption>{side}</figcaption>
            </figure>
          ))
        )}
      </Pair>
      <Pattern aria-live="polite">{pattern}</Pattern>
      {signed.map((words) => (
        <Pattern key={words}>{words}</Pattern>
      ))}
    </>
  )
}

/** Where a plate is wider than the screen its middle is seen first. */
const toMiddle = (box: HTMLElement | null): void => {
  if (box) box.scrollLeft = (box.scrollWidth - box.clientWidth) / 2
}

const isFromBehind = ({ landmarks }: PlateOf): boolean => landmarks.some(({ x }) => x > mirrored(x))

const Box = styled.section`
  padding: 6px 8px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  > :last-child {
    margin-left: auto;
  }
`
const Pair = styled.div<{ $isWhole: boolean }>`
  display: grid;
  grid-template-columns: ${({ $isWhole }) => ($isWhole ? 'minmax(0, 1fr)' : 'repeat(2, minmax(0, 1fr))')};
  justify-items: safe center;
  gap: 24px;
  margin-top: 8px;
  overflow-x: auto;
  figure {
    width: 300px;
    margin: 0;
  }
  figcaption {
    font-size: 12px;
    text-align: center;
    color: ${({ theme }) => theme.soft};
  }
  @media (pointer: coarse), (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
    figure {
      width: auto;
    }
  }
`
const Pattern = styled.p`
  min-height: 20px;
  text-align: center;
`
