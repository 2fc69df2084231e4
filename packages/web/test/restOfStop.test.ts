import { describe, expect, it } from 'vitest'
import { viewOf, type FindingEntry, type Item, type Side } from '@kneecap-awl/core'
import { thePack } from '../../core/test/support.js'
import { layoutOf } from '../src/screens/workspace/layout'
import { normalDrafts, restOfStop, whyNotNormal, type SheetState } from '../src/screens/workspace/restOfStop'

const regions = thePack().regions.map((region) => region.id)
const rowsOf = (region: string, stop: string): readonly Item[] => layoutOf(viewOf(thePack(), region), 'position').itemsOf.get(stop) ?? []
const state = (more: Partial<SheetState> = {}): SheetState => ({ entryOf: () => undefined, isBlocked: () => false, overrideOf: () => undefined, ...more })

describe('the rest of a stop as normal', () => {
  it.each(regions)('of %s accounts for every open row: recorded, or left with the reason', (region) => {
    for (const stop of viewOf(thePack(), region).regions[0].stops) {
      const rows = rowsOf(region, stop.id)
      const { recorded, left } = restOfStop(rows, state())
      expect([...recorded, ...left.map(({ item }) => item)].map(({ id }) => id).sort()).toEqual(rows.map(({ id }) => id).sort())
      for (const { why } of left) expect(why).not.toBe('')
      for (const item of recorded) expect([item.answeredAlone, item.needs]).toEqual([false, undefined])
    }
  })
  it('writes no number, and nothing over what was found', () => {
    const rows = rowsOf('knee', 'move')
    const [flexion] = rows.filter(({ id }) => id === 'knee.move.flexion')
    const found: FindingEntry = {
      id: 'e',
      item: 'knee.move.flexion',
      side: 'right',
      state: 'examined',
      qualifiers: { passive: 90 },
      by: 'a',
      at: '2026-01-01T00:00:00Z',
    }
    const entryOf = (item: string, side: Side): FindingEntry | undefined => (item === found.item && side === 'right' ? found : undefined)
    expect(flexion && normalDrafts(flexion, state({ entryOf }))).toEqual([{ item: found.item, side: 'left', state: 'examined', value: 'normal' }])
    for (const { value, qualifiers = {} } of restOfStop(rows, state()).drafts)
      expect([value, ...Object.values(qualifiers)].filter((one) => typeof one === 'number')).toEqual([])
  })
  it.each([
    ['vascular.ankle-index', 'needs a reading'],
    ['vascular.refill-foot', 'needs a reading'],
    ['knee.imaging.film', 'needs a report'],
    ['bedside.ecg', 'needs a report'],
    ['lab.crp', 'needs a laboratory result'],
    ['patient.age-years', 'has to be told'],
    ['knee.move.flexion', undefined],
  ])('%s: %s', (id, why) => {
    const item = thePack().items.find((one) => one.id === id)
    expect(item && whyNotNormal(item, state())).toBe(why)
    expect(item && whyNotNormal(item, state({ isBlocked: () => true }))).toBe('on hold')
  })
})
