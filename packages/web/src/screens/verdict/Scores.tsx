import { spanWords, type ScoreReading } from '@kneecap-awl/core'
import { Link } from 'react-router'
import styled from 'styled-components'
import { SectionTitle, Soft } from '../../parts/controls'

/** Scores that something speaks for: a range while parts are missing, what the number means, and the way to its parts. */
export function Scores({ scores }: { readonly scores: readonly ScoreReading[] }) {
  if (scores.length === 0) return null
  return (
    <>
      <SectionTitle>Scores and counts</SectionTitle>
      <Table>
        <tbody>
          {scores.map((one) => (
            <tr key={`${one.id} ${one.side}`}>
              <Number>{spanWords(one)}</Number>
              <td>
                <Link to={`/library?open=score:${one.id}`}>{one.label}</Link>
                {one.side === 'none' ? '' : `, ${one.side}`} {one.low !== one.high && <Soft>parts are missing</Soft>}
                <Soft as="p">{[one.note, one.source].filter(Boolean).join(' ')}</Soft>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  )
}

const Table = styled.table`
  border-collapse: collapse;
  td {
    padding: 4px 0;
    vertical-align: top;
  }
`
const Number = styled.td`
  min-width: 64px;
  padding-right: 14px;
  font-variant-numeric: tabular-nums;
  font-weight: 600;
`
