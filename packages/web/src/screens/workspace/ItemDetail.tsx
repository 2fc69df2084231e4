import { errorSource, residualOf, type FindingEntry, type Item, type Judgement, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Card, LinkButton, SmallTitle, Soft } from '../../parts/controls'
import { PictureOf } from '../../plates/PictureOf'
import { HowDone } from './HowDone'
import type { Answer } from './ValueControl'

interface Props {
  readonly pack: RegionPack
  readonly item: Item
  readonly judged: Judgement
  readonly sides: readonly Side[]
  readonly isReadOnly: boolean
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
  readonly onAnswer: (item: Item, side: Side, answer: Answer) => void
  readonly onGo: (item: string) => void
}

/** The row in hand, opened: how it was taken, technique and other ways, what positive means, what a negative leaves open, the figures and their source. */
export function ItemDetail({ item, judged, sides, onGo, ...how }: Props) {
  const error = errorSource(item.kind)
  return (
    <Box aria-label={`About ${item.label}`}>
      <SmallTitle>
        {item.label}
        {item.structure ? `, ${item.structure}` : ''}
      </SmallTitle>
      <HowDone {...how} item={item} />
      <PictureOf pack={how.pack} item={item} sides={sides} entryOf={how.entryOf} />
      {item.technique.length > 0 && (
        <ol>
          {item.technique.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      )}
      {item.alternatives?.map((way) => (
        <p key={way.name}>
          Otherwise {way.name}, for {way.for}. {way.how}{' '}
          {way.item !== undefined && <LinkButton onPress={() => onGo(way.item ?? item.id)}>Record it there</LinkButton>}
        </p>
      ))}
      <p>{item.positive}</p>
      <Residuals {...{ item, judged, sides, onGo }} />
      {item.trap && <Trap>Trap: {item.trap}</Trap>}
      {error !== undefined && <Soft as="p">Measurement error of a difference or a change: {error}.</Soft>}
      {item.accuracy.map((figure) => (
        <Soft as="p" key={`${figure.finding} ${figure.source}`}>
          {figure.finding}:{' '}
          {figure.unverified
            ? 'figure not verified'
            : [
                figure.sens !== undefined && `sensitivity ${figure.sens}`,
                figure.spec !== undefined && `specificity ${figure.spec}`,
                figure.lrPositive !== undefined && `likelihood ratio ${figure.lrPositive}`,
              ]
                .filter(Boolean)
                .join(', ')}{' '}
          ({figure.source}, {figure.certainty}
          {figure.checked ? '' : ', not yet checked against the paper'})
        </Soft>
      ))}
    </Box>
  )
}

/** What a negative leaves open on the sides in question, and what would lower it. */
function Residuals({ item, judged, sides, onGo }: Pick<Props, 'item' | 'judged' | 'sides' | 'onGo'>) {
  const asked: readonly Side[] = item.sided ? sides : ['none']
  return asked.map((side) => {
    const residual = residualOf(item, judged, side)
    if (!residual) return null
    const { missed, figure, lowers } = residual
    return (
      <p key={side}>
        Negative{side === 'none' ? '' : `, ${side}`}: it misses {missed} of 100 who have it ({figure.finding}, {figure.source}).{' '}
        {lowers.length > 0 && 'What would lower that: '}
        {lowers.map((one) => (
          <LinkButton key={one.item} onPress={() => onGo(one.item)}>
            {one.label}
          </LinkButton>
        ))}
      </p>
    )
  })
}

const Box = styled(Card)`
  margin-top: 12px;
  padding: 10px 16px;
  display: grid;
  gap: 4px;
  ol {
    list-style: decimal;
    padding-left: 18px;
  }
`
const Trap = styled.p`
  color: ${({ theme }) => theme.soft};
`
