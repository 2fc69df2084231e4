import { describe, expect, it } from 'vitest'
import {
  activeHolds,
  checkEntries,
  clinicalNote,
  judgement,
  standingHolds,
  viewOf,
  type HoldVerdict,
  type Item,
  type Side,
  type Entry,
  type EntryOf,
} from '../src/index.js'
import { WitnessSearch, type Witness } from '../src/review/witness.js'
import type { Compiled, Reading } from '../src/rules/runtime.js'
import { wayOut } from '../src/rules/settle.js'
import { UNKNOWN, YES } from '../src/rules/truth.js'
import { AS_OF, entriesFor, newId, thePack, type Findings } from './support.js'

const pack = thePack()
const LIMBS = ['shoulder', 'elbow', 'wrist', 'hand', 'hip', 'knee', 'ankle', 'foot'] as const

function holdsOf(region: string, findings: Findings): readonly HoldVerdict[] {
  const sides: readonly Side[] = viewOf(pack, region).regions[0].side ? ['right'] : ['none']
  return judgement(pack, { complaint: { region, sides }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) }).verdict.holds
}
const met = (region: string, findings: Findings): string[] => holdsOf(region, findings).map((hold) => hold.id)
const stoppedBy = (region: string, id: string, findings: Findings): readonly string[] => holdsOf(region, findings).find((hold) => hold.id === id)?.stops ?? []

describe('holds that every joint of a limb has', () => {
  it.each(LIMBS)('%s: an operation, a bleeding disorder and a hard lump stop its forceful tests, and only those', (region) => {
    const forceful = viewOf(pack, region)
      .items.filter((item) => item.owner === region && item.stage === 'test' && item.burden > 1)
      .map((item) => item.id)
    const reasons: Findings[] = [
      { 'patient.joint-procedure-here': 'present' },
      { 'patient.bleeding-disorder': 'haemophilia A or B' },
      { [`${region}.feel.lump`]: { value: 60, qualifiers: { features: ['hard'] } } },
    ]
    for (const findings of reasons) {
      const holds = holdsOf(region, findings)
      expect(holds.length).toBeGreaterThan(0)
      for (const { stops } of holds.filter((hold) => /after-operation|tumour-suspected/.test(hold.id) && region !== 'shoulder')) expect(stops).toEqual(forceful)
      for (const { reason, allowed } of holds) expect([reason, allowed].every((text) => text.length > 3)).toBe(true)
    }
    expect(met(region, { 'patient.bleeding-disorder': 'none' }).filter((id) => id !== 'any.hold.irritable-nerve')).toEqual([])
  })
  it.each(LIMBS)('%s: an INR over 3 stops force in someone on warfarin, and no number stops nothing', (region) => {
    const on = (inr?: number): string[] => met(region, { 'patient.anticoagulant': ['warfarin'], ...(inr === undefined ? {} : { 'lab.inr': inr }) })
    expect([on(3.1), on(3), on()].map((ids) => ids.includes('any.hold.inr'))).toEqual([true, false, false])
  })
  it.each(['hip', 'knee', 'ankle', 'foot'])('%s: nobody pregnant is turned on the belly', (region) => {
    const stops = stoppedBy(region, 'any.hold.pregnancy-position', { 'patient.pregnant': 'yes' })
    expect(stops.length).toBeGreaterThan(0)
    for (const id of stops) expect(viewOf(pack, region).items.find((item) => item.id === id)?.position).toBe('prone')
    expect(met(region, { 'patient.pregnant': 'no' })).not.toContain('any.hold.pregnancy-position')
  })
})

describe('holds of one joint', () => {
  it.each<[string, string, Findings, string, string]>([
    ['back', 'back.hold.bone-fragility', { 'patient.osteoporosis': 'present' }, 'back.test.sij-sacral-thrust', 'back.test.slr'],
    ['back', 'back.hold.cauda', { 'back.history.saddle': ['altered sensation'] }, 'back.test.slump', 'back.neuro.perianal-touch'],
    ['ankle', 'ankle.hold.charcot', { 'patient.neuropathy': 'present', 'ankle.feel.warmth right': 'hot' }, 'ankle.test.hop', 'ankle.test.calf-squeeze'],
    [
      'foot',
      'foot.hold.charcot',
      { 'patient.neuropathy': 'present', 'foot.screen.hot-foot right': 'present' },
      'screen.weight-bearing-steps',
      'foot.test.tuning-fork',
    ],
    [
      'knee',
      'any.hold.artery-watch',
      { 'story.trauma': 'present', 'vascular.pulse-dorsalis-pedis right': 'absent' },
      'knee.test.lachman',
      'vascular.pulse-popliteal',
    ],
    ['neck', 'any.hold.neck-unstable', { 'story.trauma': 'present', 'neck.feel.midline': '2' }, 'neuro.test.spurling', 'neuro.strength.finger-abduction'],
  ])('%s: %s', (region, id, findings, stopped, free) => {
    const stops = stoppedBy(region, id, findings)
    expect(stops).toContain(stopped)
    expect(stops).not.toContain(free)
  })
  it('a hold shows before the test: it needs no finding of the test that it stops', () => {
    for (const region of pack.regions)
      for (const hold of viewOf(pack, region.id).holds) expect([region.id, hold.id, hold.stops.length > 0]).toEqual([region.id, hold.id, true])
  })
})

describe('a hold that stands because something is not known', () => {
  const boneFree: Findings = {
    'patient.age-years': 34,
    'story.trauma': 'present',
    'knee.feel.patella-bone': '0',
    'knee.feel.femoral-condyles': '0',
    'knee.feel.tibial-condyles': '0',
    'knee.feel.fibular-head': '0',
    'knee.move.flexion': { value: 'normal' },
    'story.steps-at-once': 'yes',
    'screen.weight-bearing-steps': 'yes',
    'patient.cognition': 'yes',
    'patient.intoxicated': 'absent',
    'patient.limb-block': 'absent',
    'story.head-injury': 'absent',
    'story.distracting-injury': 'absent',
    'patient.neuropathy': 'absent',
    'feel.crepitus': 'none',
    'knee.screen.deformity': 'none',
    'knee.history.mechanism': ['twist on the loaded flexed-knee'],
  }
  const ago = (days: number, precision: string): Findings[string] => ({
    value: new Date(Date.parse(AS_OF) - days * 86_400_000).toISOString(),
    qualifiers: { precision },
  })
  it.each([
    ['2 weeks', 14, 'week'],
    ['8 days', 8, 'day'],
    ['a month', 30, 'month'],
    ['3 days', 3, 'day'],
  ])('falls once the bone points of a knee are free, with the injury told as %s ago', (_told, days, precision) => {
    expect(met('knee', { ...boneFree, 'story.onset-at': ago(days, precision) })).not.toContain('any.hold.fracture-not-excluded')
  })
  it('names what it waits for, in words that can be asked, and lets its tests go once a clinician releases it', () => {
    const examination = (entries: readonly Entry[]) => ({ complaint: { region: 'knee', sides: ['right'] as const }, asOf: AS_OF, entries })
    const entries = entriesFor({ 'patient.age-years': 34, 'story.trauma': 'present', 'story.onset-at': ago(3, 'day') })
    const judged = judgement(pack, examination(entries))
    const hold = standingHolds(judged).find(({ id }) => id === 'any.hold.fracture-not-excluded')
    expect(hold?.awaits.map(({ item }) => item)).toContain('knee.feel.fibular-head')
    const release: EntryOf<'released'> = {
      id: newId(),
      hold: hold?.id ?? '',
      side: 'right',
      state: 'released',
      reason: 'film seen elsewhere, no break',
      by: 'Dr A',
      at: AS_OF,
    }
    expect(checkEntries(viewOf(pack, 'knee'), [release])).toEqual([])
    expect(checkEntries(viewOf(pack, 'knee'), [{ ...release, reason: ' - … ' }])).toMatchObject([{ path: '/entries/0/reason' }])
    const after = judgement(pack, examination([...entries, release]))
    expect(activeHolds(after).map(({ id }) => id)).not.toContain('any.hold.fracture-not-excluded')
    expect(
      clinicalNote(after)
        .find(({ heading }) => heading === 'Holds')
        ?.lines.join(),
    ).toContain('by Dr A: film seen elsewhere, no break')
  })

  const words = (item: Item): Reading['value'][] =>
    item.kind === 'multi' ? item.options.map((word) => [word]) : item.options.length > 0 ? [...item.options] : [0, 1, 2, 3, 5, 8, 12, 20, 60, 90, 120, 400]
  /** The truth of a rule if everything unknown turned out to end it: met means that it stands on what was found. */
  const atBest = (rule: Compiled, run: (one: Compiled) => number): number => {
    const kids = rule.kids.map((kid) => atBest(kid, run))
    switch (rule.node.op) {
      case 'leaf':
        return rule.node.leaf.type === 'unseen' ? 0 : run(rule)
      case 'all':
        return Math.min(...kids)
      case 'any':
        return Math.max(...kids)
      case 'not':
        return 2 - (kids[0] ?? UNKNOWN)
      case 'proven':
        return kids[0] === UNKNOWN ? YES : (kids[0] ?? UNKNOWN)
      case 'atLeast':
        return run(rule)
    }
  }
  it.each(pack.regions.flatMap(({ id }) => viewOf(pack, id).holds.map((hold) => [id, hold.id] as const)))(
    '%s: %s has a way out by answering what it names',
    (region, id) => {
      const search = new WitnessSearch(viewOf(pack, region))
      const { compiled } = search
      const { rule } = compiled.compiledHold(id)
      const witness = search.find([{ rule, want: YES }]).found
      expect(witness).toBeDefined()
      const known = new Map(witness)
      const context = search.contextOf(known)
      if (atBest(rule, (one) => one.run(context, 0)) === YES) return
      const slots = wayOut(rule, context, 0, compiled, (slot) => compiled.item(Math.floor(slot / 3)).seconds)
      expect(slots).not.toBeNull()
      const asked = [...(slots ?? [])].map((slot) => ({ slot, item: compiled.item(Math.floor(slot / 3)) }))
      const answers = (turn: number): Witness =>
        new Map([
          ...known,
          ...asked.map(({ slot, item }, at) => {
            const choices = words(item)
            const told = Object.entries(item.qualifiers).flatMap(([name, { options = [] }], nth) =>
              options.length > 0 ? [[name, options[Math.floor(turn / 17 / 2 ** nth) % options.length] ?? ''] as const] : [],
            )
            const qualifiers = { ...known.get(slot)?.qualifiers, ...Object.fromEntries(told), ...Object.fromEntries(item.readings.map((name) => [name, 150])) }
            const value = choices[Math.floor(turn / 13 ** Math.min(at, 3)) % choices.length]
            return [slot, { examined: true, isGap: false, reason: undefined, notValid: false, value, qualifiers }] as const
          }),
        ])
      let turn = 0
      while (turn < 13 ** 4 && rule.run(search.contextOf(answers(turn)), 0) === YES) turn++
      expect(rule.run(search.contextOf(answers(turn)), 0)).not.toBe(YES)
    },
  )
})
