import styled from 'styled-components'

/** Rows under headings, a rule below each. */
export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    padding: 6px 14px;
    text-align: left;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
  th {
    padding-top: 10px;
    padding-bottom: 10px;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`

/** A choice of one of several words, as the browser draws it. */
export const Select = styled.select`
  min-height: 34px;
  padding: 0 8px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.sheet};
`
