import { findingWords, isFinding, itemsById, subjectOf, type RegionPack } from '@kneecap-awl/core'
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
  /** Goes to the row of the finding, to record it rightly. */
  readonly onCorrect: (item: string) => void
}

/** Findings that the server did not take, each with the reason: tried again, or set aside one by one. Nothing goes by itself. */
export function RefusedDialogue({ pack, refused, isOpen, onClose, onTryAgain, onSetAside, onCorrect }: Props) {
  return (
    <Dialogue title="Not taken by the server" isOpen={isOpen} onClose={onClose}>
      <Soft>
        They are kept on this device and are not part of the record. Correct leads to the row on the sheet; set the old finding aside once the right one is
        recorded.
      </Soft>
      {refused.length === 0 && <p>Nothing is left here.</p>}
      <List>
        {refused.map(({ entry, reason }) => {
          const { about, side } = subjectOf(entry)
          return (
            <li key={entry.id}>
              <span>
                <b>
                  {itemsById(pack).get(about)?.label ?? about}
                  {side === 'none' ? '' : `, ${side}`}
                </b>
                : {isFinding(entry) ? findingWords(pack, entry) : entry.state} <Soft as="div">{reason}</Soft>
              </span>
              {itemsById(pack).has(about) && <Button onPress={() => onCorrect(about)}>Correct</Button>}
              <Button onPress={() => onTryAgain([entry.id])}>Try again</Button>
              <Button onPress={() => onSetAside([entry.id])}>Set aside</Button>
            </li>
          )
        })}
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
    grid-template-columns: 1fr auto auto auto;
    align-items: center;
    gap: 8px;
  }
`
