import { itemsById, type Localisation, type NervePattern, type RegionPack } from '@kneecap-awl/core'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { SmallTitle, Soft } from './controls'

const VERDICT: Readonly<Record<Localisation['verdict'], string>> = {
  likely: 'likely',
  undecided: 'undecided',
  possible: 'possible, one sign only',
  none: 'no single root, plexus or nerve explains it',
  alike: 'the same on both sides: cord, cauda or nerves as a whole, not one root or nerve',
}

interface Props {
  readonly pack: RegionPack
  readonly levels: readonly Localisation[]
  readonly isCordFirst: boolean
  readonly patterns: readonly NervePattern[]
  readonly onGo?: (item: string) => void
}

/** Where the nerve is hurt, best explained: what fits, what does not, what should be lost and is not, and the item that separates the leaders. */
export function NerveLevel({ pack, levels, isCordFirst, patterns, onGo }: Props) {
  if (levels.length + patterns.length === 0) return null
  const names = (ids: readonly string[]): string => ids.map((id) => itemsById(pack).get(id)?.label ?? id).join('; ')
  return (
    <section aria-label="Nerve">
      <Title>Nerve, best explained by</Title>
      {isCordFirst && <Cord>A sign of the cord is there: the cord first, what follows is only the level.</Cord>}
      {patterns.map((pattern) => (
        <Level key={pattern.id}>
          <strong>As a whole: {pattern.name}</strong>
          <Soft>{pattern.meaning}</Soft>
        </Level>
      ))}
      {levels.map((one) => {
        const [best] = one.places
        const next = one.next
        return (
          <Level key={`${one.side} ${one.limb}`}>
            <strong>
              {one.side} {one.limb}:{' '}
              {one.places.length > 0
                ? one.places
                    .slice(0, 3)
                    .map((place) => place.name)
                    .join(' or ')
                : ''}
            </strong>
            <Soft>{VERDICT[one.verdict]}</Soft>
            {best && (
              <Soft>
                explains {best.explains.length} of {one.abnormal.length}
                {best.against.length > 0 && `; not ${names(best.against)}`}
                {best.spared.length > 0 && `; expected but normal: ${names(best.spared)}`}
              </Soft>
            )}
            {!best && one.verdict === 'none' && <Soft>{names(one.abnormal)}</Soft>}
            {next &&
              (onGo ? (
                <Next onPress={() => onGo(next.item)}>
                  Next: {names([next.item])} <Soft>{next.reading}</Soft>
                </Next>
              ) : (
                <Soft>
                  Next: {names([next.item])} ({next.reading})
                </Soft>
              ))}
          </Level>
        )
      })}
    </section>
  )
}

const Title = styled(SmallTitle)`
  margin: 14px 0 6px;
`
const Level = styled.div`
  display: grid;
  gap: 1px;
  margin-bottom: 8px;
  strong::first-letter {
    text-transform: uppercase;
  }
`
const Cord = styled.p`
  padding: 6px 10px;
  border-left: 4px solid ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.copperWash};
  margin-bottom: 6px;
`
const Next = styled(AriaButton)`
  text-align: left;
  display: grid;
  padding: 4px 0;
  border: none;
  background: none;
  color: ${({ theme }) => theme.ink};
  cursor: pointer;
  text-decoration: underline dashed;
  text-underline-offset: 3px;
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
`
