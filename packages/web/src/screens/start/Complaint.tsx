import { useQuery } from '@tanstack/react-query'
import { complaintWords, isSiteOfPain, type RegionPack } from '@kneecap-awl/core'
import type { Told } from '@kneecap-awl/contract'
import styled from 'styled-components'
import { packOf, type PackSummary } from '../../api/queries'
import { Button, SmallTitle, Soft, Toggle, ToggleRow } from '../../parts/controls'
import { SitePlates } from '../../plates/SitePlates'
import type { Sore } from './Figure'

/** What is told before the examination begins. */
export interface Complained {
  /** Of the first joint. */
  readonly told: readonly Told[]
  /** Of several joints, whether one event hurt them. */
  readonly isOneEvent?: boolean
}

interface Props {
  readonly pack: PackSummary | undefined
  readonly sore: readonly Sore[]
  readonly complained: Complained
  readonly fault: string
  readonly isReady: boolean
  /** What is still to be said before it can begin. */
  readonly next: string
  readonly onChange: (complained: Complained) => void
  readonly onBegin: () => void
}

/** On the figure these are small: where in them it hurts is shown on a drawing of their own. */
const ENLARGED: ReadonlySet<string> = new Set(['hand', 'wrist', 'foot'])

/** The presenting complaint of the first joint, whether several joints share one event, and the way to begin. */
export function Complaint({ pack, sore, complained, fault, isReady, next, onChange, onBegin }: Props) {
  const [first, ...others] = sore
  const region = pack?.regions.find(({ id }) => id === first?.region)
  const small = first && pack && ENLARGED.has(first.region) ? { packHash: pack.hash, region: first.region } : undefined
  const { data: enlarged } = useQuery(packOf(small))
  const { told } = complained
  const isTold = (item: string, value: string): boolean => told.some((one) => one.item === item && one.value === value)
  return (
    <div>
      <SmallTitle>Presenting complaint{others.length > 0 && first ? `, ${complaintWords(first)}` : ''}</SmallTitle>
      <Soft>{region ? 'Select the presenting complaint. It fills in the history.' : 'Select the joint first.'}</Soft>
      <Chips
        aria-label="Complaint"
        selectionMode="multiple"
        selectedKeys={(region?.complaint ?? []).filter(({ item, value }) => isTold(item, value)).map(({ label }) => label)}
        onSelectionChange={(keys) => {
          const chosen = (region?.complaint ?? []).filter(({ label }) => [...keys].includes(label)).map(({ item, value }) => ({ item, value }))
          onChange({ ...complained, told: [...told.filter(({ item }) => isSiteOfPain(item)), ...chosen] })
        }}
      >
        {(region?.complaint ?? []).map(({ label }) => (
          <Toggle key={label} id={label}>
            {label}
          </Toggle>
        ))}
      </Chips>
      {others.length > 0 && (
        <>
          <SmallTitle>Onset of the {sore.length} joints</SmallTitle>
          <ToggleRow
            aria-label="Onset"
            selectionMode="single"
            disallowEmptySelection={complained.isOneEvent !== undefined}
            selectedKeys={complained.isOneEvent === undefined ? [] : [complained.isOneEvent ? 'one' : 'own']}
            onSelectionChange={([key]) => onChange({ ...complained, isOneEvent: key === 'one' })}
          >
            <Toggle id="one">One event</Toggle>
            <Toggle id="own">Each its own history</Toggle>
          </ToggleRow>
        </>
      )}
      {enlarged && first && (
        <Enlarged
          pack={enlarged}
          sore={first}
          told={told}
          onTold={(now) => onChange({ ...complained, told: [...told.filter(({ item }) => !isSiteOfPain(item)), ...now] })}
        />
      )}
      <Begin>
        {fault && <p role="alert">{fault}</p>}
        <Button $tone="copper" isDisabled={!isReady || !region} onPress={onBegin}>
          Begin with the history
        </Button>
        <Soft aria-live="polite">{next}</Soft>
      </Begin>
    </div>
  )
}

interface EnlargedProps {
  readonly pack: RegionPack
  readonly sore: Sore
  readonly told: readonly Told[]
  readonly onTold: (told: readonly Told[]) => void
}

/** Where in a hand or a foot it hurts, by touch. */
function Enlarged({ pack, sore, told, onTold }: EnlargedProps) {
  return (
    <Large>
      <SitePlates
        pack={pack}
        items={pack.items}
        sides={sore.sides}
        isReadOnly={false}
        title={`Where in the ${complaintWords(sore)}`}
        wordsOf={(item, side) => told.flatMap((one) => (one.item === item.id && one.side === side ? one.value : []))}
        onWords={(item, side, value) => {
          const others = told.filter((one) => isSiteOfPain(one.item) && one.side !== side)
          onTold(value.length > 0 ? [...others, { item: item.id, side, value }] : others)
        }}
      />
    </Large>
  )
}

const Chips = styled(ToggleRow)`
  margin-top: 8px;
  flex-wrap: wrap;
`
const Large = styled.div`
  margin-top: 16px;
`
const Begin = styled.div`
  display: grid;
  gap: 8px;
  margin-top: 16px;
  button {
    min-height: 44px;
  }
`
