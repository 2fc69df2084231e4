import { useState, type ReactNode } from 'react'
import { Label, TextArea, TextField } from 'react-aria-components'
import { hasLetters, type Letter } from '@kneecap-awl/core'
import styled from 'styled-components'
import type { Referral } from '../../api/queries'
import { Button, Input, Soft } from '../../parts/controls'
import { dayAndTime } from '../../parts/times'

export type Told = 'told' | 'accepted' | 'refused' | 'reopened'

interface Props {
  readonly letter: Letter
  readonly added: string
  readonly onAdd: ((text: string) => void) | undefined
  readonly referrals: readonly Referral[]
  readonly onTell: (referral: string, kind: Told, note: string) => void
  readonly onCopy: (text: string) => void
  readonly onPrint: () => void
  /** The plates with what was found. */
  readonly plates: ReactNode
  readonly children: ReactNode
}

/** The letter as it will go, what its reader wants beyond what the record holds, and who was told once it has gone. */
export function LetterPane({ letter, added, onAdd, referrals, onTell, onCopy, onPrint, plates, children }: Props) {
  return (
    <Pane aria-label="Letter" data-part="letter">
      <h2>Letter to {letter.to}</h2>
      {letter.paragraphs.map((paragraph) => (
        <p key={paragraph.heading}>
          <strong>{paragraph.heading}.</strong> {paragraph.text}
        </p>
      ))}
      {plates}
      {letter.missing.length > 0 && <Wants data-screen-only>This destination also wants: {letter.missing.join(', ')}.</Wants>}
      <Buttons data-screen-only>
        <Button onPress={() => onCopy(letterText(letter))}>Copy the letter</Button>
        <Button onPress={onPrint}>Print the letter</Button>
      </Buttons>
      {onAdd && (
        <TextField value={added} onChange={onAdd} data-screen-only>
          <Label>Add to the letter</Label>
          <Area rows={2} maxLength={2000} />
        </TextField>
      )}
      {referrals.map((referral) => (
        <ReferralState key={referral.id} referral={referral} onTell={onTell} />
      ))}
      {children}
    </Pane>
  )
}

const EVENT_WORDS: Readonly<Record<string, string>> = {
  made: 'Referred',
  told: 'Told',
  accepted: 'Accepted',
  refused: 'Refused',
  closed: 'Closed',
  changed: 'Changed',
  reopened: 'Put back on the desk',
}
const OPEN = ['made', 'told', 'refused', 'changed', 'reopened']

/** The letter as plain text, for copying. */
const letterText = ({ to, paragraphs }: Letter): string => [`To ${to}`, ...paragraphs.map(({ heading, text }) => `${heading}. ${text}`)].join('\n\n')

function ReferralState({ referral, onTell }: Pick<Props, 'onTell'> & { readonly referral: Referral }) {
  const [who, setWho] = useState('')
  const tell = (kind: Told): void => {
    onTell(referral.id, kind, who.trim())
    setWho('')
  }
  const isOpen = OPEN.includes(referral.lastEvent)
  return (
    <Box>
      <p>
        <strong>{EVENT_WORDS[referral.lastEvent] ?? referral.lastEvent}</strong>
        {referral.lastNote && `: ${referral.lastNote}`} <Soft>{referral.dueAt ? `due ${dayAndTime(referral.dueAt)}` : 'review in own clinic'}</Soft>
      </p>
      {referral.lastEvent === 'accepted' && (
        <Buttons data-screen-only>
          <Button onPress={() => tell('reopened')}>Not accepted after all: back to the desk</Button>
        </Buttons>
      )}
      {isOpen && (
        <Form data-screen-only>
          <TextField value={who} onChange={setWho}>
            <Label>Who was told, with role</Label>
            <Input />
          </TextField>
          <Buttons>
            {(['told', 'accepted', 'refused'] as const).map((kind) => (
              <Button key={kind} isDisabled={!hasLetters(who)} onPress={() => tell(kind)}>
                {EVENT_WORDS[kind]}
              </Button>
            ))}
          </Buttons>
        </Form>
      )}
    </Box>
  )
}

const Pane = styled.aside`
  overflow-wrap: anywhere;
  display: grid;
  align-content: start;
  gap: 12px;
  padding: 20px 22px;
  background: ${({ theme }) => theme.sheet};
  border-left: 1px solid ${({ theme }) => theme.rule};
  label {
    display: block;
    margin-bottom: 4px;
    font-weight: 600;
  }
  h2 {
    font-size: 18px;
  }
  @media print {
    border: none;
    padding: 0;
    break-before: page;
  }
`
const Wants = styled.p`
  padding: 8px 12px;
  border-radius: 8px;
  background: ${({ theme }) => theme.copperWash};
`
const Area = styled(TextArea)`
  width: 100%;
  padding: 6px 10px;
  border-radius: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.sheet};
  resize: vertical;
`
const Box = styled.div`
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 8px;
`
const Form = styled.div`
  display: grid;
  gap: 8px;
`
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
