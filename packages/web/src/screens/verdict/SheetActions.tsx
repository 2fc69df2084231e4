import { useState } from 'react'
import { Label, TextField } from 'react-aria-components'
import { useNavigate } from 'react-router'
import { isReason } from '@kneecap-awl/core'
import type { ExaminationDetail } from '../../api/queries'
import { Button, Input, Soft } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import type { Draft } from '../../record/useRecord'
import { AcceptRange } from './AcceptRange'
import type { Printed } from './usePrint'
import type { useVerdict } from './useVerdict'

/** What can be done with a verdict: signing, referring, amending, printing. */
export function SheetActions({
  detail,
  sheet,
  onPrint,
  onAmend,
}: {
  readonly detail: ExaminationDetail
  readonly sheet: ReturnType<typeof useVerdict>
  readonly onPrint: (what: Printed) => void
  readonly onAmend: () => void
}) {
  const navigate = useNavigate()
  const isReferred = sheet.referrals.length > 0
  /** What goes on once the open range is accepted. */
  const [asked, setAsked] = useState<(decision?: Draft) => Promise<void>>()
  const signing = (go: (decision?: Draft) => Promise<void>) => (): void => {
    if (sheet.view.toAccept) setAsked(() => go)
    else void go()
  }
  return (
    <>
      <Button onPress={() => void navigate(`/examinations/${detail.id}`)}>Back to the sheet</Button>
      <Button onPress={() => onPrint('all')}>Print</Button>
      {detail.discardedAt ? null : detail.signedAt ? (
        <>
          <Button onPress={onAmend}>Amend</Button>
          {!isReferred && (
            <Button $tone="copper" onPress={() => void sheet.refer()}>
              Refer
            </Button>
          )}
        </>
      ) : (
        <>
          <Button $tone={sheet.view.priority.tier === 'here' ? 'copper' : 'plain'} onPress={signing(sheet.sign)}>
            Sign
          </Button>
          {sheet.view.priority.tier !== 'here' && (
            <Button $tone="copper" onPress={signing(sheet.signAndRefer)}>
              Sign and refer
            </Button>
          )}
        </>
      )}
      {sheet.view.toAccept && (
        <AcceptRange
          ceiling={sheet.view.toAccept}
          open={sheet.view.open.map((one) => one.label)}
          isOpen={asked !== undefined}
          onClose={() => setAsked(undefined)}
          onAccept={(decision) => {
            setAsked(undefined)
            void asked?.(decision)
          }}
        />
      )}
    </>
  )
}

/** A signed examination is changed with a reason only. */
export function AmendDialogue({ id, isOpen, onClose }: { readonly id: string; readonly isOpen: boolean; readonly onClose: () => void }) {
  const navigate = useNavigate()
  const [reason, setReason] = useState('')
  return (
    <Dialogue title="Amend a signed examination" isOpen={isOpen} onClose={onClose}>
      <Soft>What was signed stays. What you change is added with your reason, and the verdict is reached again.</Soft>
      <TextField value={reason} onChange={setReason}>
        <Label>Reason</Label>
        <Input />
      </TextField>
      <Button $tone="copper" isDisabled={!isReason(reason)} onPress={() => void navigate(`/examinations/${id}`, { state: { amends: reason.trim() } })}>
        Go to the sheet
      </Button>
    </Dialogue>
  )
}
