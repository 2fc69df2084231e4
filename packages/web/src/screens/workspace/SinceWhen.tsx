import { useState } from 'react'
import type { FindingEntry } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Input, Soft } from '../../parts/controls'
import { Picker } from '../../parts/Picker'
import { afterRelease } from '../../parts/pointer'
import type { Answer } from './ValueControl'

const UNITS = [
  { id: 'hours', ms: 3_600_000, precision: 'hour' },
  { id: 'days', ms: 86_400_000, precision: 'day' },
  { id: 'weeks', ms: 604_800_000, precision: 'week' },
  { id: 'months', ms: 2_629_800_000, precision: 'month' },
] as const
type Unit = (typeof UNITS)[number]
const MOST = 1200

interface Props {
  readonly label: string
  /** The unit that is usual for it; days when the item names none. */
  readonly usual: string | undefined
  readonly entry: FindingEntry | undefined
  readonly startedAt: string
  readonly isDisabled: boolean
  readonly onSet: (answer: Answer) => void
}

/** "3 days ago": stored as the start of that span with how exactly it is known. */
export function SinceWhen({ label, usual, entry, startedAt, isDisabled, onSet }: Props) {
  const known = entry?.state === 'examined' && typeof entry.value === 'string' ? spoken(entry, startedAt) : undefined
  const [amount, setAmount] = useState(known?.amount ?? '')
  const [unit, setUnit] = useState<Unit>(known?.unit ?? UNITS.find((one) => one.id === usual) ?? UNITS[1])
  const set = (text: string, of: Unit): void => {
    const n = Number(text.replace(',', '.'))
    if (text.trim() === '' || !(n >= 0) || n > MOST) return
    if (known?.amount === text.trim() && known.unit.id === of.id) return
    onSet({ value: new Date(Date.parse(startedAt) - n * of.ms).toISOString(), qualifiers: { precision: n === 0 ? 'hour' : of.precision } })
  }
  return (
    <Since>
      <Short
        $mono
        inputMode="decimal"
        aria-label={`${label}, how long ago`}
        value={amount}
        disabled={isDisabled}
        onChange={(event) => setAmount(event.target.value)}
        onBlur={() => afterRelease(() => set(amount, unit))}
        onKeyDown={(event) => event.key === 'Enter' && set(amount, unit)}
      />
      <Picker
        label={`${label}, unit`}
        options={UNITS.map((one) => one.id)}
        value={unit.id}
        isPlain
        isDisabled={isDisabled}
        onPick={(id) => {
          const picked = UNITS.find((one) => one.id === id) ?? UNITS[1]
          setUnit(picked)
          set(amount, picked)
        }}
      />
      <Soft>ago</Soft>
    </Since>
  )
}

function spoken(entry: FindingEntry, startedAt: string): { readonly amount: string; readonly unit: Unit } {
  const unit = UNITS.find((one) => one.precision === entry.qualifiers?.precision) ?? UNITS[1]
  const amount = (Date.parse(startedAt) - Date.parse(String(entry.value))) / unit.ms
  return { amount: String(Math.round(amount * 10) / 10), unit }
}

const Since = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
`
const Short = styled(Input)`
  width: 52px;
  min-height: 32px;
  text-align: right;
`
