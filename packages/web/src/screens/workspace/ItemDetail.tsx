import { errorSource, type Item } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Card, SmallTitle, Soft } from '../../parts/controls'

/** The row in hand, opened: technique, what positive means, the trap, the figures and where they come from. */
export function ItemDetail({ item }: { readonly item: Item }) {
  const error = errorSource(item.kind)
  return (
    <Box aria-label={`About ${item.label}`}>
      <SmallTitle>
        {item.label}
        {item.structure ? `, ${item.structure}` : ''}
      </SmallTitle>
      {item.technique.length > 0 && (
        <ol>
          {item.technique.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      )}
      <p>{item.positive}</p>
      {item.trap && <Trap>Trap: {item.trap}</Trap>}
      {error !== undefined && <Soft as="p">Measurement error of a difference or a change: {error}.</Soft>}
      {item.accuracy.map((figure) => (
        <Soft as="p" key={`${figure.finding} ${figure.source}`}>
          {figure.finding}:{' '}
          {figure.unverified
            ? 'figure not verified'
            : [
                figure.sens !== undefined && `sensitivity ${figure.sens}`,
                figure.spec !== undefined && `specificity ${figure.spec}`,
                figure.lrPositive !== undefined && `likelihood ratio ${figure.lrPositive}`,
              ]
                .filter(Boolean)
                .join(', ')}{' '}
          ({figure.source}, {figure.certainty}
          {figure.checked ? '' : ', not yet checked against the paper'})
        </Soft>
      ))}
    </Box>
  )
}

const Box = styled(Card)`
  margin-top: 12px;
  padding: 10px 16px;
  display: grid;
  gap: 4px;
  ol {
    list-style: decimal;
    padding-left: 18px;
  }
`
const Trap = styled.p`
  color: ${({ theme }) => theme.soft};
`
