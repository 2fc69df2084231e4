import { itemsById, type Counterfactual, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { PunchedStrip, tierName } from '../../parts/PunchedStrip'

/** The smallest changes of findings that would move the priority, and where to. */
export function Changes({ pack, changes }: { readonly pack: RegionPack; readonly changes: readonly Counterfactual[] }) {
  if (changes.length === 0) return <Soft as="p">No set of up to three findings would change it.</Soft>
  return (
    <ul>
      {changes.map((one, at) => (
        <Line key={at}>
          <span>{changeWords(pack, one)}</span>
          <PunchedStrip floor={one.tier} ceiling={one.tier} />
          <Soft>{tierName(one.tier)}</Soft>
        </Line>
      ))}
    </ul>
  )
}

function changeWords(pack: RegionPack, one: Counterfactual): string {
  const items = itemsById(pack)
  const list = one.changes.map((change) => `${items.get(change.item)?.label ?? change.item}${change.side === 'none' ? '' : ` ${change.side}`}`).join(' and ')
  return one.direction === 'raise' ? `If abnormal: ${list} (${pack.flags.find((flag) => flag.id === one.flags[0])?.title ?? ''})` : `If normal: ${list}`
}

const Line = styled.li`
  display: grid;
  grid-template-columns: 1fr auto 52px;
  align-items: center;
  gap: 10px;
  padding: 8px 0;
  border-bottom: 1px dashed ${({ theme }) => theme.rule};
`
