import { describe, expect, it } from 'vitest'
import { entropy, expectedInformation, tellingTests } from '../src/index.js'
import { calm, daysAgo, entriesFor, judged, type Findings } from './support.js'

describe('what a test is expected to tell', () => {
  it.each([
    [0.5, 1],
    [0.3, 0.881],
    [0.1, 0.469],
    [0, 0],
  ])('a chance of %d leaves %d bits', (p, bits) => expect(entropy(p)).toBeCloseTo(bits, 3))
  it.each([
    [0.3, 0.85, 0.94, 0.465],
    [0.3, 0.63, 0.77, 0.104],
    [0.05, 0.8, 0.69, 0.035],
  ])('before %d, sensitivity %d, specificity %d: %d bits', (p, sens, spec, bits) => expect(expectedInformation(p, sens, spec)).toBeCloseTo(bits, 3))
  it('a test that is right as often as a coin tells nothing', () => expect(expectedInformation(0.4, 0.5, 0.5)).toBeCloseTo(0, 10))
})

describe('the test that tells most about the conditions in question', () => {
  const twisted: Findings = {
    'story.trauma': 'present',
    'story.onset-at': daysAgo(3),
    'story.pop': 'present',
    'story.head-injury': 'absent',
    'story.distracting-injury': 'absent',
  }
  const without = (...items: string[]) => calm().filter((entry) => !items.includes(entry.item))
  const telling = (findings: Findings, ...items: string[]) => tellingTests(judged([...without(...items), ...entriesFor(findings)]))
  const lachman = {
    'knee.test.lachman right': { value: 8, qualifiers: { 'end-point': 'soft' } },
    'knee.test.lachman left': { value: 2, qualifiers: { 'end-point': 'firm' } },
  }

  it('is nothing while nothing speaks for any condition', () => expect(tellingTests(judged([]))).toEqual([]))
  it('names tests that were not done, with what they are about, the most telling first', () => {
    const found = telling({ ...twisted, ...lachman }, 'knee.test.pivot-shift', 'knee.test.anterior-drawer')
    expect(found.length).toBeGreaterThan(0)
    expect(found.map((one) => one.bits)).toEqual([...found.map((one) => one.bits)].sort((a, b) => b - a))
    for (const one of found) expect(one.conditions).not.toEqual([])
  })
  it('does not name what was done', () => {
    const drawer = telling({ ...twisted, ...lachman }).find((one) => one.item === 'knee.test.lachman')
    expect(drawer).toBeUndefined()
  })
  it('does not name what is on hold', () => {
    const held = judged([...without('knee.feel.fibular-head', 'knee.test.lachman'), ...entriesFor({ ...twisted, 'knee.feel.medial-joint-line': '2' })])
    const stopped = new Set(held.verdict.holds.flatMap((hold) => hold.stops))
    expect(stopped.size).toBeGreaterThan(0)
    expect(tellingTests(held).filter((one) => stopped.has(one.item))).toEqual([])
  })
})
