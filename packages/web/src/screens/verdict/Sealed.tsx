import styled from 'styled-components'
import type { ExaminationDetail } from '../../api/queries'
import { Soft } from '../../parts/controls'

/** Whether what stands is what was signed: told beneath the letter, and printed with it. */
export function Sealed({ recordHash, seal }: NonNullable<ExaminationDetail['verdict']>) {
  if (seal === 'altered')
    return <Altered role="alert">This record is not what was signed: it was altered in the database. Do not rely on it; tell the administrator.</Altered>
  return (
    <Soft as="p">
      {seal === 'whole' ? 'Record sealed, and is what was signed' : 'Record signed before there were seals'}: {recordHash.slice(0, 16)}…
    </Soft>
  )
}

const Altered = styled.p`
  padding: 8px 12px;
  border-left: 4px solid ${({ theme }) => theme.copper};
  background: ${({ theme }) => theme.copperWash};
  font-weight: 650;
`
