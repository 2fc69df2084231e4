import { describe, expect, it } from 'vitest'
import { judgement, pathwaysOf, referralLetter, viewOf, type Examination, type Tier, isFinding } from '../src/index.js'
import { AS_OF, calmRecord, daysAgo, entriesFor, thePack, type Findings } from './support.js'

function seen(region: string, findings: Findings, age = 40): Examination {
  const view = viewOf(thePack(), region)
  const told = new Set(Object.keys(findings).map((key) => key.split(' ')[0]))
  const record = calmRecord(view, age).filter((entry) => ![...told].some((id) => entry.item === id || entry.item === `${region}.${id ?? ''}`))
  return {
    complaint: { region, sides: view.regions[0].side ? ['right'] : ['none'] },
    asOf: AS_OF,
    entries: [...record, ...entriesFor(findings, 'right', AS_OF, region)],
  }
}

const tierOf = (region: string, flag: string, findings: Findings, age?: number): Tier | undefined =>
  judgement(thePack(), seen(region, findings, age)).verdict.flags.find((one) => one.id === flag)?.tier

describe('two findings that are more urgent together', () => {
  const broken: Findings = { 'story.trauma': 'present', 'story.onset-at': daysAgo(0.2), 'ankle.feel.lateral-malleolus-tip': '3' }
  it('a break and a lost pulse', () => {
    expect(tierOf('ankle', 'any.flag.fracture-suspected', broken)).toBe('today')
    expect(tierOf('ankle', 'any.flag.fracture-suspected', { ...broken, 'vascular.pulse-dorsalis-pedis': 'absent' })).toBe('now')
  })
  const hot: Findings = {
    'screen.micro-motion': 'not tolerated',
    'feel.warmth': 'hot',
    'feel.effusion': 'large',
    'screen.hot-joint': 'hot and swollen',
    'story.fever': 'present',
    'story.onset-at': daysAgo(2),
  }
  it('a hot joint, fever and a new pain in the spine', () => {
    expect(tierOf('elbow', 'any.flag.septic-joint', { ...hot, 'story.new-spinal-pain': 'absent' })).toBe('today')
    expect(tierOf('elbow', 'any.flag.septic-joint', { ...hot, 'story.new-spinal-pain': 'present' })).toBe('now')
  })
  const arthritis: Findings = {
    'hand.feel.swollen-joints': 3,
    'story.morning-stiffness-min': 60,
    'story.onset-at': daysAgo(50),
    'hand.test.mcp-squeeze': 'present',
  }
  it('early arthritis and fever', () => {
    expect(tierOf('hand', 'any.flag.early-arthritis', arthritis)).toBe('weeks')
    expect(tierOf('hand', 'any.flag.early-arthritis', { ...arthritis, 'story.fever': 'present' })).toBe('today')
  })
})

describe('what moves the tier of what is not urgent by itself', () => {
  // A tear of long standing: weeks by itself.
  const worn: Findings = {
    'story.onset-at': daysAgo(200),
    'shoulder.test.er-lag': 10,
    'shoulder.test.drop-arm': 'drops (weak)',
    'shoulder.move.flexion': { qualifiers: { active: 150, method: 'visual estimate' } },
  }
  const course: Findings = {
    'story.pain-trend': 'same',
    'story.pain-worst': 3,
    'story.function-lost': ['none'],
    'story.visits': 0,
    'story.deficit-trend': 'none',
    'patient.dominant-arm right': 'absent',
  }
  const tier = (more: Findings): Tier | undefined => {
    const { verdict } = judgement(thePack(), seen('shoulder', { ...worn, ...course, ...more }))
    return verdict.flags.filter((flag) => flag.classes.includes('S') || flag.classes.includes('T'))[0]?.tier
  }
  it.each<[string, Findings]>([
    ['the dominant arm', { 'patient.dominant-arm right': 'present' }],
    ['no longer able to work', { 'story.function-lost': ['work'] }],
  ])('%s brings weeks to days', (_, more) => {
    expect(tier({})).toBe('weeks')
    expect(tier(more)).toBe('days')
  })
  it('takes one step however many there are', () => expect(tier({ 'patient.dominant-arm right': 'present', 'story.function-lost': ['work'] })).toBe('days'))
})

describe('the picture and the clock of a suspicion', () => {
  const out: Findings = { 'story.trauma': 'present', 'story.onset-at': daysAgo(0.125), 'elbow.screen.deformity': 'prominent olecranon' }
  const ways = (region: string, findings: Findings) => {
    return pathwaysOf(judgement(thePack(), seen(region, findings)))
  }
  it('a joint out of place: film first, six hours from the injury', () => {
    const way = ways('elbow', out).find((one) => one.id === 'path.dislocation')
    expect(way?.first).toContain('before reduction')
    expect(way?.clock?.until).toBe('2026-03-10T12:00:00.000Z')
  })
  it('says so when nobody told since when', () => {
    const { 'story.onset-at': _, ...untimed } = out
    const examination = seen('elbow', out)
    const without = { ...examination, entries: examination.entries.filter((entry) => isFinding(entry) && entry.item !== 'story.onset-at') }
    expect(untimed).not.toHaveProperty('story.onset-at')
    expect(pathwaysOf(judgement(thePack(), without)).find((one) => one.id === 'path.dislocation')?.clock).toEqual({ title: 'Reduction within 6 h' })
  })
  it('gives the other picture in pregnancy', () => {
    const broken: Findings = { 'story.trauma': 'present', 'story.onset-at': daysAgo(0.2), 'ankle.feel.lateral-malleolus-tip': '3' }
    expect(ways('ankle', broken).find((one) => one.id === 'path.fracture')?.pregnant).toBeUndefined()
    expect(ways('ankle', { ...broken, 'patient.pregnant': 'yes' }).find((one) => one.id === 'path.fracture')?.pregnant).toContain('shield')
  })
  it('stands in the letter for what decided the tier', () => {
    const examination = seen('elbow', out)
    const letter = referralLetter(judgement(thePack(), examination), {
      patient: { name: 'Ada Quayside', birthDate: '1986-02-01' },
      examiner: 'Dr Mole',
      site: 'Harbour practice',
    })
    expect(letter.paragraphs.find((one) => one.heading === 'Imaging advised')?.text).toContain('Joint dislocation: Radiograph before reduction')
  })
})
