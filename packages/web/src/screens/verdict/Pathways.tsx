import type { PathwayStep } from '@kneecap-awl/core'
import styled from 'styled-components'
import { SectionTitle, Soft } from '../../parts/controls'
import { dayAndTime } from '../../parts/times'

/** What each suspicion calls for: the first picture, the next when that is normal, when to look again, and the clock that runs. */
export function Pathways({ ways }: { readonly ways: readonly PathwayStep[] }) {
  if (ways.length === 0) return null
  return (
    <>
      <SectionTitle>Imaging and review</SectionTitle>
      <List>
        {ways.map((way) => (
          <div key={way.id}>
            <dt>{way.title}</dt>
            <dd>
              {way.pregnant ?? way.first} {way.then && <Soft>If normal and still suspected: {way.then}</Soft>}
              {way.review && <Soft as="p">Review: {way.review}</Soft>}
              {way.clock && (
                <Clock>
                  {way.clock.title}: {way.clock.until ? `until ${dayAndTime(way.clock.until)}` : 'onset not recorded'}
                </Clock>
              )}
            </dd>
          </div>
        ))}
      </List>
    </>
  )
}

const List = styled.dl`
  display: grid;
  gap: 6px;
  > div {
    display: grid;
    grid-template-columns: 200px 1fr;
    gap: 14px;
  }
  dt {
    font-weight: 600;
  }
  dd {
    margin: 0;
  }
`
const Clock = styled.p`
  font-variant-numeric: tabular-nums;
  font-weight: 600;
`
