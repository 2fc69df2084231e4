import styled from 'styled-components'
import { Card } from '../../parts/controls'

/** One matter of the account. */
export const Box = styled(Card)`
  padding: 16px 20px;
  display: grid;
  gap: 10px;
  justify-items: start;
  h2 {
    font-size: 15px;
  }
  form {
    width: min(360px, 100%);
  }
`
