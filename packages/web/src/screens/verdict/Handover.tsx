import type { DoFirst } from '@kneecap-awl/core'
import styled from 'styled-components'
import { ActionLine } from '../../parts/ActionLine'
import { Card } from '../../parts/controls'

/** For Now and Today: what to do first and what is written down on the way, on screen and on paper. */
export function Handover({ calls, actions, avoid }: DoFirst) {
  return (
    <Sheet>
      <p>
        <strong>Call:</strong> {calls.join(', ')}
      </p>
      <ol>
        {actions.map((action) => (
          <li key={action.id}>
            <ActionLine {...action} />
            <Blanks>
              {action.print.map((field) => (
                <span key={field}>{field}:</span>
              ))}
            </Blanks>
          </li>
        ))}
      </ol>
      {avoid.length > 0 && (
        <p>
          <strong>Avoid:</strong> {avoid.join('; ')}.
        </p>
      )}
    </Sheet>
  )
}

const Sheet = styled(Card)`
  display: grid;
  gap: 8px;
  padding: 10px 14px;
  ol {
    display: grid;
    gap: 6px;
    padding-left: 18px;
    list-style: decimal;
  }
`
/** Lines to fill in by hand stand on paper only. */
const Blanks = styled.div`
  display: none;
  @media print {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    span {
      min-width: 45%;
      border-bottom: 1px solid;
    }
  }
`
