import { X } from 'lucide-react'
import styled from 'styled-components'
import { Button, LinkButton } from '../../parts/controls'
import type { Left } from './restOfStop'

/** What a key has just done, and what it left. */
export interface Said {
  readonly text: string
  readonly left: readonly Left[]
}

/** Lies over the foot of the sheet, so that no row moves when it comes or goes. */
export function Notice({ said, onGo, onClose }: { readonly said: Said | undefined; readonly onGo: (item: string) => void; readonly onClose: () => void }) {
  const reasons = [...new Set(said?.left.map(({ why }) => why))]
  return (
    <Place role="status" aria-label="What was done">
      {said && (
        <Box>
          <div>
            <p>{said.text}</p>
            {reasons.map((why) => (
              <p key={why}>
                <b>Left, {why}:</b>{' '}
                {said.left
                  .filter((one) => one.why === why)
                  .map(({ item }) => (
                    <LinkButton key={item.id} onPress={() => onGo(item.id)}>
                      {item.label}
                    </LinkButton>
                  ))}
              </p>
            ))}
          </div>
          <Button $tone="quiet" aria-label="Close what was done" onPress={onClose}>
            <X size={14} aria-hidden />
          </Button>
        </Box>
      )}
    </Place>
  )
}

const Place = styled.div`
  position: sticky;
  bottom: -16px;
  z-index: 2;
  height: 0;
  margin-top: auto;
`
const Box = styled.div`
  position: absolute;
  bottom: 8px;
  left: 0;
  right: 0;
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 8px;
  max-height: 40vh;
  overflow: auto;
  padding: 8px 12px;
  background: ${({ theme }) => theme.sheet};
  border: 1px solid ${({ theme }) => theme.copper};
  border-radius: 8px;
  box-shadow: 0 4px 18px rgb(0 0 0 / 18%);
  p button {
    margin-right: 6px;
  }
`
