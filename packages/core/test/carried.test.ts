import { describe, expect, it } from 'vitest'
import { carriedEntries, viewOf, type FindingEntry } from '../src/index.js'
import { entriesFor, exam, thePack } from './support.js'

const pack = thePack()
const ids = (entries: readonly FindingEntry[]): string[] => entries.map((one) => one.item).sort()
const told = entriesFor({
  'patient.anticoagulant': 'warfarin',
  'story.trauma': 'present',
  'story.fever': 'present',
  'vitals.temperature': 38.4,
  'vascular.pulse-posterior-tibial right': '2',
  'neuro.strength.knee-extension right': '5',
  'knee.feel.warmth right': '2',
  'knee.screen.wound right': 'none',
  'neighbours.spine': 'normal',
})

describe('what another joint of the visit is not asked again', () => {
  it('is the person, named arteries and muscles; never what was found at the joint, nor whether a neighbour gives the complaint', () => {
    expect(ids(carriedEntries(pack, exam(told), 'hip', false))).toEqual([
      'neuro.strength.knee-extension',
      'patient.anticoagulant',
      'story.fever',
      'vascular.pulse-posterior-tibial',
      'vitals.temperature',
    ])
  })
  it('is the story as well where both began with the same event', () => {
    expect(ids(carriedEntries(pack, exam(told), 'hip', true))).toContain('story.trauma')
    expect(ids(carriedEntries(pack, exam(told), 'hip', false))).not.toContain('story.trauma')
  })
  it('leaves out what the other joint does not ask for', () => {
    expect(ids(carriedEntries(pack, exam(told), 'wrist', false))).not.toContain('vascular.pulse-posterior-tibial')
  })
  it('is everything but the story for the other side of the same joint, since both sides were recorded', () => {
    const other = ids(carriedEntries(pack, exam(told), 'knee', false))
    expect(other).toContain('knee.screen.wound')
    expect(other).not.toContain('story.trauma')
  })
  it('is what stands: an entry that was replaced is not carried, one that was taken back is', () => {
    const later = entriesFor({ 'vitals.temperature': 37 }, 'right', '2026-03-10T09:05:00.000Z')
    const carried = carriedEntries(pack, exam([...told, ...later]), 'hip', false)
    expect(carried.filter((one) => one.item === 'vitals.temperature').map((one) => one.value)).toEqual([37])
    const back = later.map((one) => ({ ...one, state: 'not-examined' as const }))
    expect(carriedEntries(pack, exam([...told, ...back]), 'hip', false).find((one) => one.item === 'vitals.temperature')?.state).toBe('not-examined')
  })
  it('is never an item of one region alone', () => {
    for (const region of pack.regions)
      expect(
        viewOf(pack, region.id)
          .items.filter((item) => item.carried && item.owner !== 'shared')
          .map((item) => item.id),
      ).toEqual([])
  })
})
