import type { Entry, Side } from '@kneecap-awl/core'
import type { PEOPLE } from './people.js'

export type Finding = Partial<Pick<Entry, 'value' | 'qualifiers' | 'state' | 'reason'>> & {
  readonly item: string
  readonly side?: Side
  /** Found not at the start but so many minutes later: a check done anew. */
  readonly minutesLater?: number
}

/** One visit of the demonstration: who, when relative to today, what was found, and how far it got. */
export interface DemoCase {
  readonly who: keyof typeof PEOPLE
  readonly side: 'right' | 'left'
  readonly hoursAgo: number
  readonly onsetDaysAgo: number
  readonly base: 'normal' | 'screen only' | 'nothing'
  readonly findings: readonly Finding[]
  readonly state: 'draft' | 'signed' | 'referred' | 'amended'
  readonly setting: 'primary-care' | 'emergency'
}

const injury = (mechanism: string, energy = 'moderate'): Finding[] => [
  { item: 'story.trauma', value: 'present' },
  { item: 'story.energy', value: energy },
  { item: 'knee.history.mechanism', value: [mechanism] },
  { item: 'story.onset-speed', value: 'instant' },
  { item: 'story.steps-at-once', value: 'yes' },
  { item: 'screen.story-fits', value: 'fits' },
]
const looseLachman: Finding[] = [
  { item: 'knee.test.lachman', value: 8, qualifiers: { 'end-point': 'soft' } },
  { item: 'knee.test.lachman', side: 'left', value: 2, qualifiers: { 'end-point': 'firm' } },
]
const torn: Finding[] = [
  ...injury('stumble or hard landing on the quadriceps', 'low'),
  { item: 'story.pop', value: 'present' },
  { item: 'knee.screen.heel-lift', value: 'cannot' },
  { item: 'knee.test.extensor-integrity', value: 'cannot' },
  { item: 'knee.feel.quads-tendon', value: '2', qualifiers: { gap: 'full' } },
  { item: 'feel.effusion', value: 'large' },
]
const worn: Finding[] = [
  { item: 'knee.history.pain-timing', value: ['during load'] },
  { item: 'story.morning-stiffness-min', value: 10 },
  { item: 'knee.feel.bony-enlargement', value: 'present' },
  { item: 'knee.move.patella-crepitus', value: 'coarse' },
  { item: 'knee.look.alignment', value: 'varus' },
]

/** Everyday accidents of boats, nets, ladders, gardens, kitchens and dances. */
export const CASES: readonly DemoCase[] = [
  {
    who: 'marsh',
    side: 'right',
    hoursAgo: 1,
    onsetDaysAgo: 0.2,
    base: 'screen only',
    state: 'draft',
    setting: 'emergency',
    findings: [...injury('twist on the loaded bent knee'), { item: 'story.swelling-hours', value: 'within 2 h' }, { item: 'story.pop', value: 'present' }],
  },
  { who: 'tarn', side: 'left', hoursAgo: 3, onsetDaysAgo: 0.3, base: 'normal', state: 'referred', setting: 'emergency', findings: torn },
  {
    who: 'pell',
    side: 'right',
    hoursAgo: 26,
    onsetDaysAgo: 20,
    base: 'normal',
    state: 'referred',
    setting: 'primary-care',
    findings: [{ item: 'story.giving-way', value: 'on turning' }, { item: 'story.pain-worst', value: 4 }, ...looseLachman],
  },
  {
    who: 'stroud',
    side: 'left',
    hoursAgo: 2,
    onsetDaysAgo: 0.1,
    base: 'screen only',
    state: 'signed',
    setting: 'emergency',
    findings: [
      ...injury('dashboard or fall on the bent knee', 'high'),
      { item: 'story.joint-out', value: 'put back by others', qualifiers: { what: 'whole knee' } },
      { item: 'vascular.pulse-dorsalis-pedis', value: 'absent' },
      { item: 'vascular.pulse-posterior-tibial', value: 'absent' },
      { item: 'feel.effusion', value: 'moderate' },
    ],
  },
  {
    who: 'voss',
    side: 'right',
    hoursAgo: 4,
    onsetDaysAgo: 2,
    base: 'normal',
    state: 'referred',
    setting: 'primary-care',
    findings: [
      { item: 'story.fever', value: 'present' },
      { item: 'vitals.temperature', value: 38.4 },
      { item: 'feel.warmth', value: 'hot' },
      { item: 'feel.effusion', value: 'moderate' },
      { item: 'knee.move.short-arc-pain', value: '3' },
      { item: 'knee.look.colour', value: ['red'] },
      { item: 'story.onset-speed', value: 'days' },
    ],
  },
  {
    who: 'hale',
    side: 'left',
    hoursAgo: 5,
    onsetDaysAgo: 12,
    base: 'normal',
    state: 'draft',
    setting: 'primary-care',
    findings: [
      { item: 'knee.history.pain-site', value: ['thigh'] },
      { item: 'move.hip-rotation-in', value: 8 },
      { item: 'knee.look.gait', value: ['antalgic'] },
      { item: 'knee.neighbours.hip-reproduces', value: 'present' },
    ],
  },
  {
    who: 'ivory',
    side: 'right',
    hoursAgo: 50,
    onsetDaysAgo: 60,
    base: 'normal',
    state: 'signed',
    setting: 'primary-care',
    findings: [
      { item: 'knee.test.squat-pain', value: 'present' },
      { item: 'knee.feel.patella-facets', value: '2' },
    ],
  },
  {
    who: 'crake',
    side: 'right',
    hoursAgo: 30,
    onsetDaysAgo: 400,
    base: 'normal',
    state: 'referred',
    setting: 'primary-care',
    findings: [...worn, { item: 'knee.function.stairs', value: 'limited' }, { item: 'story.care-weeks', value: 16 }],
  },
  {
    who: 'dunmore',
    side: 'left',
    hoursAgo: 6,
    onsetDaysAgo: 3,
    base: 'normal',
    state: 'signed',
    setting: 'primary-care',
    findings: [
      { item: 'knee.feel.calf', value: '2' },
      { item: 'vascular.pitting', value: 'present' },
      { item: 'knee.history.pain-site', value: ['calf'] },
      { item: 'vascular.calf-girth', value: 402 },
      { item: 'vascular.calf-girth', side: 'right', value: 366 },
    ],
  },
  {
    who: 'finch',
    side: 'right',
    hoursAgo: 7,
    onsetDaysAgo: 0.5,
    base: 'screen only',
    state: 'draft',
    setting: 'emergency',
    findings: [...injury('fall onto the knee', 'low'), { item: 'knee.feel.patella-bone', value: '3' }, { item: 'screen.four-steps', value: 'cannot now' }],
  },
  {
    who: 'gale',
    side: 'left',
    hoursAgo: 28,
    onsetDaysAgo: 1.5,
    base: 'normal',
    state: 'amended',
    setting: 'emergency',
    findings: [
      ...injury('pivot or landing without contact'),
      { item: 'story.joint-out', value: 'put back by self', qualifiers: { what: 'kneecap' } },
      { item: 'knee.feel.medial-retinaculum', value: '3' },
      { item: 'feel.effusion', value: 'moderate' },
    ],
  },
  {
    who: 'oakes',
    side: 'right',
    hoursAgo: 9,
    onsetDaysAgo: 5,
    base: 'normal',
    state: 'draft',
    setting: 'primary-care',
    findings: [
      { item: 'patient.prosthesis-here', value: 'total' },
      { item: 'feel.warmth', value: 'warmer' },
      { item: 'feel.effusion', value: 'small' },
    ],
  },
  {
    who: 'wray',
    side: 'left',
    hoursAgo: 72,
    onsetDaysAgo: 45,
    base: 'normal',
    state: 'referred',
    setting: 'primary-care',
    findings: [
      { item: 'feel.effusion', value: 'small' },
      { item: 'feel.synovium', value: 'present' },
      { item: 'story.morning-stiffness-min', value: 60 },
      { item: 'story.joints-count', value: 4 },
    ],
  },
  {
    who: 'teasel',
    side: 'right',
    hoursAgo: 0.8,
    onsetDaysAgo: 0.1,
    base: 'screen only',
    state: 'draft',
    setting: 'emergency',
    findings: [
      ...injury('twist on the loaded bent knee'),
      { item: 'feel.effusion', value: 'moderate' },
      { item: 'vascular.pulse-dorsalis-pedis', value: 'absent' },
      { item: 'vascular.pulse-dorsalis-pedis', side: 'left', value: 'normal' },
      { item: 'vascular.pulse-posterior-tibial', value: 'absent' },
      { item: 'vascular.pulse-posterior-tibial', side: 'left', value: 'normal' },
      { item: 'vascular.colour-foot', value: 'pale' },
      { item: 'vascular.pulse-dorsalis-pedis', value: 'normal', minutesLater: 25 },
      { item: 'vascular.pulse-posterior-tibial', value: 'normal', minutesLater: 25 },
      { item: 'vascular.colour-foot', value: 'normal', minutesLater: 25 },
    ],
  },
  {
    who: 'yarrow',
    side: 'right',
    hoursAgo: 0.4,
    onsetDaysAgo: 1,
    base: 'nothing',
    state: 'draft',
    setting: 'primary-care',
    findings: [{ item: 'story.trauma', value: 'present' }],
  },
  {
    who: 'crake',
    side: 'right',
    hoursAgo: 24 * 92,
    onsetDaysAgo: 300,
    base: 'normal',
    state: 'signed',
    setting: 'primary-care',
    findings: [...worn, { item: 'story.care-weeks', value: 2 }],
  },
  {
    who: 'ivory',
    side: 'right',
    hoursAgo: 24 * 40,
    onsetDaysAgo: 20,
    base: 'normal',
    state: 'signed',
    setting: 'primary-care',
    findings: [{ item: 'knee.test.squat-pain', value: 'present' }],
  },
  {
    who: 'pell',
    side: 'right',
    hoursAgo: 24 * 19,
    onsetDaysAgo: 0.5,
    base: 'screen only',
    state: 'signed',
    setting: 'emergency',
    findings: [
      ...injury('pivot or landing without contact'),
      { item: 'story.swelling-hours', value: 'within 2 h' },
      { item: 'feel.effusion', value: 'moderate' },
    ],
  },
  {
    who: 'marsh',
    side: 'left',
    hoursAgo: 24 * 200,
    onsetDaysAgo: 10,
    base: 'normal',
    state: 'signed',
    setting: 'primary-care',
    findings: [{ item: 'knee.feel.medial-joint-line', value: '2' }],
  },
  { who: 'wray', side: 'right', hoursAgo: 24 * 30, onsetDaysAgo: 14, base: 'normal', state: 'signed', setting: 'primary-care', findings: [] },
  { who: 'dunmore', side: 'right', hoursAgo: 24 * 120, onsetDaysAgo: 90, base: 'normal', state: 'signed', setting: 'primary-care', findings: worn },
  {
    who: 'yarrow',
    side: 'left',
    hoursAgo: 24 * 10,
    onsetDaysAgo: 7,
    base: 'normal',
    state: 'referred',
    setting: 'emergency',
    findings: [
      { item: 'story.locking', value: 'cannot move fully now' },
      ...injury('twist on the loaded bent knee'),
      { item: 'knee.move.extension', qualifiers: { active: -20, passive: -15 } },
      { item: 'knee.move.end-feel-extension', value: 'springy' },
      { item: 'knee.test.locked-knee', value: 'stays short' },
    ],
  },
]
