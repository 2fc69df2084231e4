import type { Item } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { FindingDraft } from '../../record/useRecord'
import { Button, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'

/** What is about to be said of a card: which facts as absent, under which heading, and which stay open. */
export interface Denial {
  readonly title: string
  readonly groups: readonly { readonly name: string; readonly items: readonly Item[] }[]
  /** Facts that are asked by themselves, or have to be told. */
  readonly alone: readonly Item[]
  readonly drafts: readonly FindingDraft[]
}

/** Shows the facts one by one that are about to be recorded as asked and absent: whoever confirms has read what is said in the patient's name. */
export function DenyDialogue({
  denial,
  onClose,
  onDeny,
}: {
  readonly denial: Denial | undefined
  readonly onClose: () => void
  readonly onDeny: (drafts: readonly FindingDraft[]) => void
}) {
  const count = denial?.groups.reduce((sum, group) => sum + group.items.length, 0) ?? 0
  return (
    <Dialogue title={`${denial?.title ?? ''}: asked, and absent or usual?`} isOpen={denial !== undefined} onClose={onClose}>
      {denial?.groups.map((group) => (
        <section key={group.name}>
          <b>{group.name}</b>
          <Names>
            {group.items.map((item) => (
              <li key={item.id}>{item.label}</li>
            ))}
          </Names>
        </section>
      ))}
      {denial && denial.alone.length > 0 && <Soft>Stays open, asked one by one: {denial.alone.map((item) => item.label).join(', ')}.</Soft>}
      <Buttons>
        <Button
          $tone="copper"
          onPress={() => {
            onDeny(denial?.drafts ?? [])
            onClose()
          }}
        >
          All {count} were asked: record them so
        </Button>
        <Button onPress={onClose}>Not yet</Button>
      </Buttons>
    </Dialogue>
  )
}

const Names = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  li:not(:last-child)::after {
    content: ' ·';
    color: ${({ theme }) => theme.soft};
  }
`
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
