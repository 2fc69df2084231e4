import { describe, expect, it } from 'vitest'
import { judgement, nerveLevels } from '../src/index.js'
import { AS_OF, daysAgo, entriesFor, thePack, type Findings } from './support.js'

const both = (item: string, value: string): Findings => ({ [`${item} right`]: value, [`${item} left`]: value })

function patterns(region: string, findings: Findings): string[] {
  const pack = thePack()
  const side = pack.regions.find((one) => one.id === region)?.side ? 'right' : 'none'
  return nerveLevels(
    judgement(pack, { complaint: { region, sides: [side] }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) }),
  ).patterns.map((one) => one.name)
}

const quietLegs: Findings = {
  ...both('neuro.test.plantar', 'flexor'),
  ...both('neuro.test.clonus-ankle', 'absent'),
  ...both('neuro.reflex.knee', 'normal'),
  ...both('neuro.reflex.ankle', 'normal'),
  ...both('neuro.touch.plantar', 'normal'),
  ...both('neuro.strength.hip-flexion', '5'),
  ...both('neuro.strength.knee-extension', '5'),
  ...both('neuro.strength.ankle-dorsiflexion', '5'),
  'screen.bladder-bowel-saddle': ['none'],
}

describe('patterns over both sides come before one root or nerve', () => {
  it.each<[string, Findings, string]>([
    ['feet that drop on both sides', both('neuro.strength.ankle-dorsiflexion', '3'), 'Suspected cauda equina pattern'],
    ['a toe that goes up with a weak leg', { 'neuro.test.plantar right': 'extensor', 'neuro.strength.hip-flexion right': '4' }, 'Myelopathy pattern'],
    [
      'both legs weak within days, jerks gone',
      {
        ...both('neuro.strength.hip-flexion', '4'),
        ...both('neuro.reflex.knee', 'absent'),
        ...both('neuro.reflex.ankle', 'absent'),
        'story.onset-at': daysAgo(6),
      },
      'Acute polyradiculoneuropathy pattern',
    ],
    ['numb soles, ankle jerks gone', { ...both('neuro.touch.plantar', 'reduced'), ...both('neuro.reflex.ankle', 'absent') }, 'Length-dependent polyneuropathy'],
    ['a toe that goes up, ankle jerks gone', { 'neuro.test.plantar left': 'extensor', ...both('neuro.reflex.ankle', 'absent') }, 'Mixed UMN and LMN pattern'],
    ['weak hips, feet strong, jerks and touch kept', both('neuro.strength.hip-flexion', '4'), 'Myopathy pattern'],
    [
      'thigh weak in three movements, jerk gone, diabetes',
      {
        'neuro.strength.hip-flexion right': '4',
        'neuro.strength.knee-extension right': '3',
        'neuro.strength.hip-adduction right': '4',
        'neuro.reflex.knee right': 'absent',
        'patient.diabetes': 'yes',
      },
      'Lumbosacral radiculoplexus neuropathy',
    ],
  ])('%s', (_, findings, pattern) => expect(patterns('back', { ...quietLegs, ...findings })).toContain(pattern))

  it('is silent when nothing is lost', () => expect(patterns('back', quietLegs)).toEqual([]))
  it('does not name the longest nerves while the ankle jerks were not tried', () => {
    const { 'neuro.reflex.ankle left': _, ...untried } = quietLegs
    expect(patterns('back', { ...untried, ...both('neuro.touch.plantar', 'reduced') })).toEqual([])
  })
  it('takes brisk jerks with a weak arm for the cord', () =>
    expect(patterns('neck', { 'neuro.reflex.triceps right': 'brisk', 'neuro.strength.elbow-flexion right': '4' })).toContain('Myelopathy pattern'))
  it('a small stroke: the face with a weak hand', () =>
    expect(patterns('hand', { 'screen.fast-stroke': ['facial droop'] })).toEqual(['Stroke (central) pattern']))
  it('two different nerves on two sides are several nerves', () => {
    const arm = thePack().nerveLesions.lesions.filter((one) => one.limb === 'arm')
    const wrist: Findings = Object.assign(
      {},
      ...[...new Set(arm.flatMap((one) => [...one.expected, ...one.shared]))].map((item) => both(item, item.startsWith('neuro.strength') ? '5' : 'normal')),
    ) as Findings
    const ulnarRight = {
      'neuro.strength.finger-abduction right': '2',
      'neuro.strength.fdp-little right': '2',
      'neuro.touch.little-pulp right': 'absent',
      'neuro.touch.dorsal-ulnar right': 'absent',
    }
    const radialLeft = {
      'neuro.strength.wrist-extension left': '2',
      'neuro.strength.finger-extension left': '2',
      'neuro.strength.thumb-extension left': '2',
      'neuro.touch.dorsal-web left': 'absent',
    }
    expect(patterns('wrist', { ...wrist, ...ulnarRight, ...radialLeft })).toContain('Several single nerves')
    expect(patterns('wrist', { ...wrist, ...ulnarRight })).not.toContain('Several single nerves')
  })
})
