import { useState } from 'react'
import type { Entry, Item, Pack, Side } from '@kneecap-awl/core'
import { Disclosure, DisclosurePanel, ToggleButtonGroup } from 'react-aria-components'
import styled from 'styled-components'
import type { Draft } from '../../record/useRecord'
import { Button, Card, Input, SmallTitle, Soft, Toggle } from '../../parts/controls'
import { Button as AriaButton } from 'react-aria-components'
import { ValueControl, type Answer } from './ValueControl'

interface Props {
  readonly pack: Pack
  readonly items: readonly Item[]
  readonly because: ReadonlyMap<string, string>
  readonly sides: readonly Side[]
  readonly startedAt: string
  readonly isReadOnly: boolean
  readonly entryOf: (item: string, side: Side) => Entry | undefined
  readonly isAnswered: (item: Item) => boolean
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
  readonly onRecord: (drafts: readonly Draft[]) => void
}

/** The story as chips: tap what is true, then say that the rest was asked. The patient card stands beside it, confirmed once. */
export function StoryCard(props: Props) {
  const { pack, items, isAnswered, onRecord, sides, isReadOnly } = props
  const card = pack.items.filter((item) => item.stage === 'patient')
  const normals = (of: readonly Item[]): Draft[] =>
    of
      .filter((item) => !isAnswered(item) && item.normal)
      .flatMap((item) => (item.sided ? sides : (['none'] as const)).map((side) => ({ item: item.id, side, state: 'examined' as const, ...item.normal })))
  const core = items.filter((item) => item.depth === 'core')
  const prompted = items.filter((item) => item.depth !== 'core')
  const openCard = card.filter((item) => !isAnswered(item))
  return (
    <Grid>
      <Box>
        <Disclosure defaultExpanded={false}>
          <Head>
            <SmallTitle>Patient card</SmallTitle>
            <Button isDisabled={isReadOnly || normals(card).length === 0} onPress={() => onRecord(normals(card))}>
              {openCard.length > 0 ? 'Confirm: the rest none' : 'Confirmed'}
            </Button>
          </Head>
          <Soft as="p" style={{ maxHeight: 36, overflow: 'hidden' }}>
            {openCard.length === 0 ? 'Everything on the card is known.' : `Not known yet: ${openCard.map((item) => item.label.toLowerCase()).join(', ')}.`}
          </Soft>
          <More slot="trigger">Open the card</More>
          <DisclosurePanel>
            <Facts {...props} items={card} />
          </DisclosurePanel>
        </Disclosure>
      </Box>
      <Box>
        <Head>
          <SmallTitle>This episode</SmallTitle>
          <Button isDisabled={isReadOnly || normals(core).length === 0} onPress={() => onRecord(normals(core))}>
            Asked, none of the rest
          </Button>
        </Head>
        <Facts {...props} items={core} />
        {prompted.length > 0 && (
          <>
            <Head>
              <SmallTitle>Asked because of what is known</SmallTitle>
              <Button isDisabled={isReadOnly || normals(prompted).length === 0} onPress={() => onRecord(normals(prompted))}>
                Asked, none of these
              </Button>
            </Head>
            <Facts {...props} items={prompted} />
          </>
        )}
      </Box>
    </Grid>
  )
}

function Facts({ pack, items, because, sides, startedAt, isReadOnly, entryOf, onAnswer }: Props) {
  return (
    <List>
      {items.map((item) => (
        <Fact key={item.id} id={`row-${item.id}`}>
          <div>
            <span>{item.label}</span>
            {because.get(item.id) && <Soft as="div">asked because {because.get(item.id)}</Soft>}
            {item.hint && <Soft as="div">{item.hint}</Soft>}
          </div>
          <Answers>
            {(item.sided ? sides : (['none'] as const)).map((side) => (
              <span key={side}>
                {item.sided && sides.length > 1 && <Soft>{side === 'right' ? 'R ' : 'L '}</Soft>}
                {item.kind === 'moment' ? (
                  <SinceWhen
                    label={item.label}
                    entry={entryOf(item.id, side)}
                    startedAt={startedAt}
                    isDisabled={isReadOnly}
                    onSet={(answer) => onAnswer(item, side, answer)}
                  />
                ) : (
                  <ValueControl
                    pack={pack}
                    item={item}
                    side={side}
                    entry={entryOf(item.id, side)}
                    isDisabled={isReadOnly}
                    mirrored={false}
                    onAnswer={(answer) => onAnswer(item, side, answer)}
                  />
                )}
              </span>
            ))}
          </Answers>
        </Fact>
      ))}
    </List>
  )
}

const UNITS = [
  { id: 'h', ms: 3_600_000, precision: 'hour' },
  { id: 'days', ms: 86_400_000, precision: 'day' },
  { id: 'weeks', ms: 604_800_000, precision: 'week' },
  { id: 'months', ms: 2_629_800_000, precision: 'month' },
] as const

/** "3 days ago": stored as the start of that span with how exactly it is known. */
function SinceWhen({
  label,
  entry,
  startedAt,
  isDisabled,
  onSet,
}: {
  readonly label: string
  readonly entry: Entry | undefined
  readonly startedAt: string
  readonly isDisabled: boolean
  readonly onSet: (answer: Answer) => void
}) {
  const known = entry?.state === 'examined' && typeof entry.value === 'string' ? spoken(entry, startedAt) : undefined
  const [amount, setAmount] = useState(known?.amount ?? '')
  const set = (text: string, unit: (typeof UNITS)[number]): void => {
    const n = Number(text.replace(',', '.'))
    if (text.trim() === '' || !(n >= 0) || n > 1200) return
    onSet({ value: new Date(Date.parse(startedAt) - n * unit.ms).toISOString(), qualifiers: { precision: n === 0 ? 'hour' : unit.precision } })
  }
  return (
    <Since>
      <Short
        $mono
        inputMode="decimal"
        aria-label={`${label}, how long ago`}
        value={amount}
        disabled={isDisabled}
        onChange={(event) => setAmount(event.target.value)}
      />
      <ToggleButtonGroup
        aria-label={`${label}, unit`}
        selectionMode="single"
        isDisabled={isDisabled}
        selectedKeys={known ? [known.unit] : []}
        onSelectionChange={(keys) => [...keys].forEach((key) => set(amount, UNITS.find((unit) => unit.id === key) ?? UNITS[1]))}
      >
        {UNITS.map((unit) => (
          <Toggle key={unit.id} id={unit.id}>
            {unit.id}
          </Toggle>
        ))}
      </ToggleButtonGroup>
      <Soft>ago</Soft>
    </Since>
  )
}

function spoken(entry: Entry, startedAt: string): { readonly amount: string; readonly unit: string } {
  const unit = UNITS.find((one) => one.precision === entry.qualifiers?.precision) ?? UNITS[1]
  const amount = (Date.parse(startedAt) - Date.parse(String(entry.value))) / unit.ms
  return { amount: String(Math.round(amount * 10) / 10), unit: unit.id }
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
`
const Box = styled(Card)`
  padding: 4px 14px 10px;
`
const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  padding: 6px 0;
`
const List = styled.ul`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 24px;
`
const Fact = styled.li`
  display: grid;
  align-content: space-between;
  gap: 3px;
  padding: 6px 0;
  line-height: 1.25;
  border-top: 1px solid ${({ theme }) => theme.rule};
  scroll-margin: 90px;
`
const Answers = styled.div`
  display: grid;
  gap: 4px;
`
const Since = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  > div {
    display: flex;
    gap: 4px;
  }
`
const Short = styled(Input)`
  width: 56px;
  min-height: 32px;
`
const More = styled(AriaButton)`
  border: none;
  background: none;
  padding: 4px 0;
  text-decoration: underline;
  cursor: pointer;
  color: ${({ theme }) => theme.ink};
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
`
