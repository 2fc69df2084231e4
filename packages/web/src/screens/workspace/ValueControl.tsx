import { useState } from 'react'
import { ToggleButtonGroup } from 'react-aria-components'
import type { Entry, Item, Pack, Qualifier, Scalar, Side, Value } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Input, Soft, Toggle } from '../../parts/controls'
import { MultiPicker, Picker } from '../../parts/Picker'

export interface Answer {
  readonly value?: Value
  readonly qualifiers?: Readonly<Record<string, Scalar | readonly string[]>>
}

interface Props {
  readonly pack: Pack
  readonly item: Item
  readonly side: Side
  readonly entry: Entry | undefined
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly onAnswer: (answer: Answer) => void
}

/** Most words that still stand as buttons in a row; longer lists fold into a picker. */
const ROOM = 27

/** How one item is answered on one side: buttons, a picker, or a number with its unit. */
export function ValueControl({ pack, item, side, entry, isDisabled, mirrored, onAnswer }: Props) {
  const label = `${item.label}${side === 'none' ? '' : `, ${side}`}`
  const examined = entry?.state === 'examined' ? entry : undefined
  const keep = (change: Answer): void => {
    const value = change.value ?? examined?.value
    onAnswer({ ...(value === undefined ? {} : { value }), qualifiers: { ...examined?.qualifiers, ...change.qualifiers } })
  }
  const main = <MainValue {...{ pack, item, label, isDisabled, mirrored, keep }} entry={examined} />
  const extras = Object.entries(item.qualifiers).filter(([, q]) => q.inRow && !item.readings.includes(q.label))
  return (
    <Line $mirrored={mirrored}>
      {item.kind === 'laxity' && <Equal label={label} entry={examined} isDisabled={isDisabled} onAnswer={onAnswer} />}
      {main}
      {extras.map(([name, qualifier]) => (
        <Extra
          key={name}
          label={`${label}, ${qualifier.label}`}
          qualifier={qualifier}
          value={examined?.qualifiers?.[name]}
          isDisabled={isDisabled}
          mirrored={mirrored}
          onPick={(value) => keep({ qualifiers: { [name]: value, ...(item.kind === 'laxity' ? { equal: false } : {}) } })}
        />
      ))}
    </Line>
  )
}

type MainProps = Pick<Props, 'pack' | 'item' | 'isDisabled' | 'mirrored'> & {
  readonly label: string
  readonly entry: Entry | undefined
  readonly keep: (change: Answer) => void
}

function MainValue({ pack, item, label, entry, isDisabled, mirrored, keep }: MainProps) {
  if (item.kind === 'multi') {
    const values = Array.isArray(entry?.value) ? (entry.value as readonly string[]) : []
    return (
      <>
        {item.empty !== undefined && (
          <Single
            label={item.empty}
            name={`${label}: ${item.empty}`}
            selected={values.length === 1 && values[0] === item.empty}
            isDisabled={isDisabled}
            onPick={() => keep({ value: [item.empty ?? ''] })}
          />
        )}
        <MultiPicker
          label={label}
          options={item.options}
          empty={item.empty}
          values={values}
          abnormal={values.some((v) => !item.calm.includes(v))}
          isDisabled={isDisabled}
          onPick={(picked) => picked.length > 0 && keep({ value: picked })}
        />
      </>
    )
  }
  if (item.options.length > 0)
    return (
      <Words
        {...{ pack, item, label, isDisabled, mirrored }}
        value={entry?.value === undefined ? undefined : String(entry.value)}
        onPick={(value) => keep({ value })}
      />
    )
  if (item.readings.length > 0) {
    return (
      <>
        {item.readings.map((name) => (
          <NumberBox
            key={name}
            label={`${label}, ${name}`}
            caption={name}
            unit={item.unit}
            min={item.min}
            max={item.max}
            value={entry?.qualifiers?.[name] as Scalar | undefined}
            isDisabled={isDisabled}
            onSet={(value) => keep({ qualifiers: { [name]: value } })}
          />
        ))}
      </>
    )
  }
  return (
    <NumberBox
      label={label}
      unit={item.unit}
      min={item.min}
      max={item.max}
      step={item.step}
      value={entry?.value as Scalar | undefined}
      isDisabled={isDisabled}
      onSet={(value) => keep({ value, ...(item.kind === 'laxity' ? { qualifiers: { equal: false } } : {}) })}
    />
  )
}

function Words({
  pack,
  item,
  label,
  value,
  isDisabled,
  mirrored,
  onPick,
}: {
  readonly pack: Pack
  readonly item: Item
  readonly label: string
  readonly value: string | undefined
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly onPick: (value: string) => void
}) {
  const scale = pack.scales.find((one) => one.id === item.scale)
  const word = (option: string): string => scale?.words[scale.grades.indexOf(option)] ?? option
  const short = item.options.join('').length + item.options.length * 2
  if (short <= ROOM)
    return (
      <Segments label={label} options={item.options} value={value} calm={item.calm} isDisabled={isDisabled} mirrored={mirrored} word={word} onPick={onPick} />
    )
  const quick = item.calm[0] ?? item.options[0] ?? ''
  return (
    <>
      <Single label={quick} name={`${label}: ${quick}`} selected={value === quick} isDisabled={isDisabled} onPick={() => onPick(quick)} />
      <Picker
        label={label}
        options={item.options.filter((option) => option !== quick)}
        words={(option) => (word(option) === option ? option : `${option} ${word(option)}`)}
        value={value === quick ? undefined : value}
        abnormal={value !== undefined && !item.calm.includes(value)}
        isDisabled={isDisabled}
        onPick={onPick}
      />
    </>
  )
}

function Segments({
  label,
  options,
  value,
  calm,
  isDisabled,
  mirrored,
  word,
  onPick,
}: {
  readonly label: string
  readonly options: readonly string[]
  readonly value: string | undefined
  readonly calm: readonly string[]
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly word?: (option: string) => string
  readonly onPick: (value: string) => void
}) {
  const shown = mirrored ? [...options].reverse() : options
  return (
    <Group
      aria-label={label}
      selectionMode="single"
      selectedKeys={value === undefined ? [] : [value]}
      isDisabled={isDisabled}
      onSelectionChange={(keys) => [...keys].forEach((key) => onPick(String(key)))}
    >
      {shown.map((option) => (
        <Toggle
          key={option}
          id={option}
          $abnormal={!calm.includes(option)}
          aria-label={`${label}: ${option}${word && word(option) !== option ? ` ${word(option)}` : ''}`}
        >
          {option}
        </Toggle>
      ))}
    </Group>
  )
}

const Single = ({
  label,
  name,
  selected,
  isDisabled,
  onPick,
}: {
  readonly label: string
  readonly name: string
  readonly selected: boolean
  readonly isDisabled: boolean
  readonly onPick: () => void
}) => (
  <Toggle aria-label={name} isSelected={selected} isDisabled={isDisabled} onChange={onPick}>
    {label}
  </Toggle>
)

const Equal = ({
  label,
  entry,
  isDisabled,
  onAnswer,
}: {
  readonly label: string
  readonly entry: Entry | undefined
  readonly isDisabled: boolean
  readonly onAnswer: (answer: Answer) => void
}) => (
  <Single
    label="equal"
    name={`${label}: equal to the other side, firm`}
    selected={entry?.qualifiers?.equal === true}
    isDisabled={isDisabled}
    onPick={() => onAnswer({ qualifiers: { 'end-point': 'firm', equal: true } })}
  />
)

function Extra({
  label,
  qualifier,
  value,
  isDisabled,
  mirrored,
  onPick,
}: {
  readonly label: string
  readonly qualifier: Qualifier
  readonly value: Scalar | readonly string[] | undefined
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly onPick: (value: Scalar | readonly string[]) => void
}) {
  if (qualifier.kind === 'number')
    return (
      <NumberBox
        label={label}
        unit={qualifier.unit}
        min={qualifier.min}
        max={qualifier.max}
        value={value as Scalar | undefined}
        isDisabled={isDisabled}
        onSet={onPick}
      />
    )
  if (qualifier.kind === 'sign')
    return (
      <Segments
        label={label}
        options={['no', 'yes']}
        calm={['no']}
        value={value === undefined ? undefined : value ? 'yes' : 'no'}
        isDisabled={isDisabled}
        mirrored={mirrored}
        onPick={(word) => onPick(word === 'yes')}
      />
    )
  const options = qualifier.options ?? []
  if (qualifier.kind === 'multi') {
    const values = Array.isArray(value) ? (value as readonly string[]) : value === undefined ? [] : [String(value)]
    return (
      <MultiPicker
        label={label}
        placeholder={qualifier.label}
        options={options}
        empty={options[0]}
        values={values}
        abnormal
        isDisabled={isDisabled}
        onPick={onPick}
      />
    )
  }
  const short = options.join('').length + options.length * 2 <= 18
  return short ? (
    <Segments
      label={label}
      options={options}
      calm={options.slice(0, 1)}
      value={value as string | undefined}
      isDisabled={isDisabled}
      mirrored={mirrored}
      onPick={onPick}
    />
  ) : (
    <Picker
      label={label}
      placeholder={qualifier.label}
      options={options}
      value={value as string | undefined}
      abnormal
      isDisabled={isDisabled}
      onPick={onPick}
    />
  )
}

interface NumberProps {
  readonly label: string
  readonly caption?: string
  readonly unit: string | undefined
  readonly min: number | undefined
  readonly max: number | undefined
  readonly step?: number | undefined
  readonly value: Scalar | undefined
  readonly isDisabled: boolean
  readonly onSet: (value: number) => void
}

/** A number is stored when the box is left or Enter is pressed; one out of range says what is wanted and stores nothing. */
export function NumberBox({ label, caption, unit, min, max, value, isDisabled, onSet }: NumberProps) {
  const known = value === undefined ? '' : String(value)
  const [text, setText] = useState(known)
  const [seen, setSeen] = useState(known)
  const [fault, setFault] = useState(false)
  if (seen !== known) {
    setSeen(known)
    setText(known)
  }
  const wanted = `${min ?? ''}${min !== undefined || max !== undefined ? ' to ' : ''}${max ?? ''}${unit ? ` ${unit}` : ''}`
  const commit = (): void => {
    const trimmed = text.trim().replace(',', '.')
    if (trimmed === '' || trimmed === known) return setFault(false)
    const number = Number(trimmed)
    const wrong = Number.isNaN(number) || number < (min ?? -Infinity) || number > (max ?? Infinity)
    setFault(wrong)
    if (!wrong) onSet(number)
  }
  return (
    <Box title={fault ? `wanted: ${wanted}` : undefined}>
      {caption && <Soft>{caption}</Soft>}
      <Small
        $mono
        inputMode="decimal"
        aria-label={label}
        aria-invalid={fault}
        placeholder={fault ? wanted : ''}
        value={text}
        disabled={isDisabled}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === 'Enter' && commit()}
      />
      {unit && <Soft>{unit}</Soft>}
      {fault && <Wrong role="alert">{wanted}</Wrong>}
    </Box>
  )
}

const Line = styled.div<{ $mirrored: boolean }>`
  display: flex;
  flex-wrap: wrap;
  flex-direction: ${({ $mirrored }) => ($mirrored ? 'row-reverse' : 'row')};
  align-items: center;
  gap: 4px;
`
const Group = styled(ToggleButtonGroup)`
  display: flex;
  gap: 4px;
`
const Box = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 4px;
`
const Small = styled(Input)`
  width: 56px;
  min-height: 32px;
  padding: 0 6px;
  text-align: right;
`
const Wrong = styled.span`
  font-size: 12px;
  color: ${({ theme }) => theme.copper};
  white-space: nowrap;
`
