import { thePack } from './support.js'
import { describe, expect, it } from 'vitest'
import { modifiedTier, type ApplicableModifier } from '../src/judge/priorityTier.js'
import { mostUrgent } from '../src/model/tier.js'
import { dueAt, dueHere, dueState, isCallDue, repairClock, tierByClock, windowsOf } from '../src/judge/clock.js'

const windows = windowsOf(thePack())

describe('modifiers', () => {
  const step = (id: string, ...onlyFrom: ('here' | 'routine' | 'weeks')[]): ApplicableModifier => ({ id, step: true, ...(onlyFrom.length ? { onlyFrom } : {}) })
  const least = (id: string, atLeast: 'now' | 'today'): ApplicableModifier => ({ id, step: false, atLeast })
  it('immune suppression brings an infected bursa to Today', () => expect(modifiedTier('days', [least('mod.immune', 'today')])).toBe('today'))
  it('with fever it brings a septic joint to Now', () => expect(modifiedTier('today', [least('mod.immune-systemic', 'now')])).toBe('now'))
  it('three step modifiers make one step', () =>
    expect(
      modifiedTier('routine', [step('mod.hand', 'weeks', 'routine'), step('mod.work', 'weeks', 'routine'), step('mod.failed-care', 'here', 'routine')]),
    ).toBe('weeks'))
  it('a step never passes Today', () => expect(modifiedTier('today', [step('mod.older-fall')])).toBe('today'))
  it('a modifier of another class changes nothing', () => expect(modifiedTier('days', [])).toBe('days'))
  it('a blood thinner brings a bleed to Today', () => expect(modifiedTier('days', [least('mod.anticoagulant-bleed', 'today')])).toBe('today'))
  it('equal tiers do not add', () => expect(mostUrgent(['weeks', 'weeks'])).toBe('weeks'))
  it('no flag is Here', () => expect(mostUrgent([])).toBe('here'))
})

describe('clocks', () => {
  it('a rupture nine days old with a window of fourteen and two days of lead is Today', () =>
    expect(repairClock(9 * 24, 14 * 24, 48, 0, windows)).toEqual({ hoursLeft: 72, tier: 'today', passed: false }))
  it('three days old it may be Days', () => expect(repairClock(3 * 24, 14 * 24, 48, 0, windows)).toEqual({ hoursLeft: 216, tier: 'days', passed: false }))
  it('past the window it stays at Days, late', () => {
    const clock = repairClock(15 * 24, 14 * 24, 0, 0, windows)
    expect(clock).toMatchObject({ tier: 'days', passed: true })
    expect(tierByClock('weeks', clock)).toBe('days')
    expect(tierByClock('today', clock)).toBe('today')
  })
  it('a Days flag of Friday 16:00 is due the next Friday 16:00', () => expect(dueAt('2026-11-20T16:00:00Z', 'days', windows)).toBe('2026-11-27T16:00:00.000Z'))
  it('Here has a review date instead', () => expect(dueAt('2026-11-20T16:00:00Z', 'here', windows)).toBeUndefined())
  it.each<[string, number, 'now' | 'today', readonly string[], string]>([
    ['two hours to go for a cold foot', 2, 'today', ['V'], '2026-11-21T14:00:00.000Z'],
    ['two hours to go for a torn tendon', 2, 'today', ['T'], '2026-11-21T16:00:00.000Z'],
    ['an hour to go', 1, 'today', ['V'], '2026-11-21T16:00:00.000Z'],
    ['longer to go than there is time', 2, 'now', ['N'], '2026-11-20T16:00:00.000Z'],
  ])('%s: due by %s', (_what, journeyHours, tier, classes, due) =>
    expect(
      dueHere({ ...thePack(), journeyHours }, '2026-11-20T16:00:00.000Z', tier, [
        { tier, classes },
        { tier: 'here', classes: ['V'] },
      ]),
    ).toBe(due),
  )
  it('a cold foot that a clinician lowered from Now to Today still takes its way off the window', () =>
    expect(dueHere({ ...thePack(), journeyHours: 2 }, '2026-11-20T16:00:00.000Z', 'today', [{ tier: 'now', classes: ['V'] }])).toBe('2026-11-21T14:00:00.000Z'))
  it('turns amber at half of the window and is breached when it is over', () => {
    const at = (time: string) => dueState('2026-11-20T16:00:00Z', '2026-11-21T16:00:00Z', time)
    expect([at('2026-11-20T20:00:00Z'), at('2026-11-21T04:00:00Z'), at('2026-11-21T16:00:00Z')]).toEqual(['in time', 'half gone', 'breached'])
  })
})

describe('a team that does not answer', () => {
  it.each<[string, number | undefined, number, boolean]>([
    ['told', 15, 14, false],
    ['told', 15, 15, true],
    ['made', 15, 20, true],
    ['told', 60, 59, false],
    ['accepted', 15, 600, false],
    ['refused', 15, 600, false],
    ['told', undefined, 600, false],
  ])('%s, called again after %s min, %d min ago: %s', (event, callAgain, ago, due) => {
    const then = '2026-11-20T16:00:00.000Z'
    expect(isCallDue(event, then, callAgain, new Date(Date.parse(then) + ago * 60_000).toISOString())).toBe(due)
  })
  it('is called again after a quarter of an hour at Now, an hour at Today, and by hand only when slower', () =>
    expect(thePack().tiers.map((tier) => tier.callAgain)).toEqual([15, 60, undefined, undefined, undefined, undefined]))
})
