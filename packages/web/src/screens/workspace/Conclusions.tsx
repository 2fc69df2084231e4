import { itemsById, shortLabel, type Conclusion, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import { LinkButton } from '../../parts/controls'

interface Props {
  readonly pack: RegionPack
  readonly conclusions: readonly Conclusion[]
  readonly onGo: (item: string) => void
}

/** What the findings mean together, and what else would explain them: each with the row that separates the two best. */
export function Conclusions({ pack, conclusions, onGo }: Props) {
  const label = (id: string): string => shortLabel(itemsById(pack).get(id)?.label ?? id)
  return conclusions.map(({ id, says, side, rivals }) => (
    <Meaning key={`${id} ${side}`}>
      <strong>
        {says}
        {side === 'none' ? '' : `, ${side}`}
      </strong>
      {rivals.length > 0 && <span>Differential:</span>}
      {rivals.map(({ is, by, shows }) => (
        <LinkButton key={is} aria-label={`${is}: to ${label(by)}`} onPress={() => onGo(by)}>
          {is} ({label(by)}: {shows})
        </LinkButton>
      ))}
    </Meaning>
  ))
}

const Meaning = styled.p`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  padding: 4px 10px;
  border-radius: 6px;
  background: ${({ theme }) => theme.wash};
  font-size: 13px;
  button {
    font-size: 12px;
  }
`
