import { sidesOf, type Entry, type Item, type Pack, type Side } from '@kneecap-awl/core'
import { Button as AriaButton, Disclosure, DisclosurePanel } from 'react-aria-components'
import styled from 'styled-components'
import type { Draft } from '../../record/useRecord'
import { Button, Card, SmallTitle, Soft } from '../../parts/controls'
import { SinceWhen } from './SinceWhen'
import { ValueControl, type Answer } from './ValueControl'
import { Segments } from './WordChoice'

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

/** The story on one card: tap what is true, then say that the rest was asked. The patient card stands above it, confirmed once. */
export function StoryCard(props: Props) {
  const { pack, items, isAnswered, onRecord, sides, isReadOnly } = props
  const card = pack.items.filter((item) => item.stage === 'patient')
  const core = items.filter((item) => item.depth === 'core')
  const prompted = items.filter((item) => item.depth !== 'core')
  /** Each fact that can be absent, as absent. What must be told (a place, a time) is never filled in. */
  const absent = (of: readonly Item[]): Draft[] =>
    of
      .filter((item) => !isAnswered(item) && item.normal && !item.mustBeTold)
      .flatMap((item) => sidesOf(item, sides).map((side) => ({ item: item.id, side, state: 'examined' as const, ...item.normal })))
  const rest = (words: string, of: readonly Item[]) => (
    <Button isDisabled={isReadOnly || absent(of).length === 0} onPress={() => onRecord(absent(of))}>
      {words}
    </Button>
  )
  return (
    <Grid>
      <Box>
        <Disclosure>
          <Head>
            <SmallTitle>Patient card</SmallTitle>
            <Unknown>{unknownWords(card.filter((item) => !isAnswered(item)))}</Unknown>
            <More slot="trigger">Open the card</More>
            {rest('Confirm: the rest none', card)}
          </Head>
          <DisclosurePanel>
            <Facts {...props} items={card} />
          </DisclosurePanel>
        </Disclosure>
      </Box>
      <Box>
        <Head>
          <SmallTitle>This episode</SmallTitle>
          <Unknown>{unknownWords(core.filter((item) => !isAnswered(item)))}</Unknown>
          {rest('Asked, none of the rest', core)}
        </Head>
        <Facts {...props} items={core} />
        {prompted.length > 0 && (
          <>
            <Head>
              <SmallTitle>Asked because of what is known</SmallTitle>
              <Unknown />
              {rest('Asked, none of these', prompted)}
            </Head>
            <Facts {...props} items={prompted} />
          </>
        )}
      </Box>
    </Grid>
  )
}

const NAMED = 3
function unknownWords(open: readonly Item[]): string {
  if (open.length === 0) return 'everything is known'
  const named = open.slice(0, NAMED).map((item) => item.label.toLowerCase())
  return `not known yet: ${named.join(', ')}${open.length > NAMED ? ` and ${open.length - NAMED} more` : ''}`
}

function Facts({ items, because, ...props }: Props) {
  return (
    <List>
      {items.map((item) => (
        <Fact key={item.id} id={`row-${item.id}`}>
          <span>{item.label}</span>
          <Answers>
            {sidesOf(item, props.sides).map((side) => (
              <span key={side}>
                {item.sided && props.sides.length > 1 && <Soft>{side === 'right' ? 'R ' : 'L '}</Soft>}
                <FactControl {...props} item={item} side={side} />
              </span>
            ))}
          </Answers>
          {(because.get(item.id) ?? item.hint) && (
            <Hint title={item.hint}>{because.has(item.id) ? `asked because: ${because.get(item.id) ?? ''}` : item.hint}</Hint>
          )}
        </Fact>
      ))}
    </List>
  )
}

function FactControl({
  pack,
  item,
  side,
  startedAt,
  isReadOnly,
  entryOf,
  onAnswer,
}: Omit<Props, 'items' | 'because'> & { readonly item: Item; readonly side: Side }) {
  const entry = entryOf(item.id, side)
  const set = (answer: Answer): void => onAnswer(item, side, answer)
  const extras = Object.values(item.qualifiers).some((qualifier) => qualifier.inRow)
  if (item.kind === 'moment')
    return <SinceWhen key={String(entry?.value)} label={item.label} usual={item.unit} entry={entry} startedAt={startedAt} isDisabled={isReadOnly} onSet={set} />
  if (item.kind !== 'sign' || extras)
    return <ValueControl pack={pack} item={item} side={side} entry={entry} isDisabled={isReadOnly} mirrored={false} onAnswer={set} />
  const told = entry?.value === undefined ? undefined : entry.value === 'present' ? 'yes' : 'no'
  return (
    <Segments
      label={item.label}
      options={['no', 'yes']}
      calm={['no']}
      value={told}
      isDisabled={isReadOnly}
      mirrored={false}
      onPick={(word) => set({ value: word === 'yes' ? 'present' : 'absent' })}
    />
  )
}

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
`
const Box = styled(Card)`
  padding: 2px 14px 8px;
`
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 0;
`
const Unknown = styled(Soft)`
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`
const List = styled.ul`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 24px;
`
const Fact = styled.li`
  display: grid;
  grid-template-columns: minmax(104px, 1fr) minmax(0, max-content);
  align-items: center;
  align-content: center;
  gap: 1px 8px;
  min-height: 44px;
  padding: 3px 0;
  line-height: 1.2;
  border-top: 1px solid ${({ theme }) => theme.rule};
  scroll-margin: 90px;
`
const Answers = styled.div`
  display: grid;
  justify-items: end;
  gap: 4px;
`
const Hint = styled(Soft)`
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
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
