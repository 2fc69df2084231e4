import { useState } from 'react'
import { Label, Menu, MenuItem, MenuTrigger, Popover, TextField } from 'react-aria-components'
import { useNavigate } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import { isReason, judgement, rangeWords, type Entry, type RegionPack, type Side } from '@kneecap-awl/core'
import { MoreHorizontal } from 'lucide-react'
import styled from 'styled-components'
import { examinations } from '@kneecap-awl/contract'
import { call } from '../../api/http'
import type { ExaminationDetail } from '../../api/queries'
import { Button, Input, Soft, Toggle, ToggleRow } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { sendWaiting } from '../../record/sendWaiting'

interface Props {
  readonly detail: ExaminationDetail
  readonly pack: RegionPack
  readonly entries: readonly Entry[]
}

/** What can be put right of a draft as a whole: the side that hurts, or that it was begun at all. */
export function DraftMenu({ detail, pack, entries }: Props) {
  const [open, setOpen] = useState<string>()
  const hasSide = pack.regions[0].side
  return (
    <>
      <MenuTrigger>
        <Button $tone="quiet" aria-label="This draft">
          <MoreHorizontal size={16} aria-hidden />
        </Button>
        <Pop>
          <Menu aria-label="This draft" onAction={(key) => setOpen(String(key))}>
            {hasSide && <Choice id="side">Correct the symptomatic side…</Choice>}
            <Choice id="discard">Discard this draft…</Choice>
          </Menu>
        </Pop>
      </MenuTrigger>
      {open === 'side' && <CorrectSide detail={detail} pack={pack} entries={entries} onClose={() => setOpen(undefined)} />}
      {open === 'discard' && <Discard detail={detail} onClose={() => setOpen(undefined)} />}
    </>
  )
}

const SIDES: Readonly<Record<string, readonly Side[]>> = { right: ['right'], left: ['left'], both: ['right', 'left'] }

/** The findings stay where they were recorded: what the other side would make of them is shown before it is corrected. */
function CorrectSide({ detail, pack, entries, onClose }: Props & { readonly onClose: () => void }) {
  const was = detail.sides.length > 1 ? 'both' : (detail.sides[0] ?? 'right')
  const [side, setSide] = useState('')
  const [reason, setReason] = useState('')
  const [fault, setFault] = useState('')
  const client = useQueryClient()
  const rangeFor = (sides: readonly Side[]): string => {
    const { floor, ceiling } = judgement(pack, {
      complaint: { region: detail.region, sides },
      asOf: detail.startedAt,
      setting: detail.setting,
      entries,
      previous: detail.previous,
    }).verdict
    return rangeWords(pack, floor, ceiling)
  }
  const correct = async (): Promise<void> => {
    try {
      await sendWaiting(detail.id)
      await call(examinations.correctSides, { params: { id: detail.id }, body: { sides: SIDES[side] ?? [], reason } })
      // The sheet is laid out and judged by its side: it begins anew.
      await client.invalidateQueries()
      window.location.reload()
    } catch (error) {
      setFault((error as Error).message)
    }
  }
  const count = (of: Side): number => entries.filter((entry) => entry.state === 'examined' && entry.side === of).length
  return (
    <Dialogue title="Which side is symptomatic?" isOpen onClose={onClose}>
      <p>
        Recorded as: <b>{was}</b>. Findings on the right: {count('right')}, on the left: {count('left')}; they stay on their sides.
      </p>
      <ToggleRow
        aria-label="Symptomatic side"
        selectionMode="single"
        selectedKeys={side ? [side] : []}
        onSelectionChange={(keys) => setSide(String([...keys][0] ?? ''))}
      >
        {Object.keys(SIDES)
          .filter((one) => one !== was)
          .map((one) => (
            <Toggle key={one} id={one}>
              {one}
            </Toggle>
          ))}
      </ToggleRow>
      {side !== '' && (
        <p role="status">
          Priority now {rangeFor(detail.sides)}; with {side}: <b>{rangeFor(SIDES[side] ?? [])}</b>.
        </p>
      )}
      <TextField value={reason} onChange={setReason}>
        <Label>Why it is corrected</Label>
        <Input />
      </TextField>
      {fault && <p role="alert">{fault}</p>}
      <Button $tone="copper" isDisabled={side === '' || !isReason(reason)} onPress={() => void correct()}>
        Correct the side
      </Button>
      <Soft>What it was, your name and the reason stay with the patient.</Soft>
    </Dialogue>
  )
}

function Discard({ detail, onClose }: { readonly detail: ExaminationDetail; readonly onClose: () => void }) {
  const [reason, setReason] = useState('')
  const [fault, setFault] = useState('')
  const navigate = useNavigate()
  const client = useQueryClient()
  const discard = async (): Promise<void> => {
    try {
      await call(examinations.discardDraft, { params: { id: detail.id }, body: { reason } })
      await client.invalidateQueries()
      void navigate('/')
    } catch (error) {
      setFault((error as Error).message)
    }
  }
  return (
    <Dialogue title="Discard this draft?" isOpen onClose={onClose}>
      <p>It leaves the desk and takes nothing more. Nothing is deleted: it stands with the patient, with your name and the reason.</p>
      <TextField value={reason} onChange={setReason}>
        <Label>Why it is discarded</Label>
        <Input />
      </TextField>
      {fault && <p role="alert">{fault}</p>}
      <Button $tone="copper" isDisabled={!isReason(reason)} onPress={() => void discard()}>
        Discard it
      </Button>
      <Button onPress={onClose}>Keep it</Button>
    </Dialogue>
  )
}

const Pop = styled(Popover)`
  padding: 4px;
  background: ${({ theme }) => theme.sheet};
  color: ${({ theme }) => theme.ink};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
`
const Choice = styled(MenuItem)`
  padding: 8px 12px;
  border-radius: 6px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.selection};
    outline: none;
  }
`
