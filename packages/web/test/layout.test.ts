import { describe, expect, it } from 'vitest'
import { viewOf } from '@kneecap-awl/core'
import { thePack } from '../../core/test/support.js'
import { layoutOf } from '../src/screens/workspace/layout.js'

const pack = thePack()

describe.each(pack.regions.map((region) => region.id))('the sheet of the %s', (id) => {
  const view = viewOf(pack, id)
  const { itemsOf, stopOf } = layoutOf(view)
  const shown = [...itemsOf.values()].flat().map((item) => item.id)

  it('has a place for every core item, and for every item that can be asked for', () => {
    const wanted = view.items.filter((item) => item.depth !== 'card' && item.derive === undefined && (item.stage !== 'story' || item.depth !== 'on-demand'))
    expect(wanted.filter((item) => !shown.includes(item.id)).map((item) => item.id)).toEqual([])
  })
  it('shows no item twice', () => expect(shown.filter((item, at) => shown.indexOf(item) !== at)).toEqual([]))
  it('goes to a stop that shows the item', () => {
    expect(shown.filter((item) => !itemsOf.get(stopOf.get(item) ?? '')?.some((one) => one.id === item))).toEqual([])
  })
  it('works the same layout out once', () => expect(layoutOf(view)).toBe(layoutOf(view)))
})
