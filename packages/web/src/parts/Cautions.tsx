import { counted } from '@kneecap-awl/core'
import styled from 'styled-components'

/** The usual cautions, and that rules go by local choices. On every screen that advises. */
export function Cautions({ cautions, pack, local = 0 }: { readonly cautions: readonly string[]; readonly pack: string; readonly local?: number }) {
  return (
    <Small>
      {cautions.join(' ')} Content pack {pack}.
      {local > 0 && ` Judged by ${counted(local, 'local choice', 'local choices')}: see the library, where practice differs.`}
    </Small>
  )
}

const Small = styled.p`
  color: ${({ theme }) => theme.soft};
  font-size: 12px;
`
