import { describe, expect, it } from 'vitest'
import { judgement, viewOf, type HoldVerdict, type Side } from '../src/index.js'
import { AS_OF, entriesFor, thePack, type Findings } from './support.js'

const pack = thePack()
const LIMBS = ['shoulder', 'elbow', 'wrist', 'hand', 'hip', 'knee', 'ankle', 'foot'] as const

function holdsOf(region: string, findings: Findings): readonly HoldVerdict[] {
  const sides: readonly Side[] = viewOf(pack, region).regions[0]?.side === false ? ['none'] : ['right']
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
    expect(holdsOf(region, { 'patient.bleeding-disorder': 'none' })).toEqual([])
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
    ['back', 'back.hold.weak-bone', { 'patient.osteoporosis': 'present' }, 'back.test.sij-sacral-thrust', 'back.test.slr'],
    ['back', 'back.hold.cauda', { 'back.history.saddle': ['different'] }, 'back.test.slump', 'back.neuro.perianal-touch'],
    ['ankle', 'ankle.hold.charcot', { 'patient.neuropathy': 'present', 'ankle.feel.warmth right': 'hot' }, 'ankle.test.hop', 'ankle.test.calf-squeeze'],
    ['foot', 'foot.hold.charcot', { 'patient.neuropathy': 'present', 'foot.screen.hot-foot right': 'present' }, 'screen.four-steps', 'foot.test.fork'],
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
