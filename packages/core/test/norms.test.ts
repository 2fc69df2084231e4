import { describe, expect, it } from 'vitest'
import { rangesByReference, usualRange } from '../src/index.js'
import { thePack } from './support.js'

const pack = thePack()
const references = pack.referenceRanges
const item = (id: string) => {
  const found = pack.items.find((one) => one.id === id)
  if (!found) throw new Error(id)
  return found
}

describe('the usual range of a movement', () => {
  it.each([
    ['elbow.move.flexion', undefined, 40, '140 to 150'],
    ['elbow.move.flexion', 'textbook', 40, '150'],
    ['elbow.move.flexion', 'measured', 40, '143'],
    ['hip.move.flexion', 'guides', 40, '100'],
    ['move.hip-internal-rotation', 'bedside', 40, '30 to 35, or 20'],
  ])('%s by %s at %d years is %s', (id, reference, years, range) => {
    expect(usualRange(item(id), references, reference, years)).toBe(range)
  })
  it('is that of children for a child, whatever was chosen, where there is one', () => {
    expect(usualRange(item('hip.move.abduction'), references, 'guides', 7)).toBe('50')
    expect(usualRange(item('elbow.move.flexion'), references, 'guides', 7)).toBe('140')
    expect(usualRange(item('hip.move.abduction'), references, 'guides', 16)).toBe('40')
  })
  it('is the range that covers them all where the reference is silent, and nothing where there is none', () => {
    expect(usualRange(item('shoulder.move.er-side'), references, 'guides', 40)).toBe('50 to 70')
    expect(usualRange(item('knee.feel.medial-joint-line'), references, 'guides', 40)).toBeUndefined()
  })
  it('stands for every reference that speaks, in the order of the pack', () => {
    expect(rangesByReference(item('elbow.move.pronation'), references).map(({ reference, range }) => `${reference.id} ${range}`)).toEqual([
      'textbook 80',
      'guides 80',
      'bedside 85',
      'measured 76',
    ])
  })
  it('is given by at least two references for the great movements of every limb joint', () => {
    const great = ['shoulder', 'elbow', 'wrist', 'hip', 'knee', 'ankle', 'neck'].map(
      (region) => pack.items.filter((one) => one.owner === region && one.stage === 'move' && Object.keys(one.norms ?? {}).length >= 2).length,
    )
    expect(Math.min(...great)).toBeGreaterThanOrEqual(2)
  })
})
