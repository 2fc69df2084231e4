import { describe, expect, it } from 'vitest'
import { viewOf } from '@kneecap-awl/core'
import { thePack } from '../../core/test/support.js'
import { layoutOf, ORDERS } from '../src/screens/workspace/layout.js'

const pack = thePack()

const routes = pack.regions.flatMap(({ id }) => ORDERS.map((order) => [id, order] as const))

describe.each(routes)('the sheet of the %s by %s', (id, order) => {
  const view = viewOf(pack, id)
  const { itemsOf, stopOf } = layoutOf(view, order)
  const shown = [...itemsOf.values()].flat().map((item) => item.id)

  it('has a place for every core item, and for every item that can be asked for', () => {
    const wanted = view.items.filter(
      (item) => item.depth !== 'card' && item.stage !== 'plan' && item.derive === undefined && (item.stage !== 'story' || item.depth !== 'on-demand'),
    )
    expect(wanted.filter((item) => !shown.includes(item.id)).map((item) => item.id)).toEqual([])
  })
  it('shows no item twice', () => expect(shown.filter((item, at) => shown.indexOf(item) !== at)).toEqual([]))
  it('goes to a stop that shows the item', () => {
    expect(shown.filter((item) => !itemsOf.get(stopOf.get(item) ?? '')?.some((one) => one.id === item))).toEqual([])
  })
  it('works the same layout out once', () => expect(layoutOf(view, order)).toBe(layoutOf(view, order)))
  it('asks what provokes pain last of a stop, or of a position in it', () => {
    for (const [stop, items] of itemsOf)
      items.forEach((item, at) => {
        const next = items[at + 1]
        const isSameTurn = next && (order === 'position' || next.position === item.position)
        if (isSameTurn && stop !== 'story') expect([item.id, item.burden === 3 && next.burden < 3]).toEqual([item.id, false])
      })
  })
})

describe('the two orders', () => {
  it('show the same items', () => {
    for (const { id } of pack.regions) {
      const [byPosition, byStage] = ORDERS.map((order) => [...layoutOf(viewOf(pack, id), order).order].sort())
      expect(byStage).toEqual(byPosition)
    }
  })
  it('by stage have the same stations in the same order, whichever joint', () => {
    const [first = [], ...others] = pack.regions.map(({ id }) => layoutOf(viewOf(pack, id), 'stage').stations.map(({ title }) => title))
    expect(first).toEqual([
      'History',
      'Screen',
      'Look',
      'Feel',
      'Move',
      'Strength',
      'Nerve and vessel',
      'Special tests',
      'Function',
      'Adjacent regions',
      'Results',
    ])
    for (const other of others) expect(other).toEqual(first)
  })
  it('by stage take the patient through each position once a station', () => {
    for (const { id } of pack.regions)
      for (const [station, items] of layoutOf(viewOf(pack, id), 'stage').itemsOf) {
        if (station === 'story') continue
        const positions = items.map(({ position }) => position)
        const turns = positions.filter((position, at) => position !== positions[at - 1])
        expect([id, station, turns]).toEqual([id, station, [...new Set(turns)]])
      }
  })
})
