import { findingWords, itemsById, type RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import type { Refused } from '../../record/outbox'

interface Props {
  readonly pack: RegionPack
  readonly refused: readonly Refused[]
  readonly isOpen: boolean
  readonly onClose: () => void
  readonly onTryAgain: (ids: readonly string[]) => void
  readonly onSetAside: (ids: readonly string[]) => void
}

/** Findings that the server did not take, each with the reason: tried again, or set aside one by one. Nothing goes by itself. */
export function RefusedDialogue({ pack, refused, isOpen, onClose, onTryAgain, onSetAside }: Props) {
  return (
    <Dialogue title="Not taken by the server" isOpen={isOpen} onClose={onClose}>
      <Soft>They are kept on this device and are not part of the record. Record them again on the sheet if the reason says what is wrong.</Soft>
      {refused.length === 0 && <p>Nothing is left here.</p>}
      <List>
        {refused.map(({ entry, reason }) => (
          <li key={entry.id}>
            <span>
              <b>
                {itemsById(pack).get(entry.item)?.label ?? entry.item}
                {entry.side === 'none' ? '' : `, ${entry.side}`}
              </b>
              : {findingWords(pack, entry)} <Soft as="div">{reason}</Soft>
            </span>
            <Button onPress={() => onTryAgain([entry.id])}>Try again</Button>
            <Button onPress={() => onSetAside([entry.id])}>Set aside</Button>
          </li>
        ))}
      </List>
      <Button onPress={onClose}>Close</Button>
    </Dialogue>
  )
}

const List = styled.ul`
  display: grid;
  gap: 8px;
  li {
    display: grid;
    grid-template-columns: 1fr auto auto;
    align-items: center;
    gap: 8px;
  }
`
