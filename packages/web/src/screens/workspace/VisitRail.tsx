import { memo, useState } from 'react'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { complaintWords, isAbnormalEntry, type FindingEntry, type Item, type RegionPack, type Side } from '@kneecap-awl/core'
import styled from 'styled-components'
import { currentPack, type ExaminationDetail } from '../../api/queries'
import { Button, Soft, Toggle, ToggleRow } from '../../parts/controls'
import { Dialogue } from '../../parts/Dialogue'
import { Picker } from '../../parts/Picker'
import { PunchedStrip, rangeWords, tierName } from '../../parts/PunchedStrip'
import { regionsFor } from '../../parts/regionsFor'
import { useAddJoint } from './useAddJoint'

interface Props {
  readonly detail: ExaminationDetail
  readonly pack: RegionPack
  readonly sides: readonly Side[]
  readonly entryOf: (item: string, side: Side) => FindingEntry | undefined
}

/** The other joints of this visit, each with its range, and the way to one more: in one step where a neighbour is not calm. */
export const VisitRail = memo(function VisitRail({ detail, pack, sides, entryOf }: Props) {
  const { data: current } = useQuery(currentPack)
  const { add, fault, clear } = useAddJoint(detail.id)
  const [isOpen, setIsOpen] = useState(false)
  const regions = regionsFor(current?.regions ?? [], detail.birthDate)
  const inVisit = new Set([detail.region, ...detail.visitWith.map((one) => one.region)])
  const called = calledFor(pack, entryOf).filter(({ opens }) => !inVisit.has(opens) && regions.some((one) => one.id === opens))
  const ownSides = sides.filter((side) => side !== 'none')
  const suiting = (region: string): readonly Side[] => (regions.find((one) => one.id === region)?.side === false ? ['none'] : ownSides)
  return (
    <Box aria-label="Same visit">
      {detail.visitWith.map((one) => (
        <Other key={one.id} to={`/examinations/${one.id}`}>
          <span>Also: {complaintWords(one)}</span>
          {one.floor && one.ceiling && (
            <>
              <PunchedStrip floor={one.floor} ceiling={one.ceiling} />
              <Soft>{rangeWords(one.floor, one.ceiling)}</Soft>
            </>
          )}
          {one.priority && one.priority !== one.floor && <Soft>set to {tierName(one.priority)}</Soft>}
        </Other>
      ))}
      <div aria-live="polite">
        {called.map(({ opens, label }) => (
          <Called key={opens}>
            <Soft>{label}: not calm.</Soft>
            <Button onPress={() => void add({ region: opens, sides: suiting(opens), sameEvent: true })}>
              Examine {complaintWords({ region: opens, sides: suiting(opens) })} too
            </Button>
          </Called>
        ))}
      </div>
      <Button $tone="quiet" style={{ justifySelf: 'start' }} onPress={() => setIsOpen(true)}>
        Also examine…
      </Button>
      {fault && <p role="alert">{fault}</p>}
      <AlsoDialogue
        isOpen={isOpen}
        regions={regions.filter((one) => !inVisit.has(one.id) || (one.id === detail.region && detail.sides.length === 1 && one.side))}
        fault={fault}
        onClose={() => {
          clear()
          setIsOpen(false)
        }}
        onAdd={add}
      />
    </Box>
  )
})

/** Neighbours that were looked at and are not calm; one for each region. */
function calledFor(pack: RegionPack, entryOf: Props['entryOf']): readonly { readonly opens: string; readonly label: string }[] {
  const found = new Map<string, string>()
  const isOdd = (item: Item): boolean =>
    (['right', 'left', 'none'] as const).some((side) => {
      const entry = entryOf(item.id, side)
      return entry !== undefined && isAbnormalEntry(pack, entry)
    })
  for (const item of pack.items) if (item.opens !== undefined && !found.has(item.opens) && isOdd(item)) found.set(item.opens, item.label)
  return [...found].map(([opens, label]) => ({ opens, label }))
}

interface AlsoProps {
  readonly isOpen: boolean
  readonly regions: ReturnType<typeof regionsFor>
  readonly fault: string
  readonly onClose: () => void
  readonly onAdd: ReturnType<typeof useAddJoint>['add']
}

function AlsoDialogue({ isOpen, regions, fault, onClose, onAdd }: AlsoProps) {
  const [name, setName] = useState<string>()
  const [sides, setSides] = useState<readonly string[]>([])
  const [event, setEvent] = useState<string>()
  const region = regions.find((one) => one.name === name)
  const isReady = region !== undefined && event !== undefined && (!region.side || sides.length > 0)
  return (
    <Dialogue title="Another joint in this visit" isOpen={isOpen} onClose={onClose}>
      <Soft>
        It is judged and signed for itself. The person, named arteries, muscles and skin areas are not asked again; what you found at one joint says nothing of
        another.
      </Soft>
      <Picker label="Joint" placeholder="choose the joint" options={regions.map((one) => one.name)} value={name} onPick={setName} isPlain />
      {region?.side && (
        <ToggleRow aria-label="Side" selectionMode="multiple" selectedKeys={sides} onSelectionChange={(keys) => setSides([...keys].map(String))}>
          <Toggle id="right">right</Toggle>
          <Toggle id="left">left</Toggle>
        </ToggleRow>
      )}
      <ToggleRow aria-label="Onset" selectionMode="single" selectedKeys={event ? [event] : []} onSelectionChange={(keys) => setEvent([...keys].map(String)[0])}>
        <Toggle id="same">same event</Toggle>
        <Toggle id="own">has its own history</Toggle>
      </ToggleRow>
      {fault && <p role="alert">{fault}</p>}
      <Button
        $tone="copper"
        isDisabled={!isReady}
        onPress={() => region && void onAdd({ region: region.id, sides: region.side ? (sides as Side[]) : ['none'], sameEvent: event === 'same' })}
      >
        Examine it
      </Button>
    </Dialogue>
  )
}

const Box = styled.section`
  display: grid;
  gap: 6px;
  padding: 8px 0 10px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`
const Other = styled(Link)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 8px;
  padding: 4px 10px;
  color: inherit;
  text-decoration: none;
  > span:first-child {
    flex-basis: 100%;
    font-weight: 650;
  }
  &:hover > span:first-child {
    text-decoration: underline;
  }
`
const Called = styled.div`
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  border-radius: 8px;
  background: ${({ theme }) => theme.sheet};
  border: 1px solid ${({ theme }) => theme.copper};
  button {
    white-space: normal;
    padding: 6px 8px;
  }
`
