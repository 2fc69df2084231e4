import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { isReason, REASONS, sidesOf, type Item, type RegionPack, type Side, type StandingHold } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Button, Input, Soft, Toggle, ToggleRow } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import type { FindingDraft } from '../../record/useRecord'

/** Why an item could not be done, or why its result does not count. It stays unknown, and the note says so. */
export function CouldNotDialogue({
  item,
  sides,
  onClose,
  onRecord,
}: {
  readonly item: Item | undefined
  readonly sides: readonly Side[]
  readonly onClose: () => void
  readonly onRecord: (drafts: readonly FindingDraft[]) => void
}) {
  const [side, setSide] = useState<string>(sides.length === 1 ? (sides[0] ?? 'right') : 'both')
  const give = (state: 'could-not' | 'not-valid', reason: string): void => {
    if (!item) return
    onRecord(sidesOf(item, side === 'both' ? undefined : [side as Side]).map((one) => ({ item: item.id, side: one, state, reason })))
    onClose()
  }
  return (
    <Dialogue title={item ? `${item.label} could not be done` : ''} isOpen={item !== undefined} onClose={onClose}>
      {item?.sided && (
        <ToggleRow
          aria-label="Side"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[side]}
          onSelectionChange={(keys) => setSide(String([...keys][0] ?? 'both'))}
        >
          <Toggle id="right">right</Toggle>
          <Toggle id="left">left</Toggle>
          <Toggle id="both">both</Toggle>
        </ToggleRow>
      )}
      <Soft>It counts as not known, never as normal. For pain, guarding or safety it also asks for what could settle it.</Soft>
      <Buttons>
        {REASONS.map((reason) => (
          <Button key={reason} onPress={() => give('could-not', reason)}>
            {reason}
          </Button>
        ))}
        {item?.lost.map((way) => (
          <Button key={way} onPress={() => give('not-valid', way)}>
            not valid: {way}
          </Button>
        ))}
        <Button onPress={() => give('not-valid', 'technique lost')}>done, but technique was lost: not valid</Button>
      </Buttons>
    </Dialogue>
  )
}

/** Going on against a hold is possible, deliberate and written down for ever. */
export function LiftDialogue({
  about,
  onClose,
  onLift,
}: {
  readonly about: { readonly item: Item; readonly hold: StandingHold } | undefined
  readonly onClose: () => void
  /** @param isForAll whether all that the hold stops is released, or this test alone */
  readonly onLift: (reason: string, isForAll: boolean) => void
}) {
  const [reason, setReason] = useState('')
  return (
    <Dialogue title={about ? `${about.item.label} is on hold: ${about.hold.title.toLowerCase()}` : ''} isOpen={about !== undefined} onClose={onClose}>
      <p>{about?.hold.reason}</p>
      <Soft>Still allowed: {about?.hold.allowed}.</Soft>
      {about && about.hold.awaits.length > 0 && (
        <p>It stands because this is not known: {about.hold.awaits.map(({ label }) => label.toLowerCase()).join(', ')}.</p>
      )}
      <TextField value={reason} onChange={setReason}>
        <Label>Your reason for going on</Label>
        <Input />
      </TextField>
      <Buttons>
        <Button $tone="copper" isDisabled={!isReason(reason)} onPress={() => onLift(reason.trim(), true)}>
          Release it for all {about?.hold.stops.length} tests
        </Button>
        <Button isDisabled={!isReason(reason)} onPress={() => onLift(reason.trim(), false)}>
          Only for this test
        </Button>
        <Button onPress={onClose}>Leave it on hold</Button>
      </Buttons>
    </Dialogue>
  )
}

const KEYS = [
  ['.', 'the row in hand, else the first that is open: examined and normal, both sides; what needs a reading says so'],
  ['>', 'the rest of this stop as normal, never what could exclude a flag of Now or Today; says what it left'],
  ['0 to 5', 'grade, or the nth choice, on the symptomatic side or the side picked'],
  ['r, l, b', 'pick the right, the left, both sides'],
  ['x', 'could not be done, or not valid'],
  ['↑ ↓', 'row before, row after'],
  ['n, p', 'next stop, stop before'],
  ['u', 'take back what was recorded last, one press after another'],
  ['/', 'find a test or item'],
  ['v', 'verdict sheet'],
  ['?', 'these keys'],
] as const

export function KeysDialogue({ isOpen, onClose }: { readonly isOpen: boolean; readonly onClose: () => void }) {
  return (
    <Dialogue title="Keys" isOpen={isOpen} onClose={onClose}>
      <Soft>Each is the sign that the key types, wherever your keyboard has it. A key that is held down records once.</Soft>
      <List>
        {KEYS.map(([key, what]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </List>
      <Button onPress={onClose}>Close</Button>
    </Dialogue>
  )
}

/** What ends a test, or the routine examination, whatever the route says. */
export function StopRulesDialogue({ pack, isOpen, onClose }: { readonly pack: RegionPack; readonly isOpen: boolean; readonly onClose: () => void }) {
  return (
    <Dialogue title="When to stop" isOpen={isOpen} onClose={onClose}>
      <Rules>
        {pack.stopRules.map((rule) => (
          <div key={rule.when}>
            <dt>{rule.when}</dt>
            <dd>{rule.then}</dd>
          </div>
        ))}
      </Rules>
      <Button onPress={onClose}>Close</Button>
    </Dialogue>
  )
}

const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
const Rules = styled.dl`
  display: grid;
  gap: 8px;
  dt {
    font-weight: 600;
  }
  dd {
    margin: 0;
  }
`
const List = styled.dl`
  display: grid;
  gap: 6px;
  div {
    display: grid;
    grid-template-columns: 90px 1fr;
    gap: 12px;
  }
  kbd {
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 4px;
    padding: 1px 6px;
  }
`
