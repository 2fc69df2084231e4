import { ToggleButtonGroup } from 'react-aria-components'
import type { Item, RegionPack } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Toggle } from '../../parts/controls'
import { Picker } from '../../parts/Picker'

/** More than these stand closer together: a power grade has eight, in one line. */
const MANY = 6
/** Most letters that still stand as buttons in a row; longer lists fold into a picker. */
const ROOM = 27

interface WordsProps {
  readonly pack: RegionPack
  readonly item: Item
  readonly label: string
  readonly value: string | undefined
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly onPick: (value: string) => void
}

/** One word of several: all as buttons where there is room, else the calm one as a button and the rest in a picker. */
export function WordChoice({ pack, item, label, value, isDisabled, mirrored, onPick }: WordsProps) {
  const scale = pack.scales.find((one) => one.id === item.scale)
  const word = (option: string): string => scale?.words[scale.grades.indexOf(option)] ?? option
  const letters = item.options.join('').length + item.options.length * 2
  if (letters <= ROOM)
    return (
      <Segments
        label={label}
        options={item.options}
        value={value}
        calm={[...item.calm, ...item.gaps]}
        isDisabled={isDisabled}
        mirrored={mirrored}
        word={word}
        onPick={onPick}
      />
    )
  const quick = item.mustBeTold ? undefined : quickWord(item)
  return (
    <>
      {quick !== undefined && (
        <Single label={quick} name={`${label}: ${quick}`} selected={value === quick} isDisabled={isDisabled} onPick={() => onPick(quick)} />
      )}
      <Picker
        label={label}
        options={item.options.filter((option) => option !== quick)}
        words={(option) => (word(option) === option ? option : `${option} ${word(option)}`)}
        value={value === quick ? undefined : value}
        abnormal={value !== undefined && !item.calm.includes(value) && !item.gaps.includes(value)}
        isDisabled={isDisabled}
        onPick={onPick}
      />
    </>
  )
}

/** What the key for normal records, else the first calm word. */
const quickWord = ({ normal, calm, options, gaps }: Item): string | undefined =>
  typeof normal?.value === 'string' && options.includes(normal.value) ? normal.value : (calm[0] ?? options.find((word) => !gaps.includes(word)))

interface SegmentsProps {
  readonly label: string
  readonly options: readonly string[]
  readonly value: string | undefined
  readonly calm: readonly string[]
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly word?: (option: string) => string
  readonly onPick: (value: string) => void
}

export function Segments({ label, options, value, calm, isDisabled, mirrored, word, onPick }: SegmentsProps) {
  const shown = mirrored ? [...options].reverse() : options
  const spoken = (option: string): string => (word && word(option) !== option ? `${label}: ${option} ${word(option)}` : `${label}: ${option}`)
  return (
    <Group
      $mirrored={mirrored}
      $isLong={options.length > MANY}
      aria-label={label}
      selectionMode="single"
      selectedKeys={value === undefined ? [] : [value]}
      isDisabled={isDisabled}
      onSelectionChange={(keys) => [...keys].forEach((key) => onPick(String(key)))}
    >
      {shown.map((option) => (
        <Toggle key={option} id={option} $abnormal={!calm.includes(option)} aria-label={spoken(option)}>
          {option}
        </Toggle>
      ))}
    </Group>
  )
}

interface SingleProps {
  readonly label: string
  readonly name: string
  readonly selected: boolean
  readonly isDisabled: boolean
  readonly onPick: () => void
}

export const Single = ({ label, name, selected, isDisabled, onPick }: SingleProps) => (
  <Toggle aria-label={name} isSelected={selected} isDisabled={isDisabled} onChange={onPick}>
    {label}
  </Toggle>
)

const Group = styled(ToggleButtonGroup)<{ $mirrored: boolean; $isLong: boolean }>`
  display: flex;
  ${({ $isLong }) => $isLong && 'button { padding: 0 6px; min-width: 26px; }'}
  flex-wrap: wrap;
  justify-content: ${({ $mirrored }) => ($mirrored ? 'flex-end' : 'flex-start')};
  gap: 4px;
`
