import styled from 'styled-components'

/** The usual cautions. On every screen that advises. */
export function Cautions({ cautions, pack }: { readonly cautions: readonly string[]; readonly pack: string }) {
  return (
    <Small>
      {cautions.join(' ')} Content pack {pack}.
    </Small>
  )
}

const Small = styled.p`
  color: ${({ theme }) => theme.soft};
  font-size: 12px;
`
