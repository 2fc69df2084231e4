import styled from 'styled-components'
import { Toggle, ToggleRow } from '../../parts/controls'
import { useKept } from '../../parts/useKept'
import { ORDERS, type Order } from './layout'

const KEY = 'awl-order'
const WORDS: Readonly<Record<Order, string>> = { position: 'By position', stage: 'By stage' }

/** In which order the route goes; what was chosen last on this device stays. */
export function useOrder(): { readonly order: Order; readonly setOrder: (order: Order) => void } {
  const [kept, setOrder] = useKept(KEY)
  return { order: kept === 'stage' ? 'stage' : 'position', setOrder }
}

/** Switches the route at any time: the row in hand stays in hand, and what was recorded stands in either. */
export function OrderPicker({ order, onPick }: { readonly order: Order; readonly onPick: (order: Order) => void }) {
  return (
    <Pair
      aria-label="Order of the examination"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[order]}
      onSelectionChange={([picked]) => picked !== undefined && onPick(picked as Order)}
    >
      {ORDERS.map((one) => (
        <Half key={one} id={one}>
          {WORDS[one]}
        </Half>
      ))}
    </Pair>
  )
}

const Pair = styled(ToggleRow)`
  gap: 4px;
  margin: 8px 0 6px;
`
const Half = styled(Toggle)`
  flex: 1;
  min-height: 30px;
  padding: 0 4px;
  font-size: 12px;
`
