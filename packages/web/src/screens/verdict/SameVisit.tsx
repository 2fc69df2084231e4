import { Link } from 'react-router'
import { complaintWords, tierRank, type Tier } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { ExaminationSummary } from '../../api/queries'
import { Soft } from '../../parts/controls'
import { PunchedStrip, rangeWords, tierName } from '../../parts/PunchedStrip'

/** The other joints of the visit: the most urgent one decides for the patient, and is said first. */
export function SameVisit({ floor, others }: { readonly floor: Tier; readonly others: readonly ExaminationSummary[] }) {
  const worse = others.filter((one) => one.priority !== null && tierRank(one.priority) < tierRank(floor))
  return (
    <>
      {worse.map((one) => (
        <p key={one.id} role="status">
          <b>
            More urgent than this: {complaintWords(one)}, {one.priority && tierName(one.priority)}.
          </b>{' '}
          The patient goes by the most urgent.
        </p>
      ))}
      <ul>
        {others.map((one) => (
          <Line key={one.id}>
            <Link to={`/examinations/${one.id}/verdict`}>{complaintWords(one)}</Link>
            {one.floor && one.ceiling && <PunchedStrip floor={one.floor} ceiling={one.ceiling} />}
            <Soft>
              {one.floor && one.ceiling && rangeWords(one.floor, one.ceiling)}
              {one.priority && one.priority !== one.floor ? `, set to ${tierName(one.priority)}` : ''}, {one.verdictKind ?? 'draft'}
            </Soft>
          </Line>
        ))}
      </ul>
    </>
  )
}

const Line = styled.li`
  display: flex;
  align-items: center;
  gap: 10px;
  list-style: none;
`
