import {
  belongs,
  NORMAL,
  optionsHere,
  type FindingEntry,
  type Item,
  type RegionPack,
  type Qualifier,
  type Scalar,
  type Side,
  type Value,
} from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { MultiPicker, Picker } from '../../parts/Picker'
import { NumberBox } from './NumberBox'
import { Segments, Single, WordChoice } from './WordChoice'

export interface Answer {
  readonly value?: Value
  readonly qualifiers?: Readonly<Record<string, Scalar | readonly string[]>>
}

interface Props {
  readonly pack: RegionPack
  readonly item: Item
  readonly side: Side
  readonly entry: FindingEntry | undefined
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly onAnswer: (answer: Answer) => void
}

/** How one item is answered on one side: buttons, a picker, or a number with its unit. */
export function ValueControl(props: Props) {
  const { pack, item, entry, isDisabled, mirrored, onAnswer } = props
  const label = nameOf(props)
  const examined = entry?.state === 'examined' ? entry : undefined
  return (
    <Line $mirrored={mirrored}>
      {item.normalSpan && item.needs === undefined && (
        <Single
          label={item.normalSpan.says}
          name={`${label}: ${item.normalSpan.says}${item.kind === 'angle' ? ', visual estimate' : ''}`}
          selected={examined?.value === NORMAL}
          isDisabled={isDisabled}
          onPick={() => onAnswer(item.normal ?? {})}
        />
      )}
      {item.kind === 'laxity' && <Equal label={label} entry={examined} isDisabled={isDisabled} onAnswer={onAnswer} />}
      <MainValue {...{ pack, item, label, isDisabled, mirrored }} entry={examined} keep={(change) => onAnswer(kept(props, change))} />
      <Qualifiers {...props} />
    </Line>
  )
}

/** What is asked beside the value in its row: the end point, the views, of which kind a fever was. */
export function Qualifiers(props: Props) {
  const { pack, item, entry, isDisabled, mirrored, onAnswer } = props
  const examined = entry?.state === 'examined' ? entry : undefined
  const isTold = item.kind === 'laxity' || (examined !== undefined && isAbnormalWord(item, examined.value))
  const isAsked = (name: string, q: Qualifier): boolean =>
    q.with === undefined ? isTold || item.normal?.qualifiers?.[name] !== undefined : examined !== undefined && belongs(q, examined.value)
  return Object.entries(item.qualifiers)
    .filter(([name, q]) => q.inRow && !item.readings.includes(name) && isAsked(name, q))
    .map(([name, qualifier]) => (
      <Extra
        key={name}
        label={`${nameOf(props)}, ${qualifier.label}`}
        qualifier={qualifier}
        options={optionsHere(qualifier, pack.regions[0].id)}
        meaning={qualifier.meansIn?.[pack.regions[0].id]}
        value={examined?.qualifiers?.[name]}
        isDisabled={isDisabled}
        mirrored={mirrored}
        onPick={(value) => onAnswer(kept(props, { qualifiers: { [name]: value, ...(item.kind === 'laxity' ? { equal: false } : {}) } }))}
      />
    ))
}

const nameOf = ({ item, side }: Pick<Props, 'item' | 'side'>): string => `${item.label}${side === 'none' ? '' : `, ${side}`}`

/** The whole answer after a change of part of it. A number that is read takes the place of "full, visual estimate". */
export function kept({ item, entry }: Pick<Props, 'item' | 'entry'>, change: Answer): Answer {
  const examined = entry?.state === 'examined' ? entry : undefined
  const value = change.value ?? (examined?.value === NORMAL ? undefined : examined?.value)
  const told = Object.entries({ ...examined?.qualifiers, ...change.qualifiers })
  // What qualified a word that was taken back goes with it.
  const qualifiers = Object.fromEntries(told.filter(([name]) => belongs(item.qualifiers[name] ?? {}, value)))
  return { ...(value === undefined ? {} : { value }), qualifiers }
}

/** What only qualifies a finding is asked once there is one; what can be found by itself (a gap in a painless tendon) always. */
function isAbnormalWord(item: Item, value: FindingEntry['value']): boolean {
  if (value === undefined) return true
  if (Array.isArray(value)) return value.some((word) => !item.calm.includes(String(word)))
  return item.options.length === 0 || !item.calm.includes(String(value))
}

type MainProps = Pick<Props, 'pack' | 'item' | 'isDisabled' | 'mirrored'> & {
  readonly label: string
  readonly entry: FindingEntry | undefined
  readonly keep: (change: Answer) => void
}

function MainValue({ pack, item, label, entry, isDisabled, mirrored, keep }: MainProps) {
  if (item.kind === 'multi') return <Several {...{ item, label, entry, isDisabled, keep }} />
  if (item.options.length > 0) {
    const value = entry?.value === undefined ? undefined : String(entry.value)
    return <WordChoice {...{ pack, item, label, isDisabled, mirrored }} value={value} onPick={(word) => keep({ value: word })} />
  }
  if (item.readings.length > 0) {
    return item.readings.map((name) => (
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
    ))
  }
  return (
    <NumberBox
      label={label}
      unit={item.unit}
      min={item.min}
      max={item.max}
      value={entry?.value === NORMAL ? undefined : (entry?.value as Scalar | undefined)}
      isDisabled={isDisabled}
      onSet={(value) => keep({ value, ...(item.kind === 'laxity' ? { qualifiers: { equal: false } } : {}) })}
    />
  )
}

function Several({ item, label, entry, isDisabled, keep }: Omit<MainProps, 'pack' | 'mirrored'>) {
  const values = Array.isArray(entry?.value) ? (entry.value as readonly string[]) : []
  const empty = item.mustBeTold ? undefined : item.empty
  const isCalm = (word: string): boolean => item.calm.includes(word) || item.gaps.includes(word)
  return (
    <>
      {empty !== undefined && (
        <Single
          label={empty}
          name={`${label}: ${empty}`}
          selected={values.length === 1 && values[0] === empty}
          isDisabled={isDisabled}
          onPick={() => keep({ value: [empty] })}
        />
      )}
      <MultiPicker
        label={label}
        options={item.options}
        empty={empty}
        values={values}
        abnormal={values.some((v) => !isCalm(v))}
        isDisabled={isDisabled}
        onPick={(picked) => picked.length > 0 && keep({ value: picked })}
      />
    </>
  )
}

const Equal = ({ label, entry, isDisabled, onAnswer }: Pick<Props, 'entry' | 'isDisabled' | 'onAnswer'> & { readonly label: string }) => (
  <Single
    label="equal"
    name={`${label}: equal to the other side, firm`}
    selected={entry?.qualifiers?.equal === true}
    isDisabled={isDisabled}
    onPick={() => onAnswer({ qualifiers: { 'end-point': 'firm', equal: true } })}
  />
)

interface ExtraProps {
  readonly label: string
  readonly qualifier: Qualifier
  readonly options: readonly string[]
  readonly meaning: string | undefined
  readonly value: Scalar | readonly string[] | undefined
  readonly isDisabled: boolean
  readonly mirrored: boolean
  readonly onPick: (value: Scalar | readonly string[]) => void
}

/** Most letters of a qualifier's words that still stand as buttons. */
const EXTRA_ROOM = 18

export function Extra(props: ExtraProps) {
  return (
    <>
      <Together $mirrored={props.mirrored}>
        {props.qualifier.kind === 'sign' && <Soft>{props.qualifier.label}</Soft>}
        <ExtraControl {...props} />
      </Together>
      {props.meaning && props.value === undefined && <Soft>{props.meaning}</Soft>}
    </>
  )
}

function ExtraControl({ label, qualifier, options, value, isDisabled, mirrored, onPick }: ExtraProps) {
  switch (qualifier.kind) {
    case 'number':
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
    case 'sign':
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
    case 'multi': {
      const values = Array.isArray(value) ? (value as readonly string[]) : value === undefined ? [] : [String(value)]
      return (
        <MultiPicker
          label={label}
          placeholder={qualifier.label}
          options={options}
          empty={options.find((word) => word === 'none')}
          values={values}
          abnormal
          isDisabled={isDisabled}
          onPick={onPick}
        />
      )
    }
    default:
      return options.join('').length + options.length * 2 <= EXTRA_ROOM ? (
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
}

const Line = styled.div<{ $mirrored: boolean }>`
  display: flex;
  flex-wrap: wrap;
  flex-direction: ${({ $mirrored }) => ($mirrored ? 'row-reverse' : 'row')};
  align-items: center;
  gap: 4px;
`
/** What is asked and its answers stay on one line. */
const Together = styled.span<{ $mirrored: boolean }>`
  display: inline-flex;
  flex-direction: ${({ $mirrored }) => ($mirrored ? 'row-reverse' : 'row')};
  align-items: center;
  gap: 4px;
`
