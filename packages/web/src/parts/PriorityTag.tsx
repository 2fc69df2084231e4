import type { Tier } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from './controls'
import { PunchedStrip, rangeWords, tierName } from './PunchedStrip'

interface Ranged {
  readonly floor: Tier | null
  readonly ceiling: Tier | null
  readonly priority: Tier | null
}

/** The strip with its words, in lists: what is settled by its tier, what is not as "Not settled", what a clinician set besides. */
export function PriorityTag({ of: { floor, ceiling, priority } }: { readonly of: Ranged }) {
  // Not known is never shown as nothing: an empty place would look like nothing urgent.
  if (!floor || !ceiling) return <Soft>Priority not worked out yet: open it</Soft>
  const isSet = priority !== null && priority !== floor
  return (
    <Tag>
      <PunchedStrip floor={floor} ceiling={ceiling} />
      <Words>
        {rangeWords(floor, ceiling)}
        {isSet && <Soft as="div">set to {tierName(priority)}</Soft>}
      </Words>
    </Tag>
  )
}

const Tag = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  flex: none;
`
const Words = styled.div`
  width: 156px;
  @media (max-width: 600px) {
    width: auto;
  }
  line-height: 1.2;
`
