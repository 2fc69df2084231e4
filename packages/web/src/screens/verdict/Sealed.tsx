import { itemsById, subjectOf, type RegionPack } from '@kneecap-awl/core'
import type { AlteredRow } from '@kneecap-awl/contract'
import styled from 'styled-components'
import type { ExaminationDetail } from '../../api/queries'
import { Soft } from '../../parts/controls'

interface Props {
  readonly verdict: NonNullable<ExaminationDetail['verdict']>
  readonly entries: ExaminationDetail['entries']
  readonly pack: RegionPack
}

/** Whether what stands is what was signed: told beneath the letter, and printed with it. */
export function Sealed({ verdict: { recordHash, seal, altered }, entries, pack }: Props) {
  if (seal !== 'altered')
    return (
      <Soft as="p">
        {seal === 'whole' ? 'Record sealed, and is what was signed' : 'Record signed before there were seals'}: {recordHash.slice(0, 16)}…
      </Soft>
    )
  return (
    <Altered role="alert">
      <p>This record is not what was signed: it was altered in the database. Do not rely on it; tell the administrator.</p>
      <ul>
        {altered.map((row) => (
          <li key={`${row.what} ${row.id}`}>{rowWords(row, entries, pack)}</li>
        ))}
      </ul>
    </Altered>
  )
}

const HOW: Readonly<Record<AlteredRow['how'], string>> = { altered: 'altered', missing: 'taken out', added: 'put in' }

/** Which row, by the name of what it records. */
function rowWords({ what, how, id }: AlteredRow, entries: Props['entries'], pack: RegionPack): string {
  if (what === 'verdict') return `The verdict: ${HOW[how]}`
  if (what === 'examination') return `Patient, side, setting, time or signature: ${HOW[how]}`
  const entry = entries.find((one) => one.id === id)
  if (!entry) return `An entry: ${HOW[how]}`
  const { about, side } = subjectOf(entry)
  return `${itemsById(pack).get(about)?.label ?? about}${side === 'none' ? '' : `, ${side}`}: ${HOW[how]}`
}

const Altered = styled.div`
  margin-bottom: 12px;
  padding: 8px 12px;
  border-left: 4px solid ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.copperWash};
  font-weight: 650;
`
