import { memo, useState } from 'react'
import { normalByKey, sidesOf, type FindingEntry, type Item, type RegionPack, type Side } from '@kneecap-awl/core'
import { Button as AriaButton, Disclosure, DisclosurePanel } from 'react-aria-components'
import styled from 'styled-components'
import type { FindingDraft } from '../../record/useRecord'
import { Button, Card, SmallTitle, Soft } from '../../parts/controls'
import { SitePlates } from '../../plates/SitePlates'
import { DenyDialogue, type Denial } from './DenyDialogue'
import { Facts } from './Facts'
import { kept, type Answer } from './ValueControl'

interface Props {
  readonly pack: RegionPack
  readonly items: readonly Item[]
  readonly because: ReadonlyMap<string, string>
  readonly sides: readonly Side[]
  readonly startedAt: string
  readonly isReadOnly: boolean
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly isAnswered: (item: Item) => boolean
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
  readonly onRecord: (drafts: readonly FindingDraft[]) => void
}

/**
 * The story on one card: tap what is true, then say that the rest was asked. What changes the urgency is asked one by one, on the patient card
 * as in the story; the rest is denied only after it was shown what is about to be said.
 */
export const StoryCard = memo(function StoryCard(props: Props) {
  const { pack, items, isAnswered, onRecord, sides, isReadOnly } = props
  const [isOpen, setOpen] = useState(false)
  const [denial, setDenial] = useState<Denial>()
  const card = pack.items.filter((item) => item.stage === 'patient' && item.derive === undefined)
  const alone = card.filter((item) => item.askedAlone)
  const others = card.filter((item) => !item.askedAlone)
  const core = items.filter((item) => item.depth === 'core')
  const prompted = items.filter((item) => item.depth !== 'core')
  /** Each fact that can be absent, as absent. What must be told (a place, a time) or asked by itself is never filled in. */
  const absent = (item: Item): FindingDraft[] => {
    const normal = normalByKey(item)
    if (!normal || item.mustBeTold || item.askedAlone || isAnswered(item)) return []
    return sidesOf(item, sides).map((side) => ({ item: item.id, side, state: 'examined' as const, ...normal }))
  }
  const denialOf = (title: string, groups: readonly (readonly [string, readonly Item[]])[]): Denial => ({
    title,
    groups: groups.map(([name, of]) => ({ name, items: of.filter((item) => absent(item).length > 0) })).filter((group) => group.items.length > 0),
    alone: groups.flatMap(([, of]) => of).filter((item) => !isAnswered(item) && absent(item).length === 0),
    drafts: groups.flatMap(([, of]) => of.flatMap(absent)),
  })
  const rest = (words: string, denied: Denial) => (
    <Button
      isDisabled={isReadOnly || denied.drafts.length === 0}
      onPress={() => {
        setDenial(denied)
      }}
    >
      {words}
    </Button>
  )
  return (
    <Grid>
      <Box>
        <Disclosure isExpanded={isOpen} onExpandedChange={setOpen}>
          <Head>
            <SmallTitle>Patient card</SmallTitle>
            <Unknown>{unknownWords(card.filter((item) => !isAnswered(item)))}</Unknown>
            <More slot="trigger">{isOpen ? 'Close the rest of the card' : 'Open the rest of the card'}</More>
          </Head>
          <Facts {...props} items={alone} />
          <DisclosurePanel>
            {groupsOf(others).map(([name, of]) => (
              <section key={name} aria-label={name}>
                <Group>{name}</Group>
                <Facts {...props} items={of} />
              </section>
            ))}
            <Foot>{rest('All of these asked: none of the rest', denialOf('Patient card', groupsOf(others)))}</Foot>
          </DisclosurePanel>
        </Disclosure>
      </Box>
      <Box>
        <Head>
          <SmallTitle>This episode</SmallTitle>
          <Unknown>{unknownWords(core.filter((item) => !isAnswered(item)))}</Unknown>
          {rest('Asked, none of the rest', denialOf('This episode', [['This episode', core]]))}
        </Head>
        <Facts {...props} items={core} />
        <SitePlates
          {...{ pack, items, sides, isReadOnly }}
          wordsOf={(item, side) => wordsOf(props.entryOf(item.id, side))}
          onWords={(item, side, value) =>
            value.length === 0
              ? onRecord([{ item: item.id, side, state: 'not-examined' }])
              : props.onAnswer(item, side, kept({ item, entry: props.entryOf(item.id, side) }, { value }))
          }
        />
        {prompted.length > 0 && (
          <>
            <Head>
              <SmallTitle>Asked because of what is known</SmallTitle>
              <Unknown />
              {rest('Asked, none of these', denialOf('Asked because of what is known', [['Asked because of what is known', prompted]]))}
            </Head>
            <Facts {...props} items={prompted} />
          </>
        )}
      </Box>
      <DenyDialogue denial={denial} onClose={() => setDenial(undefined)} onDeny={onRecord} />
    </Grid>
  )
})

const wordsOf = (entry: FindingEntry | undefined): readonly string[] =>
  entry?.state === 'examined' && Array.isArray(entry.value) ? (entry.value as readonly string[]) : []

/** The facts of the card under their headings, in the order in which the headings first come. */
function groupsOf(items: readonly Item[]): readonly (readonly [string, readonly Item[]])[] {
  const groups = new Map<string, Item[]>()
  for (const item of items) groups.set(item.group ?? 'Other', [...(groups.get(item.group ?? 'Other') ?? []), item])
  return [...groups]
}

const NAMED = 3
function unknownWords(open: readonly Item[]): string {
  if (open.length === 0) return 'everything was asked'
  const named = open.slice(0, NAMED).map((item) => item.label.toLowerCase())
  return `not asked yet: ${named.join(', ')}${open.length > NAMED ? ` and ${open.length - NAMED} more` : ''}`
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
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 6px 0;
`
const Unknown = styled(Soft)`
  flex: 1;
  min-width: 120px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`
const Group = styled.h3`
  margin: 10px 0 2px;
  font-size: 12px;
  font-weight: 650;
  color: ${({ theme }) => theme.soft};
`
const Foot = styled.div`
  display: flex;
  justify-content: flex-end;
  padding: 8px 0 4px;
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
