import { thePack } from './support.js'
import { describe, expect, it } from 'vitest'
import { all, any, atLeast, exactly, not } from '../src/rules/truth.js'
import { modifiedTier, type ApplicableModifier } from '../src/judge/priorityTier.js'
import { mostUrgent } from '../src/model/tier.js'
import { dueAt, dueHere, dueState, isCallDue, repairClock, runningClock, tierByClock } from '../src/judge/clock.js'

const TABLE = [
  ['met', 'met', 'met', 'met'],
  ['met', 'not-met', 'not-met', 'met'],
  ['met', 'unknown', 'unknown', 'met'],
  ['not-met', 'met', 'not-met', 'met'],
  ['not-met', 'not-met', 'not-met', 'not-met'],
  ['not-met', 'unknown', 'not-met', 'unknown'],
  ['unknown', 'met', 'unknown', 'met'],
  ['unknown', 'not-met', 'not-met', 'unknown'],
  ['unknown', 'unknown', 'unknown', 'unknown'],
] as const

describe('three-valued logic', () => {
  it.each(TABLE)('%s with %s: and %s, or %s', (a, b, and, or) => {
    expect(all([a, b])).toBe(and)
    expect(any([a, b])).toBe(or)
  })
  it('leaves what is not known not known when turned round', () => expect([not('met'), not('not-met'), not('unknown')]).toEqual(['not-met', 'met', 'unknown']))
  it('counts at least two', () => {
    expect(atLeast(2, ['met', 'unknown', 'not-met'])).toBe('unknown')
    expect(atLeast(2, ['met', 'met', 'unknown'])).toBe('met')
    expect(atLeast(2, ['met', 'not-met', 'not-met'])).toBe('not-met')
  })
  it('counts exactly one', () => {
    expect(exactly(1, ['met', 'unknown'])).toBe('unknown')
    expect(exactly(1, ['met', 'not-met'])).toBe('met')
    expect(exactly(1, ['met', 'met'])).toBe('not-met')
  })
})

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
    expect(repairClock(9 * 24, 14 * 24, 48)).toEqual({ hoursLeft: 72, tier: 'today', passed: false }))
  it('three days old it may be Days', () => expect(repairClock(3 * 24, 14 * 24, 48)).toEqual({ hoursLeft: 216, tier: 'days', passed: false }))
  it('past the window it stays at Days, late', () => {
    const clock = repairClock(15 * 24, 14 * 24, 0)
    expect(clock).toMatchObject({ tier: 'days', passed: true })
    expect(tierByClock('weeks', clock)).toBe('days')
    expect(tierByClock('today', clock)).toBe('today')
  })
  it('a limb cold since 09:10 has 2 h 30 left of six at 12:40', () => {
    const { elapsedMs, leftMs } = runningClock('2026-03-10T09:10:00Z', '2026-03-10T12:40:00Z', 6)
    expect([elapsedMs / 3_600_000, leftMs / 3_600_000]).toEqual([3.5, 2.5])
  })
  it('crosses midnight', () => expect(runningClock('2026-03-10T22:50:00Z', '2026-03-11T00:20:00Z', 6).elapsedMs).toBe(5_400_000))
  it('a Days flag of Friday 16:00 is due the next Friday 16:00', () => expect(dueAt('2026-11-20T16:00:00Z', 'days')).toBe('2026-11-27T16:00:00.000Z'))
  it('Here has a review date instead', () => expect(dueAt('2026-11-20T16:00:00Z', 'here')).toBeUndefined())
  it.each<[string, number, 'now' | 'today', readonly string[], string]>([
    ['two hours to go for a cold foot', 2, 'today', ['V'], '2026-11-21T14:00:00.000Z'],
    ['two hours to go for a torn tendon', 2, 'today', ['T'], '2026-11-21T16:00:00.000Z'],
    ['an hour to go', 1, 'today', ['V'], '2026-11-21T16:00:00.000Z'],
    ['longer to go than there is time', 2, 'now', ['N'], '2026-11-20T16:00:00.000Z'],
  ])('%s: due by %s', (_what, journeyHours, tier, classes, due) =>
    expect(
      dueHere({ tiers: thePack().tiers, journeyHours }, '2026-11-20T16:00:00.000Z', tier, [
        { tier, classes },
        { tier: 'here', classes: ['V'] },
      ]),
    ).toBe(due),
  )
  it('a cold foot that a clinician lowered from Now to Today still takes its way off the window', () =>
    expect(dueHere({ tiers: thePack().tiers, journeyHours: 2 }, '2026-11-20T16:00:00.000Z', 'today', [{ tier: 'now', classes: ['V'] }])).toBe(
      '2026-11-21T14:00:00.000Z',
    ))
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
